import type { Aggregate, Entry, StreamKind } from '../index.ts';

const id = '00000000-0000-4000-8000-000000000001';
const by = { id, name: 'Q. Farrow', role: 'storekeeper' as const };

/** One stream of an aggregate, told command after command as the server does it. */
export function told<S extends { version: number }, C, B, R>(aggregate: Aggregate<S, C, B, R>) {
  const entries: Entry[] = [];
  let state: S | null = null;
  return {
    entries,
    /** The state as it stands. */
    now: (): S => state!,
    /** @returns why it is refused; null where it was recorded */
    tell(command: C): string | null {
      const decided = aggregate.decide(state, command);
      if (!decided.ok) return decided.reason;
      for (const body of decided.bodies) {
        const version = (state?.version ?? 0) + 1;
        const stream: StreamKind = aggregate.stream;
        const entry = { id, stream, streamId: id, version, at: '2026-11-27T08:00:00.000Z', by, body };
        entries.push(entry);
        state = aggregate.fold(state, entry);
      }
      return null;
    },
  };
}
