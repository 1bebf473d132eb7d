import { z } from 'zod';
import { BadInput, defineCalculation, LONGEST } from '../calculation/index.ts';
import { median, medianSlope, rankedSlopes } from '../statistics/index.ts';

const coordinate = z.number().min(-1e9).max(1e9);
const inputSchema = z.object({
  points: z
    .array(z.object({ x: coordinate, y: coordinate }))
    .min(2, 'needs two points or more')
    .max(LONGEST),
  limit: coordinate,
});
const outputSchema = z.object({
  slope: z.number(),
  intercept: z.number(),
  crossesAt: z.number().nullable(),
  slopeLow: z.number(),
  slopeHigh: z.number(),
});

/** 95 % point of the standard normal: a 90 % interval, both sides. */
const Z90 = 1.6448536269514722;

/**
 * A line through readings that a few wild ones do not bend: the median of the slopes between all pairs.
 *
 * Intercept is the median of y − slope·x. The 90 % interval of the slope is by rank, with Kendall's
 * variance n(n−1)(2n+5)/18. `crossesAt` is where the line meets the limit, null when it does not rise.
 * @source Theil 1950, Sen 1968; interval: Hollander and Wolfe, Nonparametric Statistical Methods
 * @throws BadInput when all points have one x
 */
export function wearTrend({ points, limit }: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const slope = medianSlope(points);
  if (slope === null) throw new BadInput('need two different x', 'points');
  const intercept = median(points.map((p) => p.y - slope * p.x));
  const n = points.length;
  const { count, at } = rankedSlopes(points);
  const reach = Z90 * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const rank = (r: number) => Math.max(0, Math.min(count - 1, r));
  const crossesAt = slope > 0 ? (limit - intercept) / slope : null;
  return {
    slope,
    intercept,
    crossesAt: crossesAt !== null && Number.isFinite(crossesAt) ? crossesAt : null,
    slopeLow: at(rank(Math.floor((count - reach) / 2) - 1)),
    slopeHigh: at(rank(Math.ceil((count + reach) / 2))),
  };
}

/** `wear-trend`: how end play grows, and when it meets its limit. */
export const wearTrendCalculation = defineCalculation({
  name: 'wear-trend',
  title: 'Wear trend',
  summary: 'Draws a steady line through readings over distance and tells where it meets the limit.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Theil 1950 and Sen 1968, median of slopes', mark: 'published' },
    {
      text: 'Hollander and Wolfe, Nonparametric Statistical Methods, interval of the slope',
      mark: 'published',
    },
  ],
  example: {
    points: [
      { x: 0, y: 0.07 },
      { x: 50, y: 0.076 },
      { x: 100, y: 0.081 },
      { x: 150, y: 0.09 },
      { x: 200, y: 0.094 },
    ],
    limit: 0.127,
  },
  compute: wearTrend,
});
