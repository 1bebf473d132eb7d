import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';
import { unitsSchema, type LifeUnit } from './units.ts';

const outputSchema = z.object({
  shape: z.number(),
  scale: z.number(),
  logLikelihood: z.number(),
  b10: z.number(),
});

const STEEPEST = 1e6;

/**
 * Maximum likelihood of a two-parameter Weibull life with right censoring.
 *
 * The shape solves Σ tᵏ·ln t / Σ tᵏ − 1/k = mean of ln t of the failures; times are taken against the
 * longest so that no power overflows. The left side rises with k, so halving finds the one root.
 * @returns shape, scale and b10 (time by which 10 % have failed) in the unit of time, log-likelihood
 * @source Lawless, Statistical Models and Methods for Lifetime Data
 * @throws BadInput under two failures, or when all failures are at the longest time
 */
export function fitWeibull(units: readonly LifeUnit[]): z.output<typeof outputSchema> {
  const failures = units.filter((u) => u.failed);
  if (failures.length < 2) throw new BadInput('needs two failures or more', 'units');
  const longest = units.reduce((m, u) => Math.max(m, u.time), 0);
  const logs = Float64Array.from(units, (u) => Math.log(u.time / longest));
  const meanFailed = failures.reduce((s, u) => s + Math.log(u.time / longest), 0) / failures.length;
  if (meanFailed > -1e-12) throw new BadInput('failures all at the longest time have no spread', 'units');
  const excess = (k: number) => {
    let sum = 0;
    let weighted = 0;
    for (const log of logs) {
      const power = Math.exp(k * log);
      sum += power;
      weighted += power * log;
    }
    return weighted / sum - 1 / k - meanFailed;
  };
  let high = 1;
  while (excess(high) < 0) {
    high *= 2;
    if (high > STEEPEST) throw new BadInput('have next to no spread', 'units');
  }
  let low = high / 2;
  while (excess(low) > 0) low /= 2;
  for (let i = 0; i < 100 && high - low > high * 1e-15; i++) {
    const middle = (low + high) / 2;
    if (excess(middle) > 0) high = middle;
    else low = middle;
  }
  const shape = (low + high) / 2;
  const power = logs.reduce((s, log) => s + Math.exp(shape * log), 0);
  const scale = longest * (power / failures.length) ** (1 / shape);
  const logLikelihood =
    failures.length * (Math.log(shape) - shape * Math.log(scale)) +
    (shape - 1) * failures.reduce((s, u) => s + Math.log(u.time), 0) -
    failures.length;
  return { shape, scale, logLikelihood, b10: scale * (-Math.log(0.9)) ** (1 / shape) };
}

/** `weibull-fit`: the life of a kind of part from failures and survivors. */
export const weibullFitCalculation = defineCalculation({
  name: 'weibull-fit',
  title: 'Weibull fit',
  summary: 'Fits a Weibull life to parts that failed and parts that still run.',
  inputSchema: z.object({ units: unitsSchema }),
  outputSchema,
  sources: [
    {
      text: 'Lawless, Statistical Models and Methods for Lifetime Data: maximum likelihood with censoring',
      mark: 'published',
    },
  ],
  example: {
    units: [
      { time: 180, failed: true },
      { time: 240, failed: true },
      { time: 310, failed: true },
      { time: 310, failed: false },
      { time: 420, failed: false },
    ],
  },
  compute: ({ units }) => fitWeibull(units),
});
