import { z } from 'zod';
import { addDays } from './calendar.ts';

/** When a retorque is due: from one meter reading to another, or by a date, whichever comes first. */
export const retorqueDueSchema = z.object({
  fromKm: z.number().nonnegative().nullable(),
  byKm: z.number().nonnegative().nullable(),
  byDate: z.iso.date(),
});
export type RetorqueDue = z.infer<typeof retorqueDueSchema>;

/**
 * Shop defaults: 80 to 160 km (50 to 100 mi) after the wheel went on, or 14 days where the unit is not driven that
 * far; common practice, no source. The check after the road test comes before it, on the route.
 */
export const retorqueDefaults: RetorqueRule = { fromKm: 80, byKm: 160, days: 14 };

/** How far, and how many days, after the wheel went on. */
export interface RetorqueRule {
  fromKm: number;
  byKm: number;
  days: number;
}

/**
 * Opens the retorque follow-up of a released wheel end.
 * @param meterKm odometer at the job, null where the unit has none
 * @param today date of release
 * @param rule the sheet's own, or the shop's default
 */
export function retorqueDue(
  meterKm: number | null,
  today: string,
  rule: RetorqueRule = retorqueDefaults,
): RetorqueDue {
  const after = (km: number) => (meterKm === null ? null : Math.round((meterKm + km) * 10) / 10);
  return {
    fromKm: after(rule.fromKm),
    byKm: after(rule.byKm),
    byDate: addDays(today, rule.days),
  };
}

/** Whether a follow-up is still early, due now, or overdue. */
export function retorqueState(
  due: RetorqueDue,
  meterKm: number | null,
  today: string,
): 'early' | 'due' | 'overdue' {
  const km = meterKm ?? -Infinity;
  if (today > due.byDate || (due.byKm !== null && km > due.byKm)) return 'overdue';
  return due.fromKm !== null && km >= due.fromKm ? 'due' : 'early';
}
