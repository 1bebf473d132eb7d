import { z } from 'zod';
import { convert, quantity } from '../quantity/index.ts';
import { StreamError } from './aggregate.ts';
import type { Entry } from './entry.ts';
import { meterAggregate, type MeterRead, type MeterState } from './meter.ts';

/**
 * Readings of one unit that came in with a file or a feed: a row of a batch. They are no records of the unit's own, and
 * stand between two of them.
 */
export const broughtReadsSchema = z.object({
  unitId: z.uuid(),
  /** How many records of their own the unit's meters had before it. */
  after: z.int().min(0),
  source: z.enum(['file', 'feed']),
  distanceIn: z.enum(['km', 'mi']),
  /** Day, odometer, hours; null where one was not read. */
  reads: z.array(z.tuple([z.iso.date(), z.number().min(0).nullable(), z.number().min(0).nullable()])).min(1),
});
export type BroughtReads = z.output<typeof broughtReadsSchema>;

/** The readings of a row, as a record of the unit's own would hold them. */
export function readsOf({ source, distanceIn, reads }: Omit<BroughtReads, 'unitId' | 'after'>): MeterRead[] {
  return reads.map(([date, value, hours]) => ({
    date,
    distance: value === null ? null : quantity(value, distanceIn),
    km: value === null ? null : convert(value, distanceIn, 'km'),
    hours,
    source,
  }));
}

/** The state with more readings, told now. */
export const withReads = (state: MeterState | null, reads: readonly MeterRead[]): MeterState => ({
  version: state?.version ?? 0,
  reads: [...(state?.reads ?? []), ...reads],
  swaps: state?.swaps ?? [],
});

/**
 * What the records of a unit's meters come to, with what batches brought between them.
 * @param entries in the order of their versions
 * @param brought in the order in which they came
 * @param from where the stream begins with a row of a fleet file
 * @throws StreamError where one is missing, doubled or cannot follow
 */
export function replayMeters(
  entries: readonly Entry[],
  brought: readonly BroughtReads[],
  from: MeterState | null = null,
): MeterState | null {
  let state = from;
  let next = 0;
  const bring = (version: number) => {
    for (; brought[next]?.after === version; next++) state = withReads(state, readsOf(brought[next]!));
  };
  bring(0);
  entries.forEach((entry, i) => {
    if (entry.version !== i + 1)
      throw new StreamError(`Version ${entry.version} stands where ${i + 1} is expected`);
    state = meterAggregate.fold(state, { ...entry, body: meterAggregate.upcast(entry.body) });
    bring(entry.version);
  });
  if (next < brought.length) throw new StreamError('Readings were brought after a record that is not there');
  return state;
}

/** Beyond this much more in the same day a reading is worth keeping beside the one before: a retorque waits for it. */
const WORTH_KEEPING = { km: 80, hours: 5 };

/**
 * What of a feed's readings is kept: the first of a day, what ran far since, and what does not fit. A feed speaks every
 * few minutes; a record of each would drown the few that tell something.
 * @param known what the unit has already, in the order in which it was told
 * @param reads in the order of their days and times
 */
export function withoutRepeats(
  known: readonly (MeterRead | null)[],
  reads: readonly MeterRead[],
): MeterRead[] {
  const lastOf = new Map<string, MeterRead>();
  for (const read of known) if (read) lastOf.set(read.date, read);
  return reads.filter((read) => {
    const last = lastOf.get(read.date);
    const far = (of: 'km' | 'hours') => {
      const [was, is] = [last?.[of] ?? null, read[of]];
      return is !== null && (was === null || is < was || is - was >= WORTH_KEEPING[of]);
    };
    if (last && !far('km') && !far('hours')) return false;
    lastOf.set(read.date, read);
    return true;
  });
}
