import { z } from 'zod';
import { BadInput, defineCalculation, LONGEST } from '../calculation/index.ts';
import { medianSlope } from '../statistics/index.ts';
import { addMonths, dateOfDay, dayNumber } from './calendar.ts';

const date = z.iso
  .date()
  .refine((d) => d >= '1900-01-01' && d <= '2200-12-31', { message: 'must lie between 1900 and 2200' });
const distanceKm = z.number().nonnegative().max(1e8);
const hours = z.number().nonnegative().max(1e7);
const meterSchema = z.object({ date, distanceKm: distanceKm.optional(), hours: hours.optional() });
type Meter = z.output<typeof meterSchema>;

const inputSchema = z.object({
  interval: z
    .object({
      distanceKm: z.number().positive().max(1e8).optional(),
      months: z.int().positive().max(1200).optional(),
      hours: z.number().positive().max(1e7).optional(),
    })
    .refine((i) => i.distanceKm !== undefined || i.months !== undefined || i.hours !== undefined, {
      message: 'needs a distance, months or hours',
    }),
  last: meterSchema,
  meter: z.array(meterSchema).max(LONGEST).default([]),
  today: date,
  soonDays: z.int().nonnegative().max(3660).default(30),
});

const bySchema = z.enum(['distance', 'months', 'hours']);
const criterionSchema = z.object({
  by: bySchema,
  /** The interval itself, in km, months or hours. */
  limit: z.number(),
  dueDate: z.iso.date().nullable(),
  /** What is left: km or hours from the last meter reading, days for months. Negative when overdue. */
  remaining: z.number().nullable(),
});
const outputSchema = z.object({
  state: z.enum(['overdue', 'soon', 'later', 'unknown']),
  dueDate: z.iso.date().nullable(),
  dueBy: bySchema.nullable(),
  criteria: z.array(criterionSchema),
});
type Criterion = z.output<typeof criterionSchema>;

/** Farthest day looked at, so that a unit that hardly moves does not run past the calendar. */
const LAST_DAY = dayNumber('9999-12-31');

interface Point {
  x: number;
  y: number;
  path: string;
}

/**
 * Readings of one meter by their days; the service itself is one where none was taken on its day.
 * @throws BadInput for a reading under an earlier one: a meter that was changed is joined before it comes here
 */
function pointsOf(field: 'distanceKm' | 'hours', last: Meter, meter: readonly Meter[]): Point[] {
  const read = (m: Meter, path: string): Point[] =>
    m[field] === undefined ? [] : [{ x: dayNumber(m.date), y: m[field], path: `${path}.${field}` }];
  const taken = meter.flatMap((m, i) => read(m, `meter.${i}`));
  const serviced = read(last, 'last').filter((p) => taken.every((t) => t.x !== p.x));
  const points = [...taken, ...serviced].sort((one, other) => one.x - other.x || one.y - other.y);
  const back = points.find((p, i) => i > 0 && p.y < points[i - 1]!.y);
  if (back) throw new BadInput('is less than an earlier reading', back.path);
  return points;
}

/** Due day by a meter: from the last reading on, at the median rate of use. */
function byMeter(by: 'distance' | 'hours', limit: number, last: Meter, meter: readonly Meter[]): Criterion {
  const field = by === 'distance' ? 'distanceKm' : 'hours';
  const points = pointsOf(field, last, meter);
  const read = points.at(-1);
  const serviced = last[field];
  if (serviced === undefined || !read) return { by, limit, dueDate: null, remaining: null };
  const remaining = serviced + limit - read.y;
  const rate = medianSlope(points);
  if (rate === null) return { by, limit, dueDate: null, remaining };
  if (rate <= 0) return { by, limit, dueDate: remaining <= 0 ? dateOfDay(read.x) : null, remaining };
  const day = Math.floor(read.x + remaining / rate + 1e-9);
  return { by, limit, dueDate: dateOfDay(Math.max(0, Math.min(day, LAST_DAY))), remaining };
}

/**
 * When a service is due: by distance, months or hours, whichever comes first.
 *
 * Months go by the calendar; a day the month does not have becomes its last. Distance and hours are carried
 * on from the last meter reading at the unit's rate of use, the median of the slopes between all its
 * readings; the service itself is one of them. A meter that never moves, or was read on one day only, has no date.
 * @throws BadInput for a reading under an earlier one
 * @source interval rules: common practice; rate: Theil's median of slopes
 */
export function serviceDue({
  interval,
  last,
  meter,
  today,
  soonDays,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const criteria: Criterion[] = [];
  if (interval.distanceKm !== undefined) criteria.push(byMeter('distance', interval.distanceKm, last, meter));
  if (interval.months !== undefined) {
    const dueDate = addMonths(last.date, interval.months);
    criteria.push({
      by: 'months',
      limit: interval.months,
      dueDate,
      remaining: dayNumber(dueDate) - dayNumber(today),
    });
  }
  if (interval.hours !== undefined) criteria.push(byMeter('hours', interval.hours, last, meter));
  const first = criteria
    .filter((c) => c.dueDate !== null)
    .sort((a, b) => (a.dueDate! < b.dueDate! ? -1 : a.dueDate! > b.dueDate! ? 1 : 0))[0];
  if (!first) return { state: 'unknown', dueDate: null, dueBy: null, criteria };
  const days = dayNumber(first.dueDate!) - dayNumber(today);
  return {
    state: days < 0 ? 'overdue' : days <= soonDays ? 'soon' : 'later',
    dueDate: first.dueDate,
    dueBy: first.by,
    criteria,
  };
}

/** `due`: when a service is due, whichever comes first. */
export const dueCalculation = defineCalculation({
  name: 'due',
  title: 'Service due',
  summary:
    'Forecasts the date on which a service is due, by distance, months or hours, whichever comes first.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Whichever comes first', mark: 'common-practice' },
    { text: 'Median of slopes: Theil 1950, Sen 1968', mark: 'published' },
  ],
  example: {
    interval: { distanceKm: 72_000, months: 30 },
    last: { date: '2025-02-11', distanceKm: 18_400 },
    meter: [
      { date: '2025-02-11', distanceKm: 18_400 },
      { date: '2025-09-02', distanceKm: 36_700 },
      { date: '2026-06-23', distanceKm: 61_150 },
    ],
    today: '2026-11-25',
  },
  compute: serviceDue,
});
