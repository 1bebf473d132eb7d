import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';
import { gammaP, lnGamma } from '../statistics/index.ts';

const inputSchema = z.object({
  shape: z.number().min(0.05).max(100),
  scale: z.number().min(1e-6).max(1e9),
  plannedCost: z.number().positive().max(1e12),
  failureCost: z.number().positive().max(1e12),
});
const outputSchema = z.object({
  age: z.number().nullable(),
  costRate: z.number(),
  runToFailureRate: z.number(),
  worthwhile: z.boolean(),
});

/** Longest age looked at, in scales: past it hardly a part is left to replace. */
const OLDEST = 1e3;

type AgeInput = z.output<typeof inputSchema>;

/** Part failed by an age, and mean running time up to it, both in units of the scale. @source Weibull life */
function lifeTo(x: number, shape: number) {
  const meanLife = Math.exp(lnGamma(1 + 1 / shape));
  return { failed: -Math.expm1(-(x ** shape)), running: meanLife * gammaP(1 / shape, x ** shape) };
}

/**
 * Cost per unit of time when every part is replaced at an age, or when it fails before: (Cp·R + Cf·F) / ∫R.
 * @param age over 0, in the unit of the scale
 * @source Barlow and Proschan, age replacement
 */
export function costRateAt(age: number, { shape, scale, plannedCost, failureCost }: AgeInput): number {
  const { failed, running } = lifeTo(age / scale, shape);
  return (plannedCost + (failureCost - plannedCost) * failed) / (scale * running);
}

/**
 * The age at which a part that wears is best replaced: least (Cp·R + Cf·F) / ∫R, planned and failure cost
 * per unit of time under a Weibull life.
 *
 * For shape over 1 and failure dearer than plan the rate has one least point, where
 * h(T)·∫R − F = Cp / (Cf − Cp). Otherwise running to failure is cheapest and `age` is null.
 * @returns age in the unit of the scale; cost rates per that unit; `costRate` is the run-to-failure rate
 *   when there is no age
 * @source Barlow and Proschan, Mathematical Theory of Reliability, age replacement
 */
export function replacementAge(input: AgeInput): z.output<typeof outputSchema> {
  const { shape, scale, plannedCost, failureCost } = input;
  const meanLife = Math.exp(lnGamma(1 + 1 / shape));
  const runToFailureRate = failureCost / (scale * meanLife);
  const none = { age: null, costRate: runToFailureRate, runToFailureRate, worthwhile: false };
  if (shape <= 1 || failureCost <= plannedCost) return none;
  const wanted = plannedCost / (failureCost - plannedCost);
  const excess = (x: number) => {
    const { failed, running } = lifeTo(x, shape);
    return shape * x ** (shape - 1) * running - failed - wanted;
  };
  let high = 1;
  while (excess(high) < 0) {
    high *= 2;
    if (high > OLDEST) return none;
  }
  let low = 0;
  for (let i = 0; i < 200 && high - low > high * 1e-15; i++) {
    const middle = (low + high) / 2;
    if (excess(middle) > 0) high = middle;
    else low = middle;
  }
  const x = (low + high) / 2;
  const costRate = costRateAt(x * scale, input);
  return {
    age: x * scale,
    costRate,
    runToFailureRate,
    worthwhile: costRate < runToFailureRate * (1 - 1e-12),
  };
}

/** `replacement-age`: when a part is best replaced before it fails. */
export const replacementAgeCalculation = defineCalculation({
  name: 'replacement-age',
  title: 'Replacement age',
  summary: 'Finds the age at which planned replacement costs least, and whether it beats running to failure.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Barlow and Proschan, Mathematical Theory of Reliability: age replacement', mark: 'published' },
  ],
  example: { shape: 2.6, scale: 420_000, plannedCost: 300, failureCost: 2400 },
  compute: replacementAge,
});
