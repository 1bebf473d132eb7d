import { useEffect, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { may } from '@lanternwright/core/access';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { stages, type Stage } from '@lanternwright/core/procedure';
import {
  isClosed,
  lastTrace,
  lastVerdict,
  readOnly,
  stageAtHand,
  stageStates,
  meanwhile,
  stepAtHand,
  stoppedWords,
  wheelEndAt,
  type Job,
  type StageState,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { problemText } from '../api.ts';
import { bayChosen } from '../shell/preferences.ts';
import { useKeys } from '../shell/use-keys.ts';
import { formatMeter } from '../shell/words.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { MarkState } from '../ui/state-mark.tsx';
import { TravellerGrid } from '../ui/traveller-grid.tsx';
import { BayCaution, BayHead } from './bay-view.tsx';
import { HoldBar } from './hold-bar.tsx';
import { LeftOut } from './leave-out.tsx';
import { refusalSeen } from './outbox.ts';
import { MoneyPanel } from './money-panel.tsx';
import { PartsPanel } from './parts-panel.tsx';
import { PaperLinks } from './paper-links.tsx';
import { Questions } from './questions.tsx';
import { ReleasePanel } from './release-panel.tsx';
import { RouteChanges } from './route-changes.tsx';
import { StagePanel } from './stage-panel.tsx';
import { StackPanel } from './stack-panel.tsx';
import { StepPanel } from './step-panel.tsx';
import { useOpenJob, type OpenJob } from './use-job.ts';
import { Waiting } from './waiting.tsx';
import { WhatHolds } from './what-holds.tsx';
import { useReader } from '../shell/use-reader.ts';

const cellOf: Record<StageState, MarkState> = {
  done: 'in-band',
  now: 'working',
  ahead: 'ahead',
  trouble: 'trouble',
  nothing: 'nothing',
};

/** A wheel end of the job as the small plan draws it. */
function planState(w: WheelEnd): MarkState {
  const verdict = lastVerdict(w)?.result.verdict;
  if (w.release) return verdict === 'tight' || verdict === 'loose' ? verdict : 'in-band';
  return verdict === 'tight' || verdict === 'loose' ? verdict : 'working';
}

function cells(w: WheelEnd): Record<string, MarkState> {
  const states = stageStates(w);
  const verdict = lastVerdict(w)?.result.verdict;
  const entries = stages.map((s): [string, MarkState] => {
    const mark = cellOf[states[s.id]];
    return [
      s.id,
      s.id === 'verify' && mark === 'trouble' && (verdict === 'tight' || verdict === 'loose')
        ? verdict
        : mark,
    ];
  });
  return Object.fromEntries(entries);
}

function whoWorks(job: Job): string {
  const hands = job.wheelEnds.flatMap((w) => {
    const last = lastTrace(w);
    return last && !w.release ? [`${w.position} with ${last.by.name}`] : [];
  });
  return hands.length === 0 ? '' : `${hands.join(', ')}.`;
}

function JobHead({ open }: { open: OpenJob }) {
  const reader = useReader();
  const { detail, job } = open;
  const { distance, hours } = job.meter;
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 border-b border-rule px-5 py-3">
      <div className="min-w-0">
        <h1 className="text-23">
          <Link to={`/fleet/${detail.unit.id}`} className="hover:underline">
            {detail.unit.name}
          </Link>
          , {job.title.charAt(0).toLowerCase() + job.title.slice(1)}
        </h1>
        <p className="text-13 text-muted">
          Job {detail.number} · {unitKinds[detail.unit.kind]} · {detail.unit.owner.name} ·{' '}
          {formatMeter(distance ? distance.si / 1000 : null, hours?.value ?? null, reader)}
          {job.stopped
            ? ` · ${stoppedWords[job.stopped.as].toLowerCase()}`
            : isClosed(job) && ' · every wheel end is released'}
        </p>
      </div>
      <AxlePlan
        axles={detail.unit.axles}
        wheelEnds={job.wheelEnds.map((w) => ({ position: w.position, state: planState(w) }))}
        label={`Wheel ends of ${detail.unit.name} in this job`}
      />
    </div>
  );
}

/** What the server did not take, and why. */
function Refusal({ jobId }: { jobId: string }) {
  const refusal = useAppSelector((s) => s.outbox.refusal);
  const dispatch = useAppDispatch();
  if (refusal?.jobId !== jobId) return null;
  return (
    <Note tone="trouble">
      <span className="flex flex-wrap items-center justify-between gap-3">
        {refusal.text}
        <Button onClick={() => dispatch(refusalSeen())}>Dismiss</Button>
      </span>
    </Note>
  );
}

/** The step at hand for somebody who does not work at the bench. */
function LookingOn({ title, at }: { title: string; at: string }) {
  return (
    <>
      <h2 className="text-26">{title}</h2>
      <p className="text-16 text-muted">
        This is at hand on {at}. You look on here: technicians and supervisors record the work.
      </p>
    </>
  );
}

function Center({
  open,
  wheelEnd,
  viewed,
  look,
}: {
  open: OpenJob;
  wheelEnd: WheelEnd;
  viewed: Stage | null;
  /** Turns to what is recorded in a stage, or back to the step at hand. */
  look: (stage: Stage | null) => void;
}) {
  const back = () => look(null);
  const [chosen, choose] = useState<string | null>(null);
  const possible = meanwhile(open.job, wheelEnd);
  const instead = possible.find((s) => s.id === chosen) ?? null;
  const step = instead ?? stepAtHand(wheelEnd);
  if (viewed) return <StagePanel key={viewed} {...{ open, wheelEnd, stage: viewed, back }} />;
  if (wheelEnd.firstBuild && !wheelEnd.release) return <Note tone="plain">{readOnly}.</Note>;
  if (!step || wheelEnd.release) return <ReleasePanel {...{ open, wheelEnd, look }} />;
  if (!may(open.person.role, 'work-on-jobs')) return <LookingOn title={step.title} at={wheelEnd.position} />;
  return (
    <>
      <Waiting
        {...{ open, wheelEnd, meanwhile: possible, chosen: instead }}
        choose={(s) => choose(s && s.id)}
      />
      <StepPanel
        key={`${wheelEnd.position}/${wheelEnd.rounds.length}/${step.stage}/${step.id}`}
        {...{ open, wheelEnd, step }}
      />
      {/* Beside the step, not in it: what is being filled in there stays when somebody records the step meanwhile. */}
      <RouteChanges key={wheelEnd.position} {...{ open, wheelEnd, look }} />
    </>
  );
}

function JobView({ open }: { open: OpenJob }) {
  const { job } = open;
  const [params, setParams] = useSearchParams();
  const [first] = useState(() => (job.wheelEnds.find((w) => !w.release) ?? job.wheelEnds[0]!).position);
  const wheelEnd = wheelEndAt(job, params.get('at') ?? first) ?? job.wheelEnds[0]!;
  const { position } = wheelEnd;
  const recorded = wheelEnd.records.length + wheelEnd.rounds.length;
  const [look, setLook] = useState<{ stage: Stage; position: string } | null>(null);
  const view = params.has('money') ? 'money' : params.has('parts') ? 'parts' : null;
  const turnTo = (shown: 'money' | 'parts' | null) =>
    setParams({ at: position, ...(shown ? { [shown]: '' } : {}) }, { replace: true });
  const viewed = look?.position === position ? look.stage : null;
  const select = (stage: string, at: string) => {
    setParams({ at }, { replace: true });
    // The stage at hand shows its step again after a look at what is recorded.
    const isBack = stage === '' || (viewed !== null && stage === stageAtHand(wheelEndAt(job, at)!));
    setLook(isBack ? null : { stage: stage as Stage, position: at });
  };
  const beside = (by: number) => {
    const i = job.wheelEnds.indexOf(wheelEnd);
    select('', job.wheelEnds[(i + by + job.wheelEnds.length) % job.wheelEnds.length]!.position);
  };
  const bay = useAppSelector((s) => s.preferences.bay);
  const dispatch = useAppDispatch();
  const switchBay = () => dispatch(bayChosen(bay ? 'off' : 'on'));
  useKeys({ '[': () => beside(-1), ']': () => beside(1), 'Alt+b': switchBay });
  const page = useRef<HTMLElement>(null);
  useEffect(() => {
    if (bay) page.current?.scrollIntoView();
    else window.scrollTo({ top: 0 });
  }, [position, recorded, bay, view, viewed]);
  const stage = stageAtHand(wheelEnd);
  const center = (
    <section
      aria-label="Step at hand"
      className="order-first flex min-w-0 flex-col gap-4 p-4 md:order-none md:p-5 bay:order-none bay:gap-3"
    >
      <Refusal jobId={job.id} />
      <Questions key={position} open={open} wheelEnd={wheelEnd} />
      {job.stopped && <HoldBar open={open} />}
      {view === 'money' ? (
        <MoneyPanel open={open} back={() => turnTo(null)} />
      ) : view === 'parts' ? (
        <PartsPanel open={open} back={() => turnTo(null)} />
      ) : (
        <Center
          key={position}
          {...{ open, wheelEnd, viewed }}
          look={(at) => setLook(at && { stage: at, position })}
        />
      )}
    </section>
  );
  if (bay) {
    return (
      <main ref={page} className="bay flex min-h-dvh flex-1 flex-col">
        <BayHead {...{ open, position, switchBay }} onSelect={(at) => select('', at)} />
        {center}
        <BayCaution wheelEnd={wheelEnd} />
      </main>
    );
  }
  return (
    <main className="flex flex-1 flex-col">
      <JobHead open={open} />
      <LeftOut job={job} />
      <div className="grid flex-1 md:grid-cols-[260px_1fr] xl:grid-cols-[290px_1fr_320px] lg:grid-cols-[270px_1fr_290px]">
        <nav aria-label="Traveller" className="border-b border-rule p-4 md:border-r md:border-b-0 md:p-5">
          <TravellerGrid
            stages={stages}
            columns={job.wheelEnds.map((w) => ({ position: w.position, cells: cells(w) }))}
            at={{ stage: viewed ?? stage, position }}
            onSelect={select}
          />
          <p className="py-3 text-13 text-muted">{whoWorks(job)}</p>
          <StackPanel wheelEnd={wheelEnd} />
          <div className="h-4" />
          <Button className="mb-3 w-full" onClick={switchBay}>
            Bay view
          </Button>
          {(may(open.person.role, 'see-stores') ? (['parts', 'money'] as const) : (['money'] as const)).map(
            (of) => (
              <Button
                key={of}
                className="mb-3 w-full"
                aria-pressed={view === of}
                onClick={() => turnTo(view === of ? null : of)}
              >
                {of === 'money' ? 'Estimate and bill' : 'Parts'}
              </Button>
            ),
          )}
          {!job.stopped && may(open.person.role, 'work-on-jobs') && <HoldBar open={open} />}
          <PaperLinks open={open} />
        </nav>
        {center}
        <WhatHolds open={open} wheelEnd={wheelEnd} />
      </div>
    </main>
  );
}

/** A job: its traveller, the one step at hand, and what holds for it. */
export function JobPage() {
  const { id = '' } = useParams();
  const { open, error } = useOpenJob(id);
  if (open) return <JobView key={id} open={open} />;
  return (
    <div className="p-5">
      {error ? <Note tone="trouble">{problemText(error)}</Note> : <p className="text-muted">Opening.</p>}
    </div>
  );
}
