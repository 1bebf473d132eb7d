import { z } from 'zod';
import { defineCalculation, LONGEST } from '../calculation/index.ts';

const inputSchema = z.object({
  values: z.array(z.number().min(-1e9).max(1e9)).min(2, 'needs two values or more').max(LONGEST),
});
const outputSchema = z.object({
  centre: z.number(),
  lower: z.number(),
  upper: z.number(),
  movingRange: z.object({ centre: z.number(), upper: z.number() }),
  signals: z.array(z.int()),
});

/** 3/d2 and D4 for moving ranges of two. @source NIST/SEMATECH e-handbook 6.3.2.2 */
const INDIVIDUALS = 2.66;
const RANGES = 3.267;

/**
 * Individuals and moving-range chart.
 * @returns centre and limits in the unit of the values; `signals` are the indices of values outside
 * @source NIST/SEMATECH e-handbook of statistical methods, 6.3.2.2
 */
export function controlChart({ values }: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const centre = values.reduce((s, v) => s + v / values.length, 0);
  const range = values.slice(1).reduce((s, v, i) => s + Math.abs(v - values[i]!) / (values.length - 1), 0);
  const lower = centre - INDIVIDUALS * range;
  const upper = centre + INDIVIDUALS * range;
  const slack = 1e-12 * Math.max(1, Math.abs(centre));
  const signals = values.flatMap((v, i) => (v < lower - slack || v > upper + slack ? [i] : []));
  return { centre, lower, upper, movingRange: { centre: range, upper: RANGES * range }, signals };
}

/** `control-chart`: whether readings stay in their usual spread. */
export const controlChartCalculation = defineCalculation({
  name: 'control-chart',
  title: 'Control chart',
  summary: 'Draws the usual spread of single readings and names those that fall outside it.',
  inputSchema,
  outputSchema,
  sources: [
    {
      text: 'NIST/SEMATECH e-handbook of statistical methods, individuals control charts',
      mark: 'published',
    },
  ],
  example: { values: [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1] },
  compute: controlChart,
});
