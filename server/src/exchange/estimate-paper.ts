import { billDifferences, billTotals, lineMinor, sayMoney, type Bill } from '@lanternwright/core/cost';
import { works } from '@lanternwright/core/stack';
import { ownerAnswers, type Job } from '@lanternwright/core/traveller';
import { HttpProblem } from '../http/problem.ts';
import { head, type PaperContext } from './job-paper.ts';
import { footers, heading, line, openPage, type Page } from './page.ts';

function billBlock({ doc }: Page, bill: Bill): void {
  const money = (minor: number) => sayMoney(minor, bill.currency);
  for (const l of bill.lines) {
    const words = `${l.what}, ${l.quantity} × ${money(l.unitMinor)} per ${l.per}`;
    line(doc, l.group === 'labour' ? 'Labour' : 'Parts', `${words}: ${money(lineMinor(l))}`);
  }
  const totals = billTotals(bill);
  if (bill.suppliesPercent > 0)
    line(doc, 'Supplies', `${bill.suppliesPercent} % of labour: ${money(totals.suppliesMinor)}`);
  if (bill.tax.percent > 0)
    line(doc, 'Tax', `${bill.tax.percent} % on ${bill.tax.on.join(', ')}: ${money(totals.taxMinor)}`);
  doc.font('Helvetica-Bold');
  line(doc, 'Total', money(totals.totalMinor));
  doc.font('Helvetica');
}

/**
 * What the work will cost, for the owner; when the bill is written, that too, with the difference explained.
 * @throws HttpProblem 404 when no estimate is written
 */
export async function estimatePaper(job: Job, context: PaperContext): Promise<Uint8Array<ArrayBuffer>> {
  const { estimate, answer, actual } = job.money;
  if (!estimate) throw new HttpProblem(404, 'No estimate', 'A supervisor writes the estimate first');
  const page = openPage(context.paper, `Estimate ${context.number}`, new Date(estimate.at));
  const { doc } = page;
  head(page, job, context, actual ? 'bill' : 'estimate');
  heading(doc, `Estimate, ${context.sayTime(estimate.at)}, ${estimate.by.name}`);
  billBlock(page, estimate.bill);
  if (answer) {
    const more = `${answer.until ? ` until ${answer.until}` : ''}${answer.risk ? `. Risk: ${answer.risk}` : ''}`;
    line(doc, 'Answer', `${answer.name}: ${ownerAnswers[answer.answer]}${more}`);
    for (const { position, work, answer: said } of answer.works ?? [])
      line(doc, 'Otherwise', `${position}, ${works[work].toLowerCase()}: ${ownerAnswers[said]}`);
  }
  if (actual) {
    heading(doc, `Bill, ${context.sayTime(actual.at)}`);
    billBlock(page, actual.bill);
    heading(doc, 'Why it differs');
    for (const d of billDifferences(estimate.bill, actual.bill)) {
      const money = (minor: number) => sayMoney(minor, actual.bill.currency);
      line(doc, d.what, `quoted ${money(d.quotedMinor)}, came to ${money(d.actualMinor)}`);
    }
  }
  footers(doc, `Job ${context.number}, ${context.unit.name}.`);
  return page.bytes();
}
