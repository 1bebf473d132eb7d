import type { Entry, StreamKind } from './entry.ts';

/** What follows from a command: bodies to record, none where nothing changes, or why it cannot be. */
export type Decided<Body> = { ok: true; bodies: Body[] } | { ok: false; reason: string; field?: string };

/** A refusal, with why and the field it is about. */
export const refuse = (reason: string, field?: string): Decided<never> => ({
  ok: false,
  reason,
  ...(field ? { field } : {}),
});

/** One kind of stream: how its records are read, what may follow, what they come to, and what lists keep of it. */
export interface Aggregate<State, Command, Body, Rows> {
  stream: StreamKind;
  /** Reads a stored body, whatever version of the program wrote it. @throws ZodError for what none of them wrote */
  upcast: (body: unknown) => Body;
  /** @param state null before the first record */
  decide: (state: State | null, command: Command) => Decided<Body>;
  /** The state after one more record. @throws StreamError where it cannot follow */
  fold: (state: State | null, entry: Entry<Body>) => State;
  /** The same for a whole list from its beginning, where that is faster. @throws StreamError where one cannot follow */
  foldAll?: (entries: readonly Entry<Body>[]) => State;
  /** Rows for lists. */
  project: (state: State) => Rows;
}

/** A record that cannot follow the ones before it. */
export class StreamError extends Error {}

/**
 * What the records of one stream come to.
 * @param entries in the order of their versions
 * @param from where the stream does not begin with its own records: with a row of a batch
 * @throws StreamError when one is missing, doubled or cannot follow
 */
export function replay<State, Body>(
  { upcast, fold, foldAll }: Pick<Aggregate<State, never, Body, unknown>, 'upcast' | 'fold' | 'foldAll'>,
  entries: readonly Entry[],
  from: State | null = null,
): State | null {
  const read = entries.map((entry, i) => {
    if (entry.version !== i + 1)
      throw new StreamError(`Version ${entry.version} stands where ${i + 1} is expected`);
    return { ...entry, body: upcast(entry.body) };
  });
  return foldAll && from === null && read.length > 0 ? foldAll(read) : read.reduce<State | null>(fold, from);
}

/** The state a command is about. @throws StreamError for a stream that has none yet */
export function begun<State>(state: State | null, what: string): State {
  if (state === null) throw new StreamError(`The record of this ${what} has no beginning`);
  return state;
}
