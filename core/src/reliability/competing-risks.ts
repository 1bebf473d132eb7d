import { z } from 'zod';
import { defineCalculation, LONGEST } from '../calculation/index.ts';

const inputSchema = z.object({
  units: z
    .array(
      z.object({
        time: z.number().positive().max(1e9),
        /** Null: it still ran. */
        cause: z.string().trim().min(1).max(80).nullable(),
      }),
    )
    .min(1)
    .max(LONGEST),
});
const outputSchema = z.object({
  causes: z.array(
    z.object({
      cause: z.string(),
      steps: z.array(z.object({ time: z.number(), incidence: z.number() })),
    }),
  ),
});

/**
 * The share of units that each cause has ended by a time, where whichever comes first ends a unit: incidences of all
 * causes and survival add to 1. Causes at one time all fall on the survival just before it.
 * @returns causes by name, each with a step at every time at which it ended a unit
 * @source Aalen and Johansen 1978
 */
export function competingRisks({ units }: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const sorted = [...units].sort((a, b) => a.time - b.time);
  const names = [...new Set(units.flatMap(({ cause }) => cause ?? []))].sort();
  const causes = new Map(names.map((cause) => [cause, { cause, incidence: 0, steps: [] as Step[] }]));
  let survival = 1;
  for (let i = 0; i < sorted.length;) {
    const { time } = sorted[i]!;
    const atRisk = sorted.length - i;
    const ended = new Map<string, number>();
    let all = 0;
    for (; i < sorted.length && sorted[i]!.time === time; i++) {
      const { cause } = sorted[i]!;
      if (cause === null) continue;
      ended.set(cause, (ended.get(cause) ?? 0) + 1);
      all += 1;
    }
    for (const [name, count] of ended) {
      const cause = causes.get(name)!;
      cause.incidence += (survival * count) / atRisk;
      cause.steps.push({ time, incidence: cause.incidence });
    }
    survival *= (atRisk - all) / atRisk;
  }
  return { causes: [...causes.values()].map(({ cause, steps }) => ({ cause, steps })) };
}
type Step = z.output<typeof outputSchema>['causes'][number]['steps'][number];

/** `competing-risks`: what ends a kind of part, by cause. */
export const competingRisksCalculation = defineCalculation({
  name: 'competing-risks',
  title: 'Competing causes',
  summary: 'Shows what share of a kind of part each cause has ended, over distance or time.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Aalen and Johansen 1978', mark: 'published' }],
  example: {
    units: [
      { time: 90, cause: 'leak' },
      { time: 120, cause: null },
      { time: 140, cause: 'wear' },
      { time: 140, cause: 'leak' },
      { time: 210, cause: null },
    ],
  },
  compute: competingRisks,
});
