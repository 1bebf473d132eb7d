import { useState } from 'react';
import { driveVerdict, driveVerdicts, symptoms } from '@lanternwright/core/inspection';
import { stages, type Stage } from '@lanternwright/core/procedure';
import { formatQuantity } from '@lanternwright/core/quantity';
import {
  progressOf,
  sayStepData,
  stageMinutes,
  type Reading,
  type StepRecord,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { sayTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { StrikeOut } from './strike-out.tsx';
import type { OpenJob } from './use-job.ts';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  stage: Stage;
  back: () => void;
}

function RecordLine({
  open,
  record,
  title,
  words,
}: {
  open: OpenJob;
  record: StepRecord | Reading;
  title: string;
  words: string;
}) {
  const [striking, setStriking] = useState(false);
  const mayCorrect = open.person.role === 'supervisor' || record.by.id === open.person.id;
  return (
    <li className="flex flex-col gap-2 border-b border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <span>
          <span className="font-semibold">{title}</span> <span className="figure text-14">{words}</span>
        </span>
        <span className="text-13 text-muted">
          {record.by.name}, {sayTime(record.at)}
        </span>
      </div>
      {record.corrected && (
        <p className="text-13 text-rust">
          Corrected by {record.corrected.by.name}: {record.corrected.reason}
        </p>
      )}
      {mayCorrect && !striking && (
        <div>
          <Button weight="quiet" onClick={() => setStriking(true)}>
            Strike out
          </Button>
        </div>
      )}
      {striking && <StrikeOut open={open} eventId={record.eventId} onDone={() => setStriking(false)} />}
    </li>
  );
}

/** What is recorded in one stage of a wheel end: all rounds, with corrections in sight. */
export function StagePanel({ open, wheelEnd, stage, back }: Props) {
  const title = stages.find((s) => s.id === stage)?.title ?? stage;
  const took = stageMinutes(open.job, wheelEnd)[stage];
  const progress = progressOf(wheelEnd).filter((p) => p.step.stage === stage);
  const earlier = wheelEnd.records.filter((r) => r.stage === stage && !progress.some((p) => p.record === r));
  const readings =
    stage === 'verify'
      ? wheelEnd.readings.filter((r) => r.round > 0)
      : stage === 'diagnose'
        ? wheelEnd.readings.filter((r) => r.round === 0)
        : [];
  const stepTitle = (id: string) =>
    [...wheelEnd.procedure.steps, ...wheelEnd.procedure.readjust, ...progress.map((p) => p.step)].find(
      (s) => s.id === id,
    )?.title ?? id;
  const words = (r: StepRecord) => (r.skipped !== null ? `skipped: ${r.skipped}` : sayStepData(r.data));
  return (
    <>
      <p className="caption">
        {wheelEnd.position}, {title}
      </p>
      <h2 className="text-26">{title}</h2>
      {took !== undefined && (
        <p className="text-14 text-muted">About {Math.max(1, Math.round(took))} min so far.</p>
      )}
      {stage === 'intake' && (
        <p>
          {open.job.complaint || 'Nothing noted'}
          {open.job.reportedBy && `, reported by ${open.job.reportedBy}`}. Opened by {open.job.opened.by.name}
          , {sayTime(open.job.opened.at)}.
          {open.job.symptoms.length > 0 &&
            ` Noticed: ${open.job.symptoms.map((s) => symptoms[s].toLowerCase()).join(', ')}. ${driveVerdicts[driveVerdict(open.job.symptoms).verdict]}.`}
        </p>
      )}
      <ul>
        {earlier.map((r) => (
          <RecordLine
            key={r.eventId}
            open={open}
            record={r}
            title={`Round ${r.round}, ${stepTitle(r.stepId)}`}
            words={words(r)}
          />
        ))}
        {readings.map((r) => (
          <RecordLine
            key={r.eventId}
            open={open}
            record={r}
            title={r.round === 0 ? 'As found' : `Round ${r.round}`}
            words={`push ${formatQuantity(r.push)}, pull ${formatQuantity(r.pull)}${r.gauge ? `, ${r.gauge}` : ''}`}
          />
        ))}
        {progress.map(({ step, record }) =>
          record ? (
            <RecordLine
              key={record.eventId}
              open={open}
              record={record}
              title={step.title}
              words={record.skipped !== null ? words(record) : sayStepData(record.data, step)}
            />
          ) : (
            <li key={step.id} className="border-b border-rule py-3 text-muted">
              {step.title}, ahead
            </li>
          ),
        )}
      </ul>
      <div>
        <Button weight="main" onClick={back}>
          Back to the step at hand
        </Button>
      </div>
    </>
  );
}
