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

/** What is next; null when everything is there. */
export function nextStep(there: Readonly<Record<FirstHourStep, number>>): FirstHourStep | null {
  const steps = Object.keys(firstHourSteps) as FirstHourStep[];
  return steps.find((step) => there[step] < firstHourSteps[step]) ?? null;
}
