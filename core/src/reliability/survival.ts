import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';
import { turnbull } from './turnbull.ts';
import { isBetweenVisits, livesOf, unitsSchema, type Life, type LifeUnit } from './units.ts';

const outputSchema = z.object({
  steps: z.array(
    z.object({
      time: z.number(),
      atRisk: z.number(),
      failures: z.number(),
      survival: z.number(),
      low: z.number().nullable(),
      high: z.number().nullable(),
    }),
  ),
  median: z.number().nullable(),
});
type Step = z.output<typeof outputSchema>['steps'][number];

/** Two-sided 95 % of the normal distribution. */
const Z_95 = 1.959963984540054;

/** Greenwood's 95 % limits on the log–log scale; none where nothing, or everything, has failed. */
function limits(survival: number, greenwood: number): Pick<Step, 'low' | 'high'> {
  if (survival <= 0 || survival >= 1) return { low: null, high: null };
  const reach = Math.exp((Z_95 * Math.sqrt(greenwood)) / -Math.log(survival));
  return { low: survival ** reach, high: survival ** (1 / reach) };
}

/** Lives that began to be watched before a time, less those that ended before it. */
function kaplanMeier(lives: readonly Life[]): Step[] {
  const ends = [...lives].sort((a, b) => a.from - b.from);
  const entries = lives.map((l) => l.entry).sort((a, b) => a - b);
  const steps: Step[] = [];
  let survival = 1;
  let greenwood = 0;
  let entered = 0;
  for (let i = 0; i < ends.length;) {
    const time = ends[i]!.from;
    while (entered < entries.length && entries[entered]! < time) entered += 1;
    const atRisk = entered - i;
    let failures = 0;
    for (; i < ends.length && ends[i]!.from === time; i++) if (ends[i]!.to === time) failures += 1;
    if (failures === 0) continue;
    survival *= (atRisk - failures) / atRisk;
    greenwood += failures === atRisk ? 0 : failures / (atRisk * (atRisk - failures));
    steps.push({ time, atRisk, failures, survival, ...limits(survival, greenwood) });
  }
  return steps;
}

/**
 * What share of the units still runs. Kaplan–Meier where every failure has a time: a unit that was still running at a
 * failure time counts as at risk then, one known only from an age on counts after that age. Turnbull where failures were
 * found between two visits: a step stands at the end of each interval in which failures lie, `atRisk` and `failures` are
 * the expected ones, and there are no limits: Greenwood’s do not hold there.
 * @returns steps with 95 % limits, and the first time at which survival is 0.5 or under (null if never)
 * @source Kaplan and Meier 1958; Greenwood 1926, log–log limits by Kalbfleisch and Prentice; Turnbull 1976
 * @throws BadInput for a unit that makes no sense
 */
export function survivalCurve(units: readonly LifeUnit[]): z.output<typeof outputSchema> {
  const lives = livesOf(units);
  const steps = lives.some(isBetweenVisits) ? turnbullSteps(lives) : kaplanMeier(lives);
  return { steps, median: steps.find((s) => s.survival <= 0.5 + 1e-9)?.time ?? null };
}

function turnbullSteps(lives: readonly Life[]): Step[] {
  let left = 1;
  return turnbull(lives).flatMap(({ to, share }): Step[] => {
    const atRisk = left * lives.length;
    left -= share;
    if (to === Infinity) return [];
    const survival = Math.min(1, Math.max(0, left));
    return [{ time: to, atRisk, failures: share * lives.length, survival, low: null, high: null }];
  });
}

/** `survival`: what share of a kind of part is still good, over time. */
export const survivalCalculation = defineCalculation({
  name: 'survival',
  title: 'Survival',
  summary: 'Shows what share of a kind of part still runs, over distance or time.',
  inputSchema: z.object({ units: unitsSchema }),
  outputSchema,
  sources: [
    { text: 'Kaplan and Meier 1958; Greenwood’s limits on the log–log scale', mark: 'published' },
    { text: 'Turnbull 1976: failures found between two visits', mark: 'published' },
  ],
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
