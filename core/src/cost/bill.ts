import { z } from 'zod';
import { positionSchema } from '../axle-plan/index.ts';
import { workSchema, type Work } from '../stack/index.ts';
import { jobCost, toCoin } from './job-cost.ts';

const coin = z.int().nonnegative().max(1e9);

/** What a tax can fall on. */
export const taxed = ['labour', 'parts', 'supplies'] as const;
export type Taxed = (typeof taxed)[number];

const percent = z.number().nonnegative().max(100);
export const taxSchema = z.object({
  /** As it is called on papers: VAT, GST, sales tax. */
  name: z.string().trim().min(1, 'enter its name').max(40),
  percent,
  on: z.array(z.enum(taxed)).min(1, 'choose what it is charged on').max(taxed.length),
});
export type Tax = z.output<typeof taxSchema>;

/**
 * What an estimate or a bill is made of. Money in the smallest coin. Bills written before there were several taxes have
 * one, `tax`, without a name; they are read as if it had been the only one of `taxes`.
 */
export const billSchema = z
  .object({
    currency: z.string().regex(/^[A-Z]{3}$/, 'three letters, as in ISO 4217'),
    lines: z
      .array(
        z.object({
          group: z.enum(['labour', 'parts']),
          what: z.string().trim().min(1).max(120),
          per: z.enum(['hour', 'wheel', 'piece']),
          quantity: z.number().positive().max(1000),
          unitMinor: coin,
          /** What it is for: it is charged where one of these works is done there. Without it, where anything is done. */
          at: z.object({ position: positionSchema, works: z.array(workSchema).min(1).max(20) }).optional(),
        }),
      )
      .min(1, 'there is no line')
      .max(300),
    suppliesPercent: percent,
    tax: z.object({ percent, on: z.array(z.enum(taxed)).max(taxed.length) }).optional(),
    taxes: z.array(taxSchema).max(5, 'five taxes at most').optional(),
  })
  .transform(({ tax, taxes, ...bill }) => ({
    ...bill,
    taxes: taxes ?? (tax && tax.percent > 0 && tax.on.length > 0 ? [{ name: 'Tax', ...tax }] : []),
  }));
export type Bill = z.output<typeof billSchema>;
export type BillLine = Bill['lines'][number];

/** A work on a wheel end. */
export interface WorkAt {
  position: string;
  work: Work;
}

/** Whether an estimate says of its lines which works they are for. */
export const isSplit = ({ lines }: Pick<Bill, 'lines'>): boolean => lines.some((l) => l.at);

/**
 * What is left of an estimate where only some of its works are done: lines of works that are left out are gone; a line
 * that is for none of the works that were asked stands with the rest.
 * @param asked every work that was estimated
 * @param done those of them that are done
 * @returns null where none is done
 */
export function billFor(bill: Bill, asked: readonly WorkAt[], done: readonly WorkAt[]): Bill | null {
  if (done.length === 0) return null;
  const isOf = ({ at }: BillLine, some: readonly WorkAt[]) =>
    some.some((w) => at?.position === w.position && at.works.includes(w.work));
  return { ...bill, lines: bill.lines.filter((l) => isOf(l, done) || !isOf(l, asked)) };
}

/** Sums of a bill by the job-cost rules: each rounded once, half up, every tax by itself. */
export function billTotals({ lines, suppliesPercent, taxes }: Bill) {
  const of = (group: BillLine['group']) => lines.filter((l) => l.group === group);
  const untaxed = {
    labour: of('labour').map((l) => ({ hours: l.quantity, rateMinor: l.unitMinor })),
    parts: of('parts').map((l) => ({ quantity: l.quantity, unitMinor: l.unitMinor })),
    suppliesPercent,
  };
  const { totalMinor: netMinor, ...sums } = jobCost({ ...untaxed, tax: { percent: 0, on: [] } });
  const each = taxes.map((tax) => ({ ...tax, minor: jobCost({ ...untaxed, tax }).taxMinor }));
  const taxMinor = each.reduce((sum, { minor }) => sum + minor, 0);
  return { ...sums, netMinor, taxes: each, taxMinor, totalMinor: netMinor + taxMinor };
}

/** A tax in words: what it is called, how much, and on what. */
export const describeTax = ({ name, percent: share, on }: Tax) => `${name}, ${share} % on ${on.join(', ')}`;

/** One line in which a bill came out otherwise than it was quoted. */
export interface BillDifference {
  what: string;
  quotedMinor: number;
  actualMinor: number;
}

/** What one line comes to, in the smallest coin, rounded as the sums are. */
export const lineMinor = ({ quantity, unitMinor }: Pick<BillLine, 'quantity' | 'unitMinor'>) =>
  toCoin(quantity * unitMinor);

/**
 * Why a bill is not what was quoted: every line that differs, then supplies and each tax. The differences of
 * the lines, supplies and tax add up to that of the totals but for the rounding of each sum.
 */
export function billDifferences(quoted: Bill, actual: Bill): BillDifference[] {
  const sumOf = (bill: Bill, what: string) =>
    bill.lines.filter((l) => l.what === what).reduce((s, l) => s + lineMinor(l), 0);
  const taxOf = ({ taxes }: ReturnType<typeof billTotals>, name: string) =>
    taxes.filter((t) => t.name === name).reduce((s, t) => s + t.minor, 0);
  const [before, after] = [billTotals(quoted), billTotals(actual)];
  return [
    ...[...new Set([...quoted.lines, ...actual.lines].map((l) => l.what))].map((what) => ({
      what,
      quotedMinor: sumOf(quoted, what),
      actualMinor: sumOf(actual, what),
    })),
    { what: 'Supplies', quotedMinor: before.suppliesMinor, actualMinor: after.suppliesMinor },
    ...[...new Set([...before.taxes, ...after.taxes].map((t) => t.name))].map((what) => ({
      what,
      quotedMinor: taxOf(before, what),
      actualMinor: taxOf(after, what),
    })),
  ].filter((d) => d.quotedMinor !== d.actualMinor);
}
