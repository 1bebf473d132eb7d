import { clear, createStore, get, set, update, type UseStore } from 'idb-keyval';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { StoredEvent } from '@lanternwright/core/traveller';

/**
 * What this device has of the shop for when there is no network: answers of the server by their address, of one
 * person. Another person, or nobody, and all of it goes.
 */
interface Copy {
  data: unknown;
  /** When it was fetched. */
  at: string;
}

let store: UseStore | null = null;
const copies = (): UseStore => (store ??= createStore('lanternwright-copies', 'copies'));

/** What is worth having without a network. Photos, papers, the reckoner's own and whatever is searched for are not. */
const withoutRepeats =
  /^api\/(people\/session$|jobs(\?|\/|$)|fleet\/(units\?page=1$|units\/|owners$)|sheets$|tools$)/;

const SESSION = 'api/people/session';
const personIn = (session: unknown) =>
  (session as { person: { id: string } | null } | undefined)?.person?.id ?? null;

/** Keeps an answer. Where somebody else is signed in by now, what was there of the one before goes first. */
export async function storeCopy(url: string, data: unknown): Promise<void> {
  if (!withoutRepeats.test(url)) return;
  if (url === SESSION) {
    const before = await get<Copy>(SESSION, copies());
    if (personIn(before?.data) !== personIn(data)) await clear(copies());
  }
  await set(url, { data, at: new Date().toISOString() } satisfies Copy, copies());
}

/** An answer as this device had it last. */
export async function copyOf(url: string): Promise<Copy | undefined> {
  return withoutRepeats.test(url) ? get<Copy>(url, copies()) : undefined;
}

/** Puts a record into the copy of its job, so that the copy is not older than what was seen here. */
export async function addToCopy(jobId: string, event: StoredEvent): Promise<void> {
  const url = `api/jobs/${jobId}`;
  if (!(await get<Copy>(url, copies()))) return;
  await update<Copy>(
    url,
    (copy) => {
      const job = copy!.data as JobDetail;
      if (event.version !== job.events.length + 1) return copy!;
      return { data: { ...job, events: [...job.events, event] }, at: new Date().toISOString() };
    },
    copies(),
  );
}

/** A browser that cannot hold copies goes on without them: said where whoever looks after it finds it. */
export function noCopies(error: unknown): undefined {
  console.warn('This browser holds no copies', error);
  return undefined;
}
