import { get, update } from 'idb-keyval';

/** A list that waits on this device, in the browser's own database: one list, whatever tab looks at it. */
export interface DeviceQueue<T> {
  read: () => Promise<T[]>;
  /** Changes the list in one go, so that two tabs never overwrite each other, and tells the other tabs. */
  change: (how: (list: T[]) => T[]) => Promise<void>;
  /** Calls back when another tab has changed the list. */
  onChange: (listener: (list: T[]) => void) => void;
  /**
   * Sends what waits while no other tab does. Asked for again meanwhile, it is done once more afterwards, so that
   * nothing that was added stays behind.
   */
  alone: (send: () => Promise<void>) => Promise<void>;
}

/** Over plain HTTP a browser has no locks: two tabs may then send one record, which is stored once by its id. */
const locked = (name: string, send: () => Promise<void>): Promise<void> =>
  'locks' in navigator ? navigator.locks.request(name, send) : send();

/**
 * The list of this name.
 * @param old where an earlier build kept it in `localStorage`, and how its entries read; it is moved over once
 */
export function deviceQueue<T>(
  name: string,
  old: { key: string; read: (entry: unknown) => T[] },
): DeviceQueue<T> {
  const key = `lanternwright.${name}`;
  const channel = new BroadcastChannel(key);
  let sending: Promise<void> | null = null;
  let again = false;

  async function moveOld(): Promise<void> {
    const text = localStorage.getItem(old.key);
    if (!text) return;
    const entries = (JSON.parse(text) as unknown[]).flatMap(old.read);
    await update<T[]>(key, (list = []) => [...entries, ...list]);
    localStorage.removeItem(old.key);
  }

  async function whileAsked(send: () => Promise<void>): Promise<void> {
    try {
      while (again) {
        again = false;
        await locked(key, send);
      }
    } finally {
      sending = null;
    }
  }

  const read = async () => (await get<T[]>(key)) ?? [];
  return {
    async read() {
      await moveOld();
      return read();
    },
    async change(how) {
      await update<T[]>(key, (list = []) => how(list));
      channel.postMessage('changed');
    },
    onChange(listener) {
      channel.addEventListener('message', () => void read().then(listener));
    },
    alone(send) {
      again = true;
      sending ??= whileAsked(send);
      return sending;
    },
  };
}
