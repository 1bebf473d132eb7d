import { useSyncExternalStore } from 'react';
import { useRegisterSW } from 'virtual:pwa-register/react';
import { Button } from '../ui/button.tsx';
import { listenToParts, partsWaitFor } from './load-part.ts';

/** How often a page that stays open asks whether there is a new version. */
const ASK_MS = 30 * 60_000;

/** Installs the program on the device, so that it opens without a network, and offers a new version when one is there. */
export function NewVersion() {
  const {
    needRefresh: [isThere],
    updateServiceWorker,
  } = useRegisterSW({
    onRegisteredSW(_url, registration) {
      if (registration) setInterval(() => void registration.update(), ASK_MS);
    },
    onRegisterError(error: unknown) {
      console.warn('The program was not installed: it opens with a network only', error);
    },
  });
  const filesAreGone = useSyncExternalStore(listenToParts, partsWaitFor) === 'version';
  if (!isThere && !filesAreGone) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-between gap-3 border-b border-lamp-edge bg-lamp px-5 py-2 text-14"
    >
      <span>
        {filesAreGone
          ? 'Lanternwright was updated, and this page can open no other until it is loaded again. Finish what you are typing first.'
          : 'A new version of Lanternwright is here. What waits on this device stays.'}
      </span>
      <Button onClick={() => (isThere ? void updateServiceWorker(true) : window.location.reload())}>
        Use it now
      </Button>
    </div>
  );
}
