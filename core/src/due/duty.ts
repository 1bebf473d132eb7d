import { z } from 'zod';
import type { Interval } from '../interval/index.ts';
import type { Work } from '../stack/index.ts';

/** What makes a unit's work come sooner than its sheets say. */
export const duties = {
  water: 'Works in water',
  load: 'Heavily loaded',
  'larger-wheels': 'Larger wheels or axle extensions',
  standing: 'Stands for months',
} as const;
export type Duty = keyof typeof duties;

/** How much of an interval is left of it: nothing is written down for it, the supervisor says. */
export const dutyShares = [0.75, 0.5, 0.25] as const;

const saidDutySchema = z.object({
  of: z.enum(Object.keys(duties) as [Duty, ...Duty[]]),
  share: z.literal(dutyShares),
});
export type SaidDuty = z.output<typeof saidDutySchema>;

export const saidDutiesSchema = z
  .array(saidDutySchema)
  .max(Object.keys(duties).length)
  .refine((said) => new Set(said.map((d) => d.of)).size === said.length, 'one is said twice');

/** Works that water gets to. @source common practice, no source: what worked in water has its seals looked at sooner */
const wet: ReadonlySet<Work> = new Set(['check', 'oil-level', 'seal', 'repack', 'bearings']);

type Limit = keyof Interval;

/** Whether a duty wears this limit: who stands runs no distance and ages all the same. @source common practice, no source: grease cakes with age at low distance */
const wears = ({ of }: SaidDuty, work: Work, limit: Limit) =>
  of === 'standing' ? limit === 'months' : of === 'water' ? wet.has(work) : true;

/**
 * An interval as it is for a unit of such duty: each limit by the smallest share that wears it. Months are whole, one at
 * least.
 * @returns the interval, and the duties that shortened it
 */
export function shortenedBy(
  work: Work,
  interval: Interval,
  said: readonly SaidDuty[],
): { interval: Interval; by: Duty[] } {
  const by = new Set<Duty>();
  const shorter = (limit: Limit): number | null => {
    const value = interval[limit];
    if (value === null) return null;
    const worn = said.filter((d) => wears(d, work, limit));
    const share = Math.min(1, ...worn.map((d) => d.share));
    worn.filter((d) => d.share === share).forEach((d) => by.add(d.of));
    return limit === 'months' ? Math.max(1, Math.floor(value * share)) : value * share;
  };
  return {
    interval: { km: shorter('km'), months: shorter('months'), hours: shorter('hours') },
    by: [...by],
  };
}
