import type { Workbox } from 'workbox-window';

/** How often a page that stays open asks whether there is a new version. */
const ASK_MS = 30 * 60_000;

let waiting: Workbox | null = null;
const listeners = new Set<() => void>();

/** Tells when a new version of the program lies on the device and waits to be used. */
export function listenToVersion(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether a new version of the program lies on the device and waits to be used. */
export const newVersionWaits = (): boolean => waiting !== null;

/** Puts the new version in place of this one and loads the page again. */
export function changeToNewVersion(): void {
  waiting?.addEventListener('controlling', () => window.location.reload());
  waiting?.messageSkipWaiting();
}

/** Installs the program on the device, so that it opens without a network; a server that is worked on is never kept. */
export async function installProgram(): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  try {
    const { Workbox } = await import('workbox-window');
    const workbox = new Workbox('/sw.js');
    workbox.addEventListener('waiting', () => {
      waiting = workbox;
      for (const listener of listeners) listener();
    });
    await workbox.register();
    setInterval(() => void workbox.update(), ASK_MS);
  } catch (error) {
    console.warn('The program was not installed: it opens with a network only', error);
  }
}
