import type { Database } from './connect.ts';
import { prepared } from './prepared.ts';

const END = 'select hash from entry order by seq desc limit 1';
/** What follows from the record may be rebuilt beside it: after this long an answer is worked out anew, ms. */
const LONGEST_MS = 60_000;

/**
 * An answer that follows from the record alone is worked out once and kept as long as nothing is recorded: whoever asks
 * meanwhile waits for it, whoever recorded something has a new one. For readers who see every owner.
 * @param work from which database, and what else the answer hangs on, as today
 */
export function keptWhileStill<T>(work: (from: Database, on: string) => Promise<T>) {
  const kept = new WeakMap<Database, { of: string; until: number; answer: Promise<T> }>();
  return async (from: Database, on = ''): Promise<T> => {
    // The end first: what is recorded meanwhile makes the answer newer than it says, never older.
    const [end] = await prepared<{ hash: string }>(from, 'hash-of-end', END, []);
    const of = `${end?.hash ?? ''} ${on}`;
    const known = kept.get(from);
    if (known?.of === of && known.until > Date.now()) return known.answer;
    const answer = work(from, on);
    const own = { of, until: Date.now() + LONGEST_MS, answer };
    kept.set(from, own);
    answer.catch(() => {
      if (kept.get(from) === own) kept.delete(from);
    });
    return answer;
  };
}
