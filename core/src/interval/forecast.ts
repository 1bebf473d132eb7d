import { rankedSlopes } from '../statistics/index.ts';
import { addMonths, dateOfDay, dayNumber } from './calendar.ts';

/** What a unit had run in all on a day: km, or hours. */
export interface RunPoint {
  date: string;
  total: number;
}

/** How much a unit runs in a day, and between what it lies. */
export interface Use {
  perDay: number;
  low: number;
  high: number;
}

/** Newest days that the use is taken from: how a unit ran years ago says little. */
const DAYS_LOOKED_AT = 24;
/** Two days say how much was run between them and nothing of how that varies. */
const LEAST_SPREAD = 1.25;
/** Normal quantile for an interval that holds the true use four times in five. */
const Z = 1.2816;

/**
 * The use of a unit from the days its meter was read on: the median of the slopes between them, with the interval that
 * the ranks of the slopes give.
 * @returns null below two days, or where the meter stands
 * @source Theil 1950; interval: Sen 1968, from the variance of Kendall's S; least spread: common practice, no source
 */
export function useOf(points: readonly RunPoint[]): Use | null {
  const newest = new Map(points.map((p) => [p.date, p.total]));
  const days = [...newest]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .slice(-DAYS_LOOKED_AT)
    .map(([date, total]) => ({ x: dayNumber(date), y: total }));
  const { count, at } = rankedSlopes(days);
  if (count === 0) return null;
  const middle = count % 2 === 1 ? at((count - 1) / 2) : (at(count / 2 - 1) + at(count / 2)) / 2;
  if (middle <= 0) return null;
  const n = days.length;
  const reach = (Z * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18)) / 2;
  const low = at(Math.max(0, Math.round((count - 1) / 2 - reach)));
  const high = at(Math.min(count - 1, Math.round((count - 1) / 2 + reach)));
  return {
    perDay: middle,
    low: Math.min(Math.max(low, 0), middle / LEAST_SPREAD),
    high: Math.max(high, middle * LEAST_SPREAD),
  };
}

/** How often, whichever comes first. */
export interface Interval {
  km: number | null;
  months: number | null;
  hours: number | null;
}

/** What the meters of a unit say: what it had run, and how much it runs. */
export interface Runs {
  points: readonly RunPoint[];
  use: Use | null;
}

export interface Forecast {
  /** The likely day; null where nothing says it. */
  date: string | null;
  /** Between these days it lies, as far as the use of the unit goes; one day where months decide alone. */
  earliest: string | null;
  latest: string | null;
  by: 'distance' | 'months' | 'hours' | null;
  /** What could not be counted for want of readings. */
  missing: ('distance' | 'hours')[];
}

const LAST_DAY = dayNumber('9999-12-31');

/** What had been run by the end of a day: as the newest reading up to it says. */
function totalOn(points: readonly RunPoint[], date: string): number | null {
  return points.findLast((p) => p.date <= date)?.total ?? points[0]?.total ?? null;
}

/** The day on which a limit is reached at some use; a limit that is behind was reached between two readings. */
function dayAt(limit: number, points: readonly RunPoint[], perDay: number): string {
  const last = points.at(-1)!;
  if (last.total < limit) {
    const day = dayNumber(last.date) + (perDay > 0 ? (limit - last.total) / perDay : Infinity);
    return dateOfDay(Math.min(Math.floor(day + 1e-9), LAST_DAY));
  }
  const i = points.findIndex((p) => p.total >= limit);
  const [from, to] = [points[i - 1], points[i]!];
  if (!from) return to.date;
  const share = (limit - from.total) / (to.total - from.total);
  return dateOfDay(
    Math.floor(dayNumber(from.date) + share * (dayNumber(to.date) - dayNumber(from.date)) + 1e-9),
  );
}

const first = (dates: readonly string[]) => [...dates].sort()[0]!;

/**
 * When a work is due again that was done on a day: whichever comes first, as a day and a range of days.
 * @param distance,hours points in the order of their days
 */
export function forecastDue(
  interval: Interval,
  doneOn: string,
  { distance, hours }: { distance: Runs; hours: Runs },
): Forecast {
  const missing: Forecast['missing'] = [];
  const found: { by: NonNullable<Forecast['by']>; date: string; earliest: string; latest: string }[] = [];
  for (const [by, limit, { points, use }] of [
    ['distance', interval.km, distance],
    ['hours', interval.hours, hours],
  ] as const) {
    if (limit === null) continue;
    const from = totalOn(points, doneOn);
    const reached = from !== null && points.at(-1)!.total >= from + limit;
    if (from === null || (use === null && !reached)) {
      missing.push(by);
      continue;
    }
    const day = (perDay: number) => dayAt(from + limit, points, perDay);
    found.push({
      by,
      date: day(use?.perDay ?? 0),
      earliest: day(use?.high ?? 0),
      latest: day(use?.low ?? 0),
    });
  }
  if (interval.months !== null) {
    const date = addMonths(doneOn, interval.months);
    found.push({ by: 'months', date, earliest: date, latest: date });
  }
  if (found.length === 0) return { date: null, earliest: null, latest: null, by: null, missing };
  const date = first(found.map((f) => f.date));
  return {
    date,
    earliest: first(found.map((f) => f.earliest)),
    latest: first(found.map((f) => f.latest)),
    by: found.find((f) => f.date === date)!.by,
    missing,
  };
}

/** Days ahead within which what may be due is to be thought of. */
const SOON_DAYS = 30;

export type DueState = 'overdue' | 'soon' | 'later' | 'unknown';

/** How something due stands on a day. */
export function dueState({ date, earliest }: Pick<Forecast, 'date' | 'earliest'>, today: string): DueState {
  if (date === null) return 'unknown';
  if (date < today) return 'overdue';
  return dayNumber(earliest ?? date) - dayNumber(today) <= SOON_DAYS ? 'soon' : 'later';
}
