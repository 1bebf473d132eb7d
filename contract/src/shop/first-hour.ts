import { z } from 'zod';
import type { FirstHourStep } from './first-hour-steps.ts';

const count = z.int().min(0);

/** How much of it is there: whether it is said when the shop works, people who can sign in, bays, tools, units, jobs. */
export const firstHourSchema = z.object({
  settings: count,
  people: count,
  bays: count,
  tools: count,
  units: count,
  jobs: count,
}) satisfies z.ZodType<Record<FirstHourStep, number>>;
export type FirstHour = z.output<typeof firstHourSchema>;
