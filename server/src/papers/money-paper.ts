import type { Content } from 'pdfmake/interfaces.js';
import {
  billDifferences,
  billTotals,
  describeTax,
  lineMinor,
  formatMoney,
  type Bill,
} from '@lanternwright/core/cost';
import { works } from '@lanternwright/core/stack';
import { ownerAnswers, type Job } from '@lanternwright/core/traveller';
import { jobHead, type PaperContext } from './head.ts';
import { figures, heading, MUTED, printed, RULE, table, words } from './paper.ts';

const groups = { labour: 'Labour', parts: 'Parts' } as const;
const right = { alignment: 'right' } as const;

function billTable(bill: Bill): Content {
  const money = (minor: number) => figures(formatMoney(minor, bill.currency), right);
  const totals = billTotals(bill);
  const sum = (label: string, minor: number) => [words(label), words(''), words(''), words(''), money(minor)];
  return table(
    ['What', 'Quantity', 'Per', 'Price', 'Amount'].map((label, i) =>
      words(label, { color: MUTED, ...(i === 0 || i === 2 ? {} : right) }),
    ),
    [
      ...(Object.keys(groups) as (keyof typeof groups)[]).flatMap((group) => {
        const lines = bill.lines.filter((l) => l.group === group);
        if (lines.length === 0) return [];
        return [
          [
            { ...words(groups[group], { bold: true }), colSpan: 5 },
            words(''),
            words(''),
            words(''),
            words(''),
          ],
          ...lines.map((l) => [
            words(l.at ? `${l.at.position}: ${l.what}` : l.what),
            figures(String(l.quantity), right),
            words(l.per),
            money(l.unitMinor),
            money(lineMinor(l)),
          ]),
        ];
      }),
      ...(bill.suppliesPercent > 0
        ? [sum(`Supplies, ${bill.suppliesPercent} % of labour`, totals.suppliesMinor)]
        : []),
      ...(totals.taxes.length > 0 ? [sum('Before tax', totals.netMinor)] : []),
      ...totals.taxes.map((tax) => sum(describeTax(tax), tax.minor)),
      [
        words('Total', { bold: true, fontSize: 11 }),
        ...[words(''), words(''), words('')],
        figures(formatMoney(totals.totalMinor, bill.currency), { ...right, bold: true, fontSize: 11 }),
      ],
    ],
    ['*', 50, 40, 80, 85],
  );
}

/** Where the owner signs. */
function toSign(owner: string): Content {
  const field = (label: string) => ({
    stack: [
      { canvas: [{ type: 'line' as const, x1: 0, y1: 0, x2: 160, y2: 0, lineWidth: 0.6, lineColor: RULE }] },
      words(label, { color: MUTED, fontSize: 7.5, margin: [0, 2, 0, 0] }),
    ],
  });
  return {
    unbreakable: true,
    margin: [0, 34, 0, 0],
    columns: [field(`Approved for ${owner}: signature`), field('Name'), field('Date')],
    columnGap: 16,
  };
}

/**
 * What the work will cost, for the owner; when the bill is written, that first, then what was estimated and why they
 * differ.
 * @throws Error when neither is written
 */
export function moneyPaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const { estimate, answer, actual } = job.money;
  const written = actual ?? estimate;
  if (!written) throw new Error('neither an estimate nor a bill is written');
  const { formatTime, formatDay, number, size, shop, unit } = context;
  const named = `${actual ? 'Bill' : 'Estimate'} ${number}-${written.nth}`;
  const asks = estimate && !answer && !actual;
  const answered = answer
    ? [
        words(
          `${answer.name}: ${ownerAnswers[answer.answer]}${answer.until ? ` until ${answer.until}` : ''}${answer.risk ? `. Risk: ${answer.risk}` : ''}${answer.message ? `. “${answer.message}”` : ''}`,
          { bold: true, margin: [0, 4, 0, 0] },
        ),
        ...(answer.works ?? []).map(({ position, work, answer: said }) =>
          words(`Otherwise ${position}, ${works[work].toLowerCase()}: ${ownerAnswers[said]}`),
        ),
      ]
    : [];
  const differences = actual && estimate ? billDifferences(estimate.bill, actual.bill) : [];
  return printed(
    [
      ...jobHead(job, context, named),
      ...(shop.taxNumber ? [words(`Tax number of ${shop.name}: ${shop.taxNumber}`, { color: MUTED })] : []),
      ...(actual ? [heading(`Bill, ${formatTime(actual.at)}`), billTable(actual.bill)] : []),
      ...(estimate
        ? [heading(`Estimate, ${formatTime(estimate.at)}, ${estimate.by.name}`), billTable(estimate.bill)]
        : []),
      ...answered,
      ...(estimate && !actual && shop.validDays !== null
        ? [
            words(`This estimate stands until ${formatDay(estimate.at, shop.validDays)}.`, {
              margin: [0, 4, 0, 0],
            }),
          ]
        : []),
      ...(asks ? [toSign(unit.owner)] : []),
      ...(actual && differences.length > 0
        ? [
            heading('Why the bill differs from the estimate'),
            table(
              ['What', 'Estimated', 'Came to'].map((label, i) =>
                words(label, { color: MUTED, ...(i === 0 ? {} : right) }),
              ),
              differences.map((d) => [
                words(d.what),
                figures(formatMoney(d.quotedMinor, actual.bill.currency), right),
                figures(formatMoney(d.actualMinor, actual.bill.currency), right),
              ]),
              ['*', 90, 90],
            ),
          ]
        : []),
      ...(shop.terms ? [words(shop.terms, { margin: [0, 14, 0, 0], fontSize: 7.5 })] : []),
    ],
    {
      ...{ size, title: named, date: new Date(written.at) },
      foot: `Job ${number}, ${unit.name}.`,
    },
  );
}
