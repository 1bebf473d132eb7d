import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';
import { unitsSchema, type LifeUnit } from './units.ts';

const outputSchema = z.object({
  steps: z.array(z.object({ time: z.number(), atRisk: z.int(), failures: z.int(), survival: z.number() })),
  median: z.number().nullable(),
});

/**
 * Kaplan–Meier survival: at each failure time, the share of those at risk that goes on. A unit that was
 * still running at a failure time counts as at risk then.
 * @returns steps at the failure times, and the first time at which survival is 0.5 or under (null if never)
 * @source Kaplan and Meier 1958
 */
export function survivalCurve(units: readonly LifeUnit[]): z.output<typeof outputSchema> {
  const sorted = [...units].sort((a, b) => a.time - b.time);
  const steps: z.output<typeof outputSchema>['steps'] = [];
  let survival = 1;
  for (let i = 0; i < sorted.length;) {
    const { time } = sorted[i]!;
    const atRisk = sorted.length - i;
    let failures = 0;
    for (; i < sorted.length && sorted[i]!.time === time; i++) if (sorted[i]!.failed) failures += 1;
    if (failures === 0) continue;
    survival *= (atRisk - failures) / atRisk;
    steps.push({ time, atRisk, failures, survival });
  }
  return { steps, median: steps.find((s) => s.survival <= 0.5 + 1e-12)?.time ?? null };
}

/** `survival`: what share of a kind of part is still good, over time. */
export const survivalCalculation = defineCalculation({
  name: 'survival',
  title: 'Survival',
  summary: 'Shows what share of a kind of part still runs, over distance or time.',
  inputSchema: z.object({ units: unitsSchema }),
  outputSchema,
  sources: [{ text: 'Kaplan and Meier 1958', mark: 'published' }],
  example: {
    units: [
      { time: 6, failed: true },
      { time: 6, failed: false },
      { time: 7, failed: true },
      { time: 10, failed: true },
      { time: 11, failed: false },
    ],
  },
  compute: ({ units }) => survivalCurve(units),
});
