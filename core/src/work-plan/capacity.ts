import { workedIn, type TimeSpan } from './hours.ts';

/** Hours of a week: what people have, and what is due, from few to many. */
export interface WeekLoad {
  /** Monday, ms since 1970. */
  from: number;
  capacityHours: number;
  bookedHours: number;
  dueHours: { low: number; usual: number; high: number };
}

const HOUR_MS = 3_600_000;

/**
 * What the shop can do and what it will be asked for, week by week.
 * @param weeks their beginnings and ends
 * @param people each with when they work
 * @param away by the place of a person in that list
 * @param booked each with how many people
 * @param due what is due and not booked: when, at the earliest and latest, and how many hours
 */
export function weekLoads(
  weeks: readonly TimeSpan[],
  {
    hours,
    people,
    away,
    booked,
    due,
  }: {
    hours: readonly TimeSpan[];
    people: readonly (readonly TimeSpan[])[];
    away: readonly (TimeSpan & { nth: number })[];
    booked: readonly (TimeSpan & { people: number })[];
    due: readonly { at: number; low: number; usual: number; high: number }[];
  },
): WeekLoad[] {
  return weeks.map((week, nth) => {
    const part = (span: TimeSpan) => ({
      from: Math.max(span.from, week.from),
      until: Math.min(span.until, week.until),
    });
    const worked = people.reduce((s, theirs) => s + workedIn(theirs, week), 0);
    const lost = away.reduce((s, a) => s + workedIn(people[a.nth]!, part(a)), 0);
    const taken = booked.reduce((s, b) => s + Math.max(1, b.people) * workedIn(hours, part(b)), 0);
    // What is overdue falls on the first week.
    const mine = due.filter((d) => d.at < week.until && (nth === 0 || d.at >= week.from));
    const sum = (of: (d: (typeof due)[number]) => number) => mine.reduce((s, d) => s + of(d), 0);
    return {
      from: week.from,
      capacityHours: Math.max(0, worked - lost) / HOUR_MS,
      bookedHours: taken / HOUR_MS,
      dueHours: { low: sum((d) => d.low), usual: sum((d) => d.usual), high: sum((d) => d.high) },
    };
  });
}
