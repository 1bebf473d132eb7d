import { billFor, billTotals, formatMoney, isSplit, type Bill, type WorkAt } from '@lanternwright/core/cost';
import { works } from '@lanternwright/core/stack';
import type { Job, OwnerAnswer } from '@lanternwright/core/traveller';

/** One thing that is asked: a work on a wheel end, or the job as a whole where it has no works. */
export interface AskedLine {
  key: string;
  title: string;
  at: WorkAt | null;
}

/** What an estimate asks its owner, line by line. */
export function linesOf(job: Job): AskedLine[] {
  const lines = job.wheelEnds.flatMap(({ position, plan }) =>
    plan.works.map((work) => ({
      key: `${position}/${work}`,
      title: `${position}: ${works[work].toLowerCase()}`,
      at: { position, work },
    })),
  );
  return lines.length > 0 ? lines : [{ key: 'all', title: job.title, at: null }];
}

/**
 * What is approved so far, of the whole.
 * @param answers what was said of each line, by its key
 * @param isOwner whether the owner looks at it, and not the shop that is told on the telephone
 */
export function Approved({
  lines,
  answers,
  bill,
  isOwner,
}: {
  lines: readonly AskedLine[];
  answers: Readonly<Record<string, { answer: OwnerAnswer } | undefined>>;
  bill: Bill;
  isOwner: boolean;
}) {
  const money = (minor: number) => formatMoney(minor, bill.currency);
  const whole = billTotals(bill).totalMinor;
  const approved = lines.filter((l) => answers[l.key]?.answer === 'do-now');
  const isWhole = approved.length === lines.length;
  const asked = lines.flatMap((l) => l.at ?? []);
  const part = billFor(
    bill,
    asked,
    approved.flatMap((l) => l.at ?? []),
  );
  return (
    <p role="status" className="text-16">
      {isWhole ? (
        <>
          {isOwner ? 'You approve all of it: ' : 'Approved, all of it: '}
          <span className="figure font-semibold">{money(whole)}</span>
        </>
      ) : isSplit(bill) ? (
        <>
          {isOwner ? 'You approve ' : 'Approved: '}
          <span className="figure font-semibold">
            {money(part ? billTotals(part).totalMinor : 0)}
          </span> of <span className="figure">{money(whole)}</span>
        </>
      ) : (
        `This estimate is not split by work. ${isOwner ? 'The shop will tell you what a part of it costs.' : 'Write it anew for a part of it.'}`
      )}
    </p>
  );
}
