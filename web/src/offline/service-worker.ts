/// <reference lib="webworker" />
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import type { PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

declare const self: ServiceWorkerGlobalScope & {
  /** Every file of the program, put in by the build. */
  readonly __FILES_OF_THE_PROGRAM: PrecacheEntry[];
};

// The program itself lies on the device: it opens and reloads without a network.
precacheAndRoute(self.__FILES_OF_THE_PROGRAM);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }));

// A new version waits until somebody asks for it.
self.addEventListener('message', ({ data }: ExtendableMessageEvent) => {
  if ((data as { type?: unknown } | null)?.type === 'SKIP_WAITING') void self.skipWaiting();
});
