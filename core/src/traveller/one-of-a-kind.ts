/** How many sheets and stacks are remembered. A shop has some dozens; what is beyond is read like a stranger's. */
const MOST = 2_000;
const known = new Map<string, object>();

/**
 * A sheet or a stack that was read before in the same words: one object for all jobs that hold it, so that what is
 * derived from it is derived once. Nothing changes such an object.
 */
export function oneOfAKind<T extends object>(read: T): T {
  const text = JSON.stringify(read);
  const before = known.get(text);
  if (before) return before as T;
  if (known.size >= MOST) known.clear();
  known.set(text, read);
  return read;
}
