import { z } from 'zod';
import { dayNumber, joinMeter, type JoinedPoint, type MeterOf } from '../interval/index.ts';
import { distanceSchema, formatQuantity } from '../quantity/index.ts';
import { refuse, StreamError, type Aggregate } from './aggregate.ts';

/** Where a reading is known from. */
export const meterSources = {
  'by-hand': 'Read by hand',
  job: 'Read at a job',
  file: 'From a file',
  feed: 'From the unit’s own feed',
  'taken-over': 'From before the record',
} as const;

export const meterSourceSchema = z.enum(Object.keys(meterSources) as [keyof typeof meterSources]);

/** A unit's meters as they were read on a day, and where that is known from. */
export const meterReadSchema = z
  .object({
    date: z.iso.date(),
    /** As it was typed, beside km. */
    distance: distanceSchema.nullable(),
    km: z.number().min(0).nullable(),
    hours: z.number().min(0).nullable(),
    source: meterSourceSchema,
  })
  .refine((r) => r.km !== null || r.hours !== null, 'neither distance nor hours were read');
export type MeterRead = z.output<typeof meterReadSchema>;

/** A meter was changed for another, or set back: from that day on another one counts. */
export const meterSwapSchema = z.object({
  date: z.iso.date(),
  of: z.enum(['distance', 'hours']),
  why: z.enum(['swapped', 'set-back']),
  /** What the old one read at its end, and the new one at its beginning; km or hours. */
  last: z.number().min(0),
  first: z.number().min(0),
});
export type MeterSwap = z.output<typeof meterSwapSchema>;

const meterBodySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('meter-read'), read: meterReadSchema }),
  /** Readings from before meters had a record. */
  z.object({ kind: z.literal('meters-taken-over'), reads: z.array(meterReadSchema).min(1) }),
  /** A reading was wrong; `right` stands in its place, or nothing does. */
  z.object({ kind: z.literal('meter-corrected'), nth: z.int().min(0), right: meterReadSchema.nullable() }),
  z.object({ kind: z.literal('meter-swapped'), swap: meterSwapSchema }),
]);
export type MeterBody = z.output<typeof meterBodySchema>;

export interface MeterState {
  version: number;
  /** In the order they were told; null where one was struck out. */
  reads: (MeterRead | null)[];
  /** Each with how many readings had been told before it. */
  swaps: (MeterSwap & { after: number })[];
}

export type MeterCommand =
  | { kind: 'read'; read: MeterRead; sure?: boolean }
  /** @property nth place among the readings, from 0 */
  | { kind: 'correct'; nth: number; right: MeterRead | null }
  | { kind: 'swap'; swap: MeterSwap };

/** A reading as lists keep it: counted across swaps; no total where it does not fit the others. */
export interface MeterRow extends MeterRead {
  nth: number;
  totalKm: number | null;
  totalHours: number | null;
}

const valueOf = (read: MeterRead, of: MeterOf) => (of === 'distance' ? read.km : read.hours);

/**
 * What somebody looked at counts more than what a file or a device says: a file about the wrong unit does not outvote
 * its history. @source common practice, no source
 */
const weightOf: Record<MeterRead['source'], number> = {
  'by-hand': 3,
  job: 3,
  'taken-over': 3,
  file: 1,
  feed: 1,
};

/** Readings of one meter, counted across its swaps, in the order of their days. */
function joinedOf({ reads, swaps }: MeterState, of: MeterOf): JoinedPoint[] {
  return joinMeter(
    reads.flatMap((read, nth) => {
      const value = read && valueOf(read, of);
      return value == null ? [] : [{ date: read!.date, value, nth, weight: weightOf[read!.source] }];
    }),
    swaps.filter((s) => s.of === of),
  );
}

/** More km in a day is a mistake, not a drive. @source common practice, no source */
export const MOST_KM_A_DAY = 2_000;
/** A day has 24 hours. */
const mostADay: Record<MeterOf, number> = { distance: MOST_KM_A_DAY, hours: 24 };
const unitOf: Record<MeterOf, 'km' | 'h'> = { distance: 'km', hours: 'h' };
const called: Record<MeterOf, string> = { distance: 'odometer', hours: 'hour meter' };

/** Why a reading that somebody types is not believed; null where it is. */
function whyDoubted(state: MeterState, read: MeterRead, of: MeterOf): string | null {
  const value = valueOf(read, of);
  if (value === null) return null;
  const nth = state.reads.length;
  const with_ = joinedOf({ ...state, reads: [...state.reads, read] }, of);
  const point = with_.find((p) => p.nth === nth)!;
  const believed = joinedOf(state, of).filter((p) => !p.doubtful);
  const said = (p: JoinedPoint) => `${formatQuantity({ value: p.value, unit: unitOf[of] })} on ${p.date}`;
  const earlier = believed.findLast((p) => p.date <= point.date && p.total > point.total);
  const later = believed.find((p) => p.date > point.date && p.total < point.total);
  if (earlier)
    return `The ${called[of]} read ${said(earlier)} already. Look again, or say that it was changed.`;
  if (later) return `The ${called[of]} read only ${said(later)}. Look again.`;
  const before = believed.findLast((p) => p.date <= point.date);
  if (!before) return null;
  const days = Math.max(1, dayNumber(read.date) - dayNumber(before.date));
  return point.total - before.total > days * mostADay[of]
    ? `The ${called[of]} read ${said(before)}: no unit runs that far in ${days === 1 ? 'a day' : `${days} days`}.`
    : null;
}

const empty: MeterState = { version: 0, reads: [], swaps: [] };

/**
 * The meters of a unit: readings are appended, a wrong one is corrected by a correction, one that was changed for
 * another is swapped. What a person types must fit what was read before; what a job, a file or a feed brings is kept as
 * it came, and believed only where it fits.
 */
export const meterAggregate: Aggregate<
  MeterState,
  MeterCommand,
  MeterBody,
  { reads: MeterRow[]; swaps: MeterState['swaps'] }
> = {
  stream: 'meter',
  upcast: (body) => meterBodySchema.parse(body),

  decide(state, command) {
    const known = state ?? empty;
    if (command.kind === 'read') {
      const { read } = command;
      const typed = read.source === 'by-hand' && !command.sure;
      for (const of of typed ? (['distance', 'hours'] as const) : []) {
        const why = whyDoubted(known, read, of);
        if (why) return refuse(why, of);
      }
      return { ok: true, bodies: [{ kind: 'meter-read', read }] };
    }
    if (command.kind === 'correct') {
      if (!known.reads[command.nth]) return refuse('There is no such reading');
      return { ok: true, bodies: [{ kind: 'meter-corrected', nth: command.nth, right: command.right }] };
    }
    const { swap } = command;
    const highest = joinedOf(known, swap.of).findLast((p) => !p.doubtful && p.date <= swap.date);
    const count = known.swaps.filter((s) => s.of === swap.of && s.date <= swap.date).at(-1)?.after ?? 0;
    if (highest && highest.nth >= count && swap.last < highest.value)
      return refuse(
        `The old ${called[swap.of]} read ${formatQuantity({ value: highest.value, unit: unitOf[swap.of] })} on ${highest.date}: it cannot have ended at less.`,
        'last',
      );
    return { ok: true, bodies: [{ kind: 'meter-swapped', swap }] };
  },

  fold(state, { version, body }) {
    const { reads, swaps } = state ?? empty;
    switch (body.kind) {
      case 'meter-read':
        return { version, swaps, reads: [...reads, body.read] };
      case 'meters-taken-over':
        return { version, swaps, reads: [...reads, ...body.reads] };
      case 'meter-swapped':
        return { version, reads, swaps: [...swaps, { ...body.swap, after: reads.length }] };
      case 'meter-corrected':
        if (!reads[body.nth]) throw new StreamError('What was corrected is not there');
        return { version, swaps, reads: reads.map((r, i) => (i === body.nth ? body.right : r)) };
    }
  },

  project(state) {
    const totals = (of: MeterOf) =>
      new Map(joinedOf(state, of).map((p) => [p.nth, p.doubtful ? null : p.total]));
    const [km, hours] = [totals('distance'), totals('hours')];
    return {
      reads: state.reads.flatMap((read, nth) =>
        read ? [{ ...read, nth, totalKm: km.get(nth) ?? null, totalHours: hours.get(nth) ?? null }] : [],
      ),
      swaps: state.swaps,
    };
  },
};
