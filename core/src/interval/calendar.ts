const DAY_MS = 86_400_000;

/** Days since 1970-01-01 of a calendar date. */
export function dayNumber(date: string): number {
  return Math.round(Date.parse(`${date}T00:00:00Z`) / DAY_MS);
}

/** Calendar date of a day number. */
export function dateOfDay(day: number): string {
  return new Date(day * DAY_MS).toISOString().slice(0, 10);
}

/** Adds days to a calendar date. @example addDays('2026-02-27', 3) // '2026-03-02' */
export function addDays(date: string, days: number): string {
  return dateOfDay(dayNumber(date) + days);
}

/**
 * Adds calendar months; a day that the month does not have becomes its last.
 * @example addMonths('2026-01-31', 1) // '2026-02-28'
 */
export function addMonths(date: string, months: number): string {
  const [year = 0, month = 1, day = 1] = date.split('-').map(Number);
  const first = new Date(Date.UTC(year, month - 1 + months, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(day, last)))
    .toISOString()
    .slice(0, 10);
}
