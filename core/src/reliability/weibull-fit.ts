import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';
import { isBetweenVisits, livesOf, unitsSchema, type Life, type LifeUnit } from './units.ts';
import { mostLikelyWeibull } from './weibull-likelihood.ts';

const outputSchema = z.object({
  shape: z.number(),
  scale: z.number(),
  logLikelihood: z.number(),
  b10: z.number(),
});

const STEEPEST = 1e6;

/**
 * Maximum likelihood of a two-parameter Weibull life: with failures of a known time or found between two visits, units
 * that still run, and units known only from an age on.
 *
 * Where every time is known the shape solves Σ tᵏ·ln t / Σ tᵏ − 1/k = mean of ln t of the failures; times are taken against the
 * longest so that no power overflows. The left side rises with k, so halving finds the one root.
 * @returns shape, scale and b10 (time by which 10 % have failed) in the unit of time, log-likelihood
 * @source Lawless, Statistical Models and Methods for Lifetime Data
 * @throws BadInput under two failures, or where they leave the shape open
 */
export function fitWeibull(units: readonly LifeUnit[]): z.output<typeof outputSchema> {
  const lives = livesOf(units);
  if (lives.filter((l) => l.to !== Infinity).length < 2)
    throw new BadInput('needs two failures or more', 'units');
  const plain = lives.every((l) => l.entry === 0 && !isBetweenVisits(l));
  const fit = plain ? fitByTimes(lives) : mostLikelyWeibull(lives);
  return { ...fit, b10: fit.scale * (-Math.log(0.9)) ** (1 / fit.shape) };
}

/** Where a rising function is 0 between a place below and one above it. @source regula falsi, the Illinois way */
function rootBetween(f: (x: number) => number, low: number, high: number): number {
  let [atLow, atHigh, last, kept] = [f(low), f(high), high, 0];
  for (let i = 0; i < 100; i++) {
    const x = (low * atHigh - high * atLow) / (atHigh - atLow);
    const at = f(x);
    if (at === 0 || Math.abs(x - last) <= x * 1e-14) return x;
    // An end that stays for a second time counts half: the line swings round to it.
    if (at > 0) [high, atHigh, atLow, kept] = [x, at, kept > 0 ? atLow / 2 : atLow, 1];
    else [low, atLow, atHigh, kept] = [x, at, kept < 0 ? atHigh / 2 : atHigh, -1];
    last = x;
  }
  return last;
}

/** The fit where every failure has a time and every unit was watched from new. */
function fitByTimes(lives: readonly Life[]): { shape: number; scale: number; logLikelihood: number } {
  const times = lives.map((l) => l.from);
  const failed = lives.flatMap((l) => (l.to === Infinity ? [] : [l.to]));
  const longest = times.reduce((m, t) => Math.max(m, t), 0);
  const logs = Float64Array.from(times, (t) => Math.log(t / longest));
  const meanFailed = failed.reduce((s, t) => s + Math.log(t / longest), 0) / failed.length;
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
  const shape = rootBetween(excess, low, high);
  const power = logs.reduce((s, log) => s + Math.exp(shape * log), 0);
  const scale = longest * (power / failed.length) ** (1 / shape);
  const logLikelihood =
    failed.length * (Math.log(shape) - shape * Math.log(scale)) +
    (shape - 1) * failed.reduce((s, t) => s + Math.log(t), 0) -
    failed.length;
  return { shape, scale, logLikelihood };
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
