import { z } from 'zod';
import { addDays } from './calendar.ts';

/** When a retorque is due: from one meter reading to another, by hours, or by a date, whichever comes first. */
export const retorqueDueSchema = z.object({
  fromKm: z.number().nonnegative().nullable(),
  byKm: z.number().nonnegative().nullable(),
  /** Of a unit that has an hour meter and no odometer. */
  byHours: z.number().nonnegative().optional(),
  byDate: z.iso.date(),
});
export type RetorqueDue = z.infer<typeof retorqueDueSchema>;

/**
 * Shop defaults: 80 to 160 km (50 to 100 mi) after the wheel went on, or 14 days where the unit is not driven that
 * far; common practice, no source. Tractors and machines after 10 hours; makers' practice, value from memory. The
 * check after the road test comes before it, on the route.
 */
export const retorqueDefaults: RetorqueRule = { fromKm: 80, byKm: 160, hours: 10, days: 14 };

/** How far, how many hours, and how many days, after the wheel went on. */
export interface RetorqueRule {
  fromKm: number;
  byKm: number;
  hours: number;
  days: number;
}

/** What a unit's meters read; null where it has none of that kind. */
export interface Meters {
  km: number | null;
  hours: number | null;
}

const toTenths = (value: number) => Math.round(value * 10) / 10;

/**
 * Opens the retorque follow-up of a released wheel end: by distance where the unit has an odometer, by hours where it
 * has an hour meter alone.
 * @param meters at the job
 * @param today date of release
 * @param rule the sheet's own, or the shop's default
 */
export function retorqueDue(
  { km, hours }: Meters,
  today: string,
  rule: RetorqueRule = retorqueDefaults,
): RetorqueDue {
  const after = (distance: number) => (km === null ? null : toTenths(km + distance));
  return {
    fromKm: after(rule.fromKm),
    byKm: after(rule.byKm),
    ...(km === null && hours !== null ? { byHours: toTenths(hours + rule.hours) } : {}),
    byDate: addDays(today, rule.days),
  };
}

/**
 * Whether a follow-up is still early, due now, or overdue.
 * @param due hours as the event has them or as a row of the database has them
 * @param meters as they read now
 */
export function retorqueState(
  due: Omit<RetorqueDue, 'byHours'> & { byHours?: number | null },
  meters: Meters,
  today: string,
): 'early' | 'due' | 'overdue' {
  const km = meters.km ?? -Infinity;
  const hours = meters.hours ?? -Infinity;
  const byKm = due.byKm ?? Infinity;
  const byHours = due.byHours ?? Infinity;
  if (today > due.byDate || km > byKm || hours > byHours) return 'overdue';
  return km >= (due.fromKm ?? Infinity) || hours === byHours ? 'due' : 'early';
}
