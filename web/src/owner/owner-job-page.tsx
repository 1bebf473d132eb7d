import { useParams } from 'react-router';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { componentOf, dispositions } from '@lanternwright/core/inspection';
import { stages } from '@lanternwright/core/procedure';
import {
  decidedOn,
  judgedParts,
  lastVerdict,
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
import { formatPlay, formatTime } from '../shell/words.ts';
import { Note } from '../ui/problem-note.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';
import { AnswerEstimate } from './answer-estimate.tsx';
import { useReader } from '../shell/use-reader.ts';

/** Parts that are not simply used again, with what was seen and what follows. */
function findingsOf(w: WheelEnd): { title: string; seen: string; then: string }[] {
  return [...judgedParts(w).values()].flatMap((judged) => {
    const { component, seen: sign } = judged.finding;
    const part = componentOf(component);
    const decided = decidedOn(w, judged);
    if (!part || decided === 'reuse') return [];
    const seen = part.conditions.find((c) => c.id === sign)?.words ?? sign;
    return [{ title: part.title, seen, then: dispositions[decided] }];
  });
}

function WheelEndState({ job, w }: { job: Job; w: WheelEnd }) {
  const unit = useReader().length;
  const reading = lastVerdict(w);
  const stage = stages.find((s) => s.id === stageAtHand(w))?.title;
  const mark = reading?.result.verdict === 'unsure' ? 'repeat' : (reading?.result.verdict ?? 'not-measured');
  const stands = w.release
    ? `released ${formatTime(w.release.at)}`
    : job.stopped
      ? ''
      : `being worked on: ${stage?.toLowerCase()}`;
  return (
    <li className="flex flex-col gap-1 border-b border-rule py-3">
      <p className="flex flex-wrap items-center gap-2 text-16">
        <StateMark state={mark} size={18} />
        <span className="font-semibold">{w.position}</span>
        <span>{stands}</span>
        {reading && (
          <span className="text-14 text-muted">
            {stateWords[mark]}, end play{' '}
            <span className="figure">{formatPlay(reading.result.endPlayMm, unit)}</span>
          </span>
        )}
      </p>
      {findingsOf(w).map((f) => (
        <p key={f.title} className="pl-7 text-14">
          {f.title}: {f.seen.toLowerCase()}. <span className="font-semibold">{f.then}</span>
        </p>
      ))}
    </li>
  );
}

function Estimate({ open }: { open: OpenJob }) {
  const { estimate, answer, actual } = open.job.money;
  if (!estimate && !actual) return <p className="text-16 text-muted">The shop has written no estimate.</p>;
  return (
    <div className="flex flex-col gap-4">
      {estimate && (
        <section aria-label="Estimate">
          <h2 className="text-18">
            Estimate <span className="text-13 font-normal text-muted">{formatTime(estimate.at)}</span>
          </h2>
          <BillView bill={estimate.bill} />
        </section>
      )}
      {answer ? (
        <Note tone={answer.answer === 'do-now' ? 'good' : 'plain'}>
          {answer.name}: {ownerAnswers[answer.answer].toLowerCase()}
          {answer.until && ` until ${answer.until}`}
          {answer.works &&
            answer.works.length > 0 &&
            `; otherwise: ${answer.works.map((l) => `${l.position} ${ownerAnswers[l.answer].toLowerCase()}`).join(', ')}`}
          . {formatTime(answer.at)}.
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
            <WheelEndState key={w.position} {...{ job, w }} />
          ))}
        </ul>
      </section>
      <PaperLinks open={open} />
    </main>
  );
}
