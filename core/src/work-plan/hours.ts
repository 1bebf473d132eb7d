import { TZDate } from '@date-fns/tz';
import { z } from 'zod';

const clockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'is no time, as 07:30');
const daySchema = z
  .array(z.object({ from: clockTime, until: clockTime }))
  .max(6)
  .refine(
    (spans) => spans.every((s, i) => s.until > s.from && (i === 0 || s.from >= spans[i - 1]!.until)),
    'each must end after it begins, one after the other',
  );

/** When the shop works in a week, Monday first: a break is what lies between two spans of a day. */
export const weekSchema = z.array(daySchema).length(7);
export type Week = z.output<typeof weekSchema>;

export const holidaySchema = z.object({
  date: z.iso.date(),
  name: z.string().trim().min(1, 'enter the name of the day').max(60),
});

export interface ShopHours {
  week: Week;
  holidays: readonly { date: string }[];
  /** IANA name. */
  zone: string;
}

const DAY_MS = 86_400_000;

/**
 * When a calendar day begins by the clock of a zone, milliseconds since 1970.
 * @param day as 2026-11-26
 * @param later by so many days
 */
export function dayBegins(day: string, zone: string, later = 0): number {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  return new TZDate(year, month - 1, date + later, zone).getTime();
}

/** The Monday of the week that a day is in. @param weeks later by so many */
export function mondayOf(day: string, weeks = 0): string {
  const weekday = (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
  return new Date(Date.parse(day) + (7 * weeks - weekday) * DAY_MS).toISOString().slice(0, 10);
}

/** Milliseconds since 1970. */
export interface TimeSpan {
  from: number;
  until: number;
}

/** How long two spans lie over one another, milliseconds. */
const overlap = (a: TimeSpan, b: TimeSpan) =>
  Math.max(0, Math.min(a.until, b.until) - Math.max(a.from, b.from));

/** When all of some people work, each by their hours. */
export const hoursTogether = (all: readonly (readonly TimeSpan[])[]): readonly TimeSpan[] =>
  all.reduce((mine, theirs) =>
    mine.flatMap((a) =>
      theirs.flatMap((b) =>
        overlap(a, b) > 0 ? [{ from: Math.max(a.from, b.from), until: Math.min(a.until, b.until) }] : [],
      ),
    ),
  );

/** How much of a span is worked in, milliseconds. */
export const workedIn = (hours: readonly TimeSpan[], span: TimeSpan) =>
  hours.reduce((sum, h) => sum + overlap(h, span), 0);

/**
 * When the shop works from one moment to another, by its own clock: a day on which the clocks change keeps
 * its times of day.
 * @param from milliseconds since 1970
 */
export function workSpans({ week, holidays, zone }: ShopHours, from: number, until: number): TimeSpan[] {
  const closed = new Set(holidays.map((h) => h.date));
  const spans: TimeSpan[] = [];
  const first = new TZDate(from - DAY_MS, zone);
  for (let nth = 0; ; nth++) {
    const [year, month, date] = [first.getFullYear(), first.getMonth(), first.getDate() + nth];
    const day = new TZDate(year, month, date, zone);
    if (day.getTime() >= until) return spans;
    const name = new Date(Date.UTC(year, month, date)).toISOString().slice(0, 10);
    if (closed.has(name)) continue;
    for (const span of week[(day.getDay() + 6) % 7]!) {
      const at = (time: string) => {
        const [hour = 0, minute = 0] = time.split(':').map(Number);
        return new TZDate(year, month, date, hour, minute, zone).getTime();
      };
      const clipped = { from: Math.max(from, at(span.from)), until: Math.min(until, at(span.until)) };
      if (clipped.until > clipped.from) spans.push(clipped);
    }
  }
}
