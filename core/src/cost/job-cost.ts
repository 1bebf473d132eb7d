import { z } from 'zod';
import { defineCalculation, LONGEST } from '../calculation/index.ts';

const minor = z.int().nonnegative().max(1e12);
const percent = z.number().nonnegative().max(1000);
const inputSchema = z.object({
  labour: z
    .array(z.object({ hours: z.number().nonnegative().max(1e5), rateMinor: minor.max(1e9) }))
    .max(LONGEST),
  parts: z
    .array(z.object({ quantity: z.number().nonnegative().max(1e5), unitMinor: minor.max(1e9) }))
    .max(LONGEST),
  suppliesPercent: percent.default(0),
  tax: z
    .object({ percent, on: z.array(z.enum(['labour', 'parts', 'supplies'])).max(3) })
    .default({ percent: 0, on: [] }),
});
const outputSchema = z.object({
  labourMinor: z.int(),
  partsMinor: z.int(),
  suppliesMinor: z.int(),
  taxMinor: z.int(),
  totalMinor: z.int(),
});

/** To the smallest coin, half up. The nudge undoes what binary fractions lose of a decimal half. */
export function toCoin(amount: number): number {
  return Math.floor(amount + 0.5 + Math.max(1, amount) * 1e-12);
}

/**
 * What a job costs: labour, parts, supplies on labour, tax on the parts of the bill it falls on. All in
 * the smallest coin; each sum is rounded once.
 * @source arithmetic; rounding half up is common practice
 */
export function jobCost({
  labour,
  parts,
  suppliesPercent,
  tax,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const labourMinor = toCoin(labour.reduce((s, l) => s + l.hours * l.rateMinor, 0));
  const partsMinor = toCoin(parts.reduce((s, p) => s + p.quantity * p.unitMinor, 0));
  const suppliesMinor = toCoin((labourMinor * suppliesPercent) / 100);
  const sums = { labour: labourMinor, parts: partsMinor, supplies: suppliesMinor };
  const taxed = [...new Set(tax.on)].reduce((s, on) => s + sums[on], 0);
  const taxMinor = toCoin((taxed * tax.percent) / 100);
  return {
    labourMinor,
    partsMinor,
    suppliesMinor,
    taxMinor,
    totalMinor: labourMinor + partsMinor + suppliesMinor + taxMinor,
  };
}

/** `job-cost`: the bill of a job. */
export const jobCostCalculation = defineCalculation({
  name: 'job-cost',
  title: 'Job cost',
  summary: 'Adds up labour, parts, supplies and tax to the smallest coin.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Arithmetic; rounded half up', mark: 'common-practice' }],
  example: {
    labour: [{ hours: 5.5, rateMinor: 8460 }],
    parts: [{ quantity: 3, unitMinor: 4185 }],
    tax: { percent: 7.5, on: ['labour', 'parts'] },
  },
  compute: jobCost,
});
