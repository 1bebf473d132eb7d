/**
 * Loads the parts of the program that are not on the page yet. A browser asks for a module once: an `import()` whose
 * file did not come stays failed until the page is loaded again. So the files are fetched first, as often as it takes,
 * and imported from the browser's cache when all of them are there.
 */

/** How long to wait before files that did not come are asked for again, ms. */
const AGAIN_MS = 2_000;

/** `network`: parts wait for the network. `version`: their files are gone, another version is served. */
export type PartsWaitFor = 'network' | 'version' | null;

let waitFor: PartsWaitFor = null;
let waiting = 0;
const listeners = new Set<() => void>();

function setWaitFor(next: PartsWaitFor): void {
  if (next === waitFor) return;
  waitFor = next;
  for (const listener of listeners) listener();
}

/** What parts of the program wait for now. For `useSyncExternalStore`, with `listenToParts`. */
export const partsWaitFor = (): PartsWaitFor => waitFor;

/** @returns how to stop listening */
export function listenToParts(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Files that came, and those on their way, by their address: at first those the page itself was loaded with. */
const files = new Map<string, Promise<void>>(
  [...document.querySelectorAll('link[rel="modulepreload"], script[type="module"]')].map((element) => [
    element.getAttribute('href') ?? element.getAttribute('src') ?? '',
    Promise.resolve(),
  ]),
);

function untilAgain(): Promise<void> {
  return new Promise((resolve) => {
    const go = () => {
      clearTimeout(timer);
      window.removeEventListener('online', go);
      resolve();
    };
    const timer = setTimeout(go, AGAIN_MS);
    window.addEventListener('online', go);
  });
}

/** Fetches a file whole. `gone`: the server has no such file. */
async function fetchWhole(address: string): Promise<'here' | 'gone' | 'lost'> {
  try {
    const response = await fetch(address, { credentials: 'same-origin' });
    if (response.status === 404 || response.status === 410) return 'gone';
    if (!response.ok) return 'lost';
    await response.arrayBuffer();
    return 'here';
  } catch (error) {
    // No network, or it went in the midst of the file: asked for again.
    console.warn(`${address} did not come`, error);
    return 'lost';
  }
}

async function fetchUntilHere(address: string): Promise<void> {
  let outcome = await fetchWhole(address);
  if (outcome === 'here') return;
  waiting += 1;
  while (outcome !== 'here') {
    if (outcome === 'gone') {
      setWaitFor('version');
      // Only a reload can help, and when to reload is the reader's to choose: what is typed would be lost.
      await new Promise(() => {});
    }
    if (waitFor === null) setWaitFor('network');
    await untilAgain();
    outcome = await fetchWhole(address);
  }
  waiting -= 1;
  if (waiting === 0) setWaitFor(null);
}

/** Resolves when a file of the program is in the browser's cache, however long the network is away. */
export function fileHere(address: string): Promise<void> {
  let file = files.get(address);
  if (!file) files.set(address, (file = fetchUntilHere(address)));
  return file;
}

/**
 * Loads a part once its files are here. Every `import()` of the built program comes through this, see `vite.config.ts`.
 * @param importing the import itself
 * @param needed the files it and what it imports are made of, from the root of the site; none is a style sheet, the first
 *   page has the only one
 * @throws what the part itself throws while it starts
 */
export async function loadPart<T>(importing: () => Promise<T>, needed: readonly string[] = []): Promise<T> {
  await Promise.all(needed.map((file) => fileHere(`/${file}`)));
  return importing();
}
