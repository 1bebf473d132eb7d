import { useParams } from 'react-router';
import { billTotals, formatMoney, isSplit } from '@lanternwright/core/cost';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { stages } from '@lanternwright/core/procedure';
import {
  ownerAnswers,
  stageAtHand,
  stoppedWords,
  type Job,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { BillView } from '../jobs/bill-view.tsx';
import { PaperLinks } from '../jobs/paper-links.tsx';
import { useOpenJob, type OpenJob } from '../jobs/use-job.ts';
import { formatTime } from '../shell/words.ts';
import { Note } from '../ui/problem-note.tsx';
import { StateMark } from '../ui/state-mark.tsx';
import { AnswerEstimate } from './answer-estimate.tsx';
import { Found, markOf } from './found.tsx';

/** @param isAsked what was found stands beside what is asked of its owner already */
function WheelEndState({ job, w, isAsked }: { job: Job; w: WheelEnd; isAsked: boolean }) {
  const stage = stages.find((s) => s.id === stageAtHand(w))?.title;
  const stands = w.release
    ? `released ${formatTime(w.release.at)}`
    : job.stopped
      ? ''
      : `being worked on: ${stage?.toLowerCase()}`;
  return (
    <li className="flex flex-col gap-1 border-b border-rule py-3">
      <p className="flex flex-wrap items-center gap-2 text-16">
        <StateMark state={markOf(w)} size={18} />
        <span className="font-semibold">{w.position}</span>
        <span>{stands}</span>
      </p>
      {!isAsked && (
        <div className="pl-7">
          <Found w={w} />
        </div>
      )}
    </li>
  );
}

const asksOwner = ({ money }: Job) => money.estimate !== null && money.answer === null;

function Estimate({ open }: { open: OpenJob }) {
  const { estimate, answer, actual } = open.job.money;
  // What is asked says its own lines, work by work.
  const asks = answer === null && estimate !== null && isSplit(estimate.bill);
  if (!estimate && !actual) return <p className="text-16 text-muted">The shop has written no estimate.</p>;
  return (
    <div className="flex flex-col gap-4">
      {estimate && (
        <section aria-label="Estimate">
          <h2 className="text-18">
            Estimate <span className="text-13 font-normal text-muted">{formatTime(estimate.at)}</span>
          </h2>
          {asks ? (
            <details>
              <summary className="min-h-12 py-3 text-14">
                Every line, {formatMoney(billTotals(estimate.bill).totalMinor, estimate.bill.currency)} in all
              </summary>
              <BillView bill={estimate.bill} />
            </details>
          ) : (
            <BillView bill={estimate.bill} />
          )}
        </section>
      )}
      {answer ? (
        <Note tone={answer.answer === 'do-now' ? 'good' : 'plain'}>
          {answer.name}: {ownerAnswers[answer.answer].toLowerCase()}
          {answer.until && ` until ${answer.until}`}
          {answer.works &&
            answer.works.length > 0 &&
            `; otherwise: ${answer.works.map((l) => `${l.position} ${ownerAnswers[l.answer].toLowerCase()}`).join(', ')}`}
          . {answer.message && `“${answer.message}” `}
          {formatTime(answer.at)}.
        </Note>
      ) : (
        estimate && <AnswerEstimate open={open} />
      )}
      {actual && (
        <section aria-label="Bill">
          <h2 className="text-18">Bill</h2>
          <BillView bill={actual.bill} />
        </section>
      )}
    </div>
  );
}

/** A job as its unit's owner sees it: where it stands, what was found, what is asked, and the papers. */
export function OwnerJobPage() {
  const { id = '' } = useParams();
  const { open, error } = useOpenJob(id);
  if (error && !open)
    return (
      <main className="p-5">
        <Note tone="trouble">{problemText(error)}</Note>
      </main>
    );
  if (!open) return null;
  const { detail, job } = open;
  return (
    <main className="mx-auto flex w-full max-w-[720px] flex-col gap-6 p-5">
      <div>
        <h1 className="text-23">{detail.unit.name}</h1>
        <p className="text-13 text-muted">
          {job.title} · {unitKinds[detail.unit.kind]} · job {detail.number}, opened{' '}
          {formatTime(job.opened.at)}
        </p>
      </div>
      {job.stopped && (
        <Note tone="trouble">
          {stoppedWords[job.stopped.as]}: {job.stopped.reason}
        </Note>
      )}
      <Estimate open={open} />
      <section>
        <h2 className="text-18">Wheel ends</h2>
        <ul>
          {job.wheelEnds.map((w) => (
            <WheelEndState key={w.position} {...{ job, w, isAsked: asksOwner(job) }} />
          ))}
          {job.leftOut.map((w) => (
            <li key={w.position} className="border-b border-rule py-3 text-14 text-muted">
              {w.position}: not done in this job, as it was
            </li>
          ))}
        </ul>
      </section>
      <PaperLinks open={open} />
    </main>
  );
}
