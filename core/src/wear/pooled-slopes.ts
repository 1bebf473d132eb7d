import { z } from 'zod';
import { defineCalculation, LONGEST } from '../calculation/index.ts';

const slopeSchema = z.object({
  estimate: z.number().min(-1e9).max(1e9),
  standardError: z.number().min(1e-9).max(1e9),
});
const inputSchema = z.object({
  slopes: z.array(slopeSchema).min(3, 'needs three slopes or more').max(LONGEST),
});
const outputSchema = z.object({
  mean: z.number(),
  meanStandardError: z.number(),
  betweenSd: z.number(),
  pooled: z.array(z.object({ estimate: z.number(), standardError: z.number() })),
});
type Slope = z.output<typeof slopeSchema>;

/** Mean with each slope weighted by the inverse of its variance. */
function weightedMean(slopes: readonly Slope[], between: number) {
  const weights = slopes.map(({ standardError }) => 1 / (standardError ** 2 + between));
  const sum = weights.reduce((s, w) => s + w, 0);
  const mean = slopes.reduce((s, { estimate }, i) => s + (weights[i]! / sum) * estimate, 0);
  return { weights, sum, mean };
}

/**
 * Slopes of single wheel ends held against their kind: one that is little known is drawn toward the mean of all, one
 * that is well known stays where it is. The spread between them is DerSimonian and Laird’s, never below 0.
 * @param slopes three or more, each with its standard error
 * @returns in the unit of the slopes
 * @source DerSimonian and Laird 1986; shrinkage as in Raudenbush and Bryk, empirical Bayes
 */
export function pooledSlopes(slopes: readonly Slope[]): z.output<typeof outputSchema> {
  const fixed = weightedMean(slopes, 0);
  const q = slopes.reduce((s, { estimate }, i) => s + fixed.weights[i]! * (estimate - fixed.mean) ** 2, 0);
  const squares = fixed.weights.reduce((s, w) => s + w * (w / fixed.sum), 0);
  const between = Math.max(0, (q - (slopes.length - 1)) / (fixed.sum - squares));
  const { mean, sum } = weightedMean(slopes, between);
  const meanStandardError = 1 / Math.sqrt(sum);
  const pooled = slopes.map(({ estimate, standardError }) => {
    const own = between / (between + standardError ** 2);
    return {
      estimate: mean + own * (estimate - mean),
      standardError: Math.sqrt(own * standardError ** 2 + (1 - own) ** 2 * meanStandardError ** 2),
    };
  });
  return { mean, meanStandardError, betweenSd: Math.sqrt(between), pooled };
}

/** `pooled-slopes`: how fast each wheel end loosens, with what its kind tells of it. */
export const pooledSlopesCalculation = defineCalculation({
  name: 'pooled-slopes',
  title: 'Pooled slopes',
  summary: 'Draws slopes that are little known toward the mean of their kind, as far as their doubt allows.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'DerSimonian and Laird 1986', mark: 'published' }],
  example: {
    slopes: [
      { estimate: 0.4, standardError: 0.1 },
      { estimate: 0.9, standardError: 0.3 },
      { estimate: 0.2, standardError: 0.1 },
      { estimate: 1.6, standardError: 0.2 },
    ],
  },
  compute: ({ slopes }) => pooledSlopes(slopes),
});
