import { useEffect, useRef, useState } from 'react';
import { oppositeOf } from '@lanternwright/core/axle-plan';
import { stages, type Step, type StepData } from '@lanternwright/core/procedure';
import {
  currentRound,
  mayStayLoose,
  progressOf,
  wheelEndAt,
  type Command,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { DraftScope, forgetDrafts, useDraft } from './use-draft.ts';
import { ownWork, SecondPerson } from './second-person.tsx';
import { StepForm } from './step-forms.tsx';
import { AddPhoto } from './photos.tsx';
import { GreaseBefore } from './grease-change.tsx';
import { useFresh } from './use-fresh.ts';
import type { OpenJob } from './use-job.ts';
import { MeasurePanel } from './measure-panel.tsx';

interface Props {
  open: OpenJob;
  wheelEnd: WheelEnd;
  step: Step;
}

/** Skipping a step: with a reason, which stands against the release unless the step is optional. */
function Skip({ onSkip, optional }: { onSkip: (reason: string) => void; optional: boolean }) {
  const [open, setOpen] = useDraft('open', false);
  const [reason, setReason] = useDraft('reason', '');
  if (optional && !open) {
    return (
      <div className="flex flex-wrap items-center gap-3">
        <Button onClick={() => onSkip('Left out: good practice, not required')}>Leave this one out</Button>
        <Button weight="quiet" onClick={() => setOpen(true)}>
          Leave it out with a reason
        </Button>
      </div>
    );
  }
  if (!open) {
    return (
      <Button weight="quiet" className="self-start" onClick={() => setOpen(true)}>
        Skip this step
      </Button>
    );
  }
  return (
    <form
      className="flex w-full flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim()) onSkip(reason.trim());
      }}
    >
      <TextField
        label="Why it is skipped"
        hint={optional ? 'This step may be skipped' : 'This blocks the release until a supervisor decides'}
        value={reason}
        autoFocus
        onChange={(e) => setReason(e.target.value)}
      />
      <div className="flex gap-2">
        <Button type="submit" weight="grave" disabled={reason.trim() === ''}>
          Skip it
        </Button>
        <Button onClick={() => setOpen(false)}>Do it after all</Button>
      </div>
    </form>
  );
}

/** How many of the steps ahead are named. */
const SHOWN_AHEAD = 5;

/** What nobody releases without cannot be left out, but for a measurement that may stay loose. */
function maySkip(wheelEnd: WheelEnd, step: Step): boolean {
  return !('guard' in step && step.guard === 'never') || (step.kind === 'measure' && mayStayLoose(wheelEnd));
}

/** The one step at hand. */
export function StepPanel({ open, wheelEnd, step }: Props) {
  const fresh = useFresh();
  const [refused, setRefused] = useState<string | null>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  // A key that bounces after the step before must find no answer under it.
  useEffect(() => {
    const { activeElement } = document;
    if (activeElement === null || activeElement === document.body) heading.current?.focus();
  }, []);
  const { position } = wheelEnd;
  const round = currentRound(wheelEnd).number;
  const progress = progressOf(wheelEnd);
  const inStage = progress.filter((p) => p.step.stage === step.stage);
  const number = inStage.findIndex((p) => p.step.id === step.id) + 1;
  // A route goes through its stages more than once: what comes next may stand in another row.
  const next = progress.slice(progress.findIndex((p) => p.step.id === step.id) + 1).filter((p) => !p.record);
  const ahead = next.slice(0, SHOWN_AHEAD);
  const more = next.length - ahead.length;
  const stageTitle = stages.find((s) => s.id === step.stage)?.title;
  const at = { position, stage: step.stage, stepId: step.id, round };
  const scope = `${open.job.id}/${position}/${step.stage}/${step.id}/${round}`;
  const other = wheelEndAt(open.job, oppositeOf(position));
  const send = (command: Command) => {
    const why = open.send(command);
    setRefused(why);
    if (why === null) forgetDrafts(scope);
  };
  const record = (data: StepData) => send({ kind: 'step-recorded', ...at, data });
  const skip = (reason: string) => send({ kind: 'step-skipped', ...at, reason });
  return (
    <div className="contents" {...fresh}>
      <div className="flex flex-col gap-1">
        <p className="caption">
          {position}, {stageTitle}, step {number} of {inStage.length}
          {round > 1 && step.stage !== 'diagnose' && `, round ${round}`}
        </p>
        <h2 ref={heading} tabIndex={-1} className="text-26 outline-none">
          {step.title}
        </h2>
        <p className="max-w-[68ch] text-16 bay:max-md:text-14">{step.text}</p>
      </div>
      {(step.kind === 'pack' || step.kind === 'fill') && <GreaseBefore {...{ open, wheelEnd }} />}
      <DraftScope value={scope}>
        {step.kind === 'measure' ? (
          <MeasurePanel {...{ open, wheelEnd, step, record }} />
        ) : step.kind === 'inspect' && ownWork(wheelEnd, step, open.person.id) ? (
          <SecondPerson {...{ open, wheelEnd, step }} />
        ) : (
          <StepForm {...{ wheelEnd, other, step, record }} />
        )}
      </DraftScope>
      {refused && <Note tone="trouble">{refused}</Note>}
      <AddPhoto {...{ open, position, stage: step.stage }} />
      <DraftScope value={`${scope}/skip`}>
        {maySkip(wheelEnd, step) && (
          <Skip onSkip={skip} optional={step.optional === true && step.kind !== 'measure'} />
        )}
      </DraftScope>
      {ahead.length > 0 && (
        <section className="border-t border-rule pt-3">
          <h3 className="caption pb-1">Then</h3>
          <ol className="text-14 text-muted">
            {ahead.map(({ step: coming }) => (
              <li key={coming.id} className="py-0.5">
                {coming.title}
              </li>
            ))}
          </ol>
          {more > 0 && <p className="pt-1 text-14 text-muted">and {more} more, to Release</p>}
        </section>
      )}
    </div>
  );
}
