import { useState } from 'react';
import {
  componentOf,
  dispositions,
  driveVerdict,
  driveVerdicts,
  symptoms,
} from '@lanternwright/core/inspection';
import { stages, type Stage, type Step, type StepData } from '@lanternwright/core/procedure';
import type { Act } from '@lanternwright/core/route';
import { formatFor } from '@lanternwright/core/quantity';
import {
  currentRound,
  describeNotCounted,
  progressOf,
  describeStepData,
  stageMinutes,
  stepTitled,
  type StepRecord,
  type WheelEnd,
  recordedBy,
} from '@lanternwright/core/traveller';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { CorrectIntake } from './correct-intake.tsx';
import { CorrectStep, isCorrectable, StepAgain } from './correct-step.tsx';
import { LateRecords } from './late-records.tsx';
import { AddPhoto } from './photos.tsx';
import { StrikeOut } from './strike-out.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  stage: Stage;
  back: () => void;
}

/** A record that waited on a device for longer than a slow network takes. */
const waited = ({ at, doneAt }: Pick<StepRecord, 'at' | 'doneAt'>) =>
  Date.parse(at) - Date.parse(doneAt) > 120_000;

function RecordLine({
  open,
  record,
  title,
  words,
  notCounted,
  again,
  correct,
  back,
}: {
  open: OpenJob;
  record: Pick<StepRecord, 'eventId' | 'by' | 'at' | 'doneAt' | 'corrected'>;
  title: string;
  words: string;
  /** Why the record does not count, and what would make it count. */
  notCounted?: string | undefined;
  /** A put-back step that can be done once more, with its wheel end. */
  again?: { wheelEnd: WheelEnd; step: Step };
  /** A record of a step that can be entered as it should have been. */
  correct?: { wheelEnd: WheelEnd; step: Step; record: StepRecord };
  /** Turns back to the step at hand. */
  back: () => void;
}) {
  const [act, setAct] = useState<'strike' | 'redo' | 'correct' | null>(null);
  const done = () => setAct(null);
  const mayCorrect = open.person.role === 'supervisor' || record.by.id === open.person.id;
  return (
    <li className="flex flex-col gap-2 border-b border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <span>
          <span className="font-semibold">{title}</span> <span className="figure text-14">{words}</span>
        </span>
        <span className="text-13 text-muted">
          {recordedBy(record.by)}, {formatTime(record.doneAt)}
          {waited(record) && `, received ${formatTime(record.at)}`}
        </span>
      </div>
      {notCounted && <p className="text-13 text-rust">Does not count: {notCounted}</p>}
      {record.corrected && (
        <p className="text-13 text-rust">
          Corrected by {recordedBy(record.corrected.by)}: {record.corrected.reason}
        </p>
      )}
      {act === null && (
        <div className="flex flex-wrap gap-2">
          {again && !open.job.stopped && (
            <Button weight="quiet" onClick={() => setAct('redo')}>
              Do it again
            </Button>
          )}
          {mayCorrect && correct && (
            <Button weight="quiet" onClick={() => setAct('correct')}>
              Correct
            </Button>
          )}
          {mayCorrect && (
            <Button weight="quiet" onClick={() => setAct('strike')}>
              Strike out
            </Button>
          )}
        </div>
      )}
      {act === 'redo' && again && <Redo {...{ open, ...again, back }} onDone={done} />}
      {act === 'correct' && correct && <CorrectStep {...{ open, ...correct }} onDone={done} />}
      {act === 'strike' && <StrikeOut open={open} eventId={record.eventId} onDone={done} onStruck={back} />}
    </li>
  );
}

/** Kinds of step that are done once more as they are; a measurement is taken again by going back to Adjust. */
const repeatable: readonly Step['kind'][] = ['torque', 'turn', 'lock', 'inspect', 'choose', 'seal', 'pack'];

function mayRepeat(wheelEnd: WheelEnd, step: Step): boolean {
  return !wheelEnd.release && (step as Partial<Act>).phase === 'back' && repeatable.includes(step.kind);
}

/** The step once more. What follows from it counts no longer and is done again. */
function Redo({
  open,
  wheelEnd,
  step,
  onDone,
  back,
}: {
  open: OpenJob;
  wheelEnd: WheelEnd;
  step: Step;
  onDone: () => void;
  back: () => void;
}) {
  const [refused, setRefused] = useState<string | null>(null);
  const { position } = wheelEnd;
  const record = (data: StepData) => {
    const round = currentRound(wheelEnd).number;
    const at = { position, stage: step.stage, stepId: step.id, round };
    const why = open.send({ kind: 'step-recorded', ...at, data });
    setRefused(why);
    if (!why) back();
  };
  return (
    <StepAgain
      {...{ wheelEnd, step, record, refused, onDone }}
      words="What comes after it counts no longer where the nut was moved: it is done again."
    />
  );
}

/** What was noted when the job was opened, with its photos. */
function Intake({ open, position }: { open: OpenJob; position: string }) {
  const reader = useReader();
  const [correcting, setCorrecting] = useState(false);
  const { complaint, reportedBy, opened, symptoms: noticed, meter } = open.job;
  const mayCorrect = open.person.role === 'supervisor' || opened.by.id === open.person.id;
  const meters = [meter.distance, meter.hours].flatMap((q) => (q ? [formatFor(q, reader)] : []));
  return (
    <>
      <p>
        {complaint || 'Nothing noted'}
        {reportedBy && `, reported by ${reportedBy}`}. Opened by {opened.by.name}, {formatTime(opened.at)}.
        {meters.length > 0 && ` Meter: ${meters.join(', ')}.`}
        {noticed.length > 0 &&
          ` Noticed: ${noticed.map((s) => symptoms[s].toLowerCase()).join(', ')}. ${driveVerdicts[driveVerdict(noticed).verdict]}.`}
      </p>
      {mayCorrect && !correcting && (
        <Button weight="quiet" className="self-start" onClick={() => setCorrecting(true)}>
          Correct the intake
        </Button>
      )}
      {correcting && <CorrectIntake open={open} onDone={() => setCorrecting(false)} />}
      <AddPhoto open={open} position={position} stage="intake" />
    </>
  );
}

/** What is recorded in one stage of a wheel end: all rounds, with corrections in sight. */
export function StagePanel({ open, wheelEnd, stage, back }: Props) {
  const reader = useReader();
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
  const stepTitle = (id: string) => stepTitled(wheelEnd, stage, id)?.title ?? id;
  const why = ({ eventId }: StepRecord) => {
    const notCounted = wheelEnd.notCounted[eventId];
    return notCounted && describeNotCounted(notCounted);
  };
  const correct = (record: StepRecord, step: Step | undefined) =>
    step && isCorrectable(record, step) ? { correct: { wheelEnd, step, record } } : {};
  const words = (r: StepRecord) =>
    r.skipped !== null ? `skipped: ${r.skipped}` : describeStepData(r.data, reader, undefined, wheelEnd);
  return (
    <>
      <p className="caption">
        {wheelEnd.position}, {title}
      </p>
      <LateRecords {...{ open, wheelEnd }} />
      <h2 className="text-26">{title}</h2>
      {took !== undefined && (
        <p className="text-14 text-muted">About {Math.max(1, Math.round(took))} min so far.</p>
      )}
      {stage === 'intake' && <Intake open={open} position={wheelEnd.position} />}
      <ul>
        {earlier.map((r) => (
          <RecordLine
            key={r.eventId}
            {...{ open, back }}
            record={r}
            title={`Round ${r.round}, ${stepTitle(r.stepId)}`}
            words={words(r)}
            notCounted={why(r)}
            {...correct(r, stepTitled(wheelEnd, stage, r.stepId))}
          />
        ))}
        {readings.map((r) => (
          <RecordLine
            key={r.eventId}
            {...{ open, back }}
            record={r}
            title={r.round === 0 ? 'As found' : `Round ${r.round}`}
            words={`push ${formatFor(r.push, reader)}, pull ${formatFor(r.pull, reader)}${r.gauge ? `, ${r.gauge}` : ''}`}
          />
        ))}
        {(stage === 'inspect' ? wheelEnd.decisions : []).map((d) => (
          <RecordLine
            key={d.eventId}
            {...{ open, back }}
            record={d}
            title={`Decided on ${componentOf(d.component)?.title ?? d.component}`}
            words={`${dispositions[d.decision].toLowerCase()}. ${d.reason}`}
          />
        ))}
        {progress.map(({ step, record }) =>
          record ? (
            <RecordLine
              key={record.eventId}
              {...{ open, back }}
              record={record}
              title={step.title}
              words={
                record.skipped !== null
                  ? words(record)
                  : describeStepData(record.data, reader, step, wheelEnd)
              }
              {...(mayRepeat(wheelEnd, step) ? { again: { wheelEnd, step } } : {})}
              {...correct(record, step)}
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
