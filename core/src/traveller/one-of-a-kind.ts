import type { z } from 'zod';

/** How many sheets and stacks are remembered. A shop has some dozens; what is beyond is read like a stranger's. */
const MOST = 2_000;
const known = new Map<string, object>();
const kept = new WeakSet<object>();

function remember(inMap: Map<string, object>, text: string, object: object): void {
  if (inMap.size >= MOST) inMap.clear();
  inMap.set(text, object);
}

/**
 * A sheet or a stack that was read before in the same words: one object for all jobs that hold it, so that what is
 * derived from it is derived once. Nothing changes such an object.
 */
export function oneOfAKind<T extends object>(read: T): T {
  if (kept.has(read)) return read;
  const text = JSON.stringify(read);
  const before = known.get(text);
  if (before) return before as T;
  remember(known, text, read);
  kept.add(read);
  return read;
}

/**
 * A schema that checks the same words once: what it read before it gives again, as one object for all that hold it.
 * For sheets and stacks, which every opening of a job repeats.
 */
export function readOnce<S extends z.ZodType<object>>(schema: S): S {
  const once = schema.clone();
  const checked = new Map<string, object>();
  const { run } = once._zod;
  once._zod.run = (payload, context) => {
    if (typeof payload.value !== 'object' || context.direction === 'backward') return run(payload, context);
    const text = JSON.stringify(payload.value);
    const before = checked.get(text);
    if (before) {
      payload.value = before;
      return payload;
    }
    const result = run(payload, context);
    // What is read at once is all there is: no schema of the record waits for anything.
    if (result instanceof Promise || result.issues.length > 0) return result;
    const value = oneOfAKind(result.value as object);
    result.value = value;
    remember(checked, text, value);
    return result;
  };
  return once;
}
