import { get, update } from 'idb-keyval';

/** A list that waits on this device, in the browser's own database: one list, whatever tab looks at it. */
export interface DeviceQueue<T> {
  read: () => Promise<T[]>;
  /** Adds one; it is held from the call on, even where the page is left at once. */
  add: (entry: T) => Promise<void>;
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

/** Adds those that are not there yet. */
const withNew = <T extends { id: string }>(list: T[], entries: readonly T[]): T[] => [
  ...list,
  ...entries.filter(({ id }) => !list.some((there) => there.id === id)),
];

/**
 * The list of this name.
 * @param old where an earlier build kept it in `localStorage`, and how its entries read. An entry that is being added
 *   stands there too until the database has it, since a page that is left ends what the database was asked
 */
export function deviceQueue<T extends { id: string }>(
  name: string,
  old: { key: string; read: (entry: unknown) => T[] },
): DeviceQueue<T> {
  const key = `lanternwright.${name}`;
  const channel = new BroadcastChannel(key);
  let sending: Promise<void> | null = null;
  let again = false;

  const putDown = () => JSON.parse(localStorage.getItem(old.key) ?? '[]') as { id: string }[];
  const takeUp = (ids: readonly string[]) => {
    const left = putDown().filter(({ id }) => !ids.includes(id));
    if (left.length === 0) localStorage.removeItem(old.key);
    else localStorage.setItem(old.key, JSON.stringify(left));
  };

  async function moveOld(): Promise<void> {
    const there = putDown();
    if (there.length === 0) return;
    const entries = there.flatMap(old.read);
    await update<T[]>(key, (list = []) => withNew(list, entries));
    takeUp(there.map(({ id }) => id));
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
    async add(entry) {
      localStorage.setItem(old.key, JSON.stringify([...putDown(), entry]));
      try {
        await update<T[]>(key, (list = []) => withNew(list, [entry]));
      } finally {
        takeUp([entry.id]);
      }
      channel.postMessage('changed');
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
