import { z } from 'zod';
import { jobCost, toCoin } from './job-cost.ts';

const coin = z.int().nonnegative().max(1e9);

/** What an estimate or a bill is made of. Money in the smallest coin. */
export const billSchema = z.object({
  currency: z.string().regex(/^[A-Z]{3}$/, 'three letters, as in ISO 4217'),
  lines: z
    .array(
      z.object({
        group: z.enum(['labour', 'parts']),
        what: z.string().trim().min(1).max(120),
        per: z.enum(['hour', 'wheel', 'piece']),
        quantity: z.number().positive().max(1000),
        unitMinor: coin,
      }),
    )
    .min(1, 'has no line')
    .max(100),
  suppliesPercent: z.number().nonnegative().max(100),
  tax: z.object({
    percent: z.number().nonnegative().max(100),
    on: z.array(z.enum(['labour', 'parts', 'supplies'])).max(3),
  }),
});
export type Bill = z.output<typeof billSchema>;

/** Sums of a bill by the job-cost rules: each rounded once, half up. */
export function billTotals({ lines, suppliesPercent, tax }: Bill): ReturnType<typeof jobCost> {
  const of = (group: Bill['lines'][number]['group']) => lines.filter((l) => l.group === group);
  return jobCost({
    labour: of('labour').map((l) => ({ hours: l.quantity, rateMinor: l.unitMinor })),
    parts: of('parts').map((l) => ({ quantity: l.quantity, unitMinor: l.unitMinor })),
    suppliesPercent,
    tax,
  });
}

/** One line in which a bill came out otherwise than it was quoted. */
export interface BillDifference {
  what: string;
  quotedMinor: number;
  actualMinor: number;
}

/** What one line comes to, in the smallest coin, rounded as the sums are. */
export const lineMinor = ({ quantity, unitMinor }: Bill['lines'][number]) => toCoin(quantity * unitMinor);

/**
 * Why a bill is not what was quoted: every line that differs, then supplies and tax. The differences of
 * the lines, supplies and tax add up to that of the totals but for the rounding of each sum.
 */
export function billDifferences(quoted: Bill, actual: Bill): BillDifference[] {
  const sumOf = (bill: Bill, what: string) =>
    bill.lines.filter((l) => l.what === what).reduce((s, l) => s + lineMinor(l), 0);
  const [before, after] = [billTotals(quoted), billTotals(actual)];
  return [
    ...[...new Set([...quoted.lines, ...actual.lines].map((l) => l.what))].map((what) => ({
      what,
      quotedMinor: sumOf(quoted, what),
      actualMinor: sumOf(actual, what),
    })),
    { what: 'Supplies', quotedMinor: before.suppliesMinor, actualMinor: after.suppliesMinor },
    { what: 'Tax', quotedMinor: before.taxMinor, actualMinor: after.taxMinor },
  ].filter((d) => d.quotedMinor !== d.actualMinor);
}
