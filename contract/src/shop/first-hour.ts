import { z } from 'zod';

/** What a new shop sets up before its first job, in this order, with how much of each it wants. */
export const firstHourSteps = {
  settings: 1,
  people: 2,
  bays: 1,
  tools: 1,
  units: 3,
  jobs: 1,
} as const;
export type FirstHourStep = keyof typeof firstHourSteps;

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

/** What is next; null when everything is there. */
export function nextStep(there: FirstHour): FirstHourStep | null {
  const steps = Object.keys(firstHourSteps) as FirstHourStep[];
  return steps.find((step) => there[step] < firstHourSteps[step]) ?? null;
}
