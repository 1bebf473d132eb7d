import { lazy, Suspense, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { FollowUp, UnitDetail } from '@lanternwright/contract/fleet';
import { axleAt, axleRoles, unitKinds } from '@lanternwright/core/axle-plan';
import { constructions, sheetLines, sheetSources, type Sheet } from '@lanternwright/core/procedure';
import { mayRollInYard } from '@lanternwright/core/traveller';
import { describeLeft } from './describe-left.ts';
import { usualGrowth } from '@lanternwright/core/wear';
import { PageProblem } from '../form-problem.tsx';
import { playDigits, formatDate, formatGrowth, formatMeter, formatPlay } from '../shell/words.ts';
import { useMay } from '../people/people-api.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';
import { DueBy, followUpWords } from '../jobs/due-by.tsx';
import { DutyPanel } from './duty-panel.tsx';
import { RemarksPanel } from './remarks-panel.tsx';
import { DuePanel } from './due-panel.tsx';
import { MetersPanel } from './meters-panel.tsx';
import { useUnitQuery } from './fleet-api.ts';
import { UnitCosts } from './unit-costs.tsx';
import { UnitVisits } from './unit-visits.tsx';
import { UnitJobs } from './unit-jobs.tsx';
import { promiseLink, worksAsked } from '../jobs/job-link.ts';
import { useReader } from '../shell/use-reader.ts';

const ReadingsChart = lazy(() => import('./readings-chart.tsx').then((m) => ({ default: m.ReadingsChart })));
const NewJob = lazy(() => import('../jobs/new-job.tsx').then((m) => ({ default: m.NewJob })));

function SheetPanel({ sheet }: { sheet: Sheet }) {
  const reader = useReader();
  const lines = sheetLines(sheet, reader);
  const sources = sheetSources(lines);
  return (
    <section>
      <h2 className="text-16">{sheet.title}</h2>
      <p className="caption pb-2">
        Family {sheet.family}, {constructions[sheet.family].toLowerCase()}, revision {sheet.revision}
      </p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5 text-14">
        {lines.map((l) => (
          <div key={l.label} className="contents">
            <dt className="text-muted">{l.label}</dt>
            <dd className="figure">{l.value}</dd>
          </div>
        ))}
      </dl>
      <ul className="pt-2 text-12 text-muted">
        {sources.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
    </section>
  );
}

function FollowUps({ followUps }: { followUps: readonly FollowUp[] }) {
  if (followUps.length === 0) return null;
  return (
    <section>
      <h2 className="pb-1 text-16">Follow up</h2>
      <ul>
        {followUps.map((f) => (
          <li key={`${f.jobId}${f.position}${f.kind}${f.nth}`} className="border-b border-rule">
            <Link
              to={`/jobs/${f.jobId}?at=${f.position}`}
              className="flex min-h-12 items-center justify-between gap-3 hover:bg-panel"
            >
              <span>
                {followUpWords[f.kind]} {f.position}
                {f.what && <span className="block text-13 text-muted">{f.what}</span>}
              </span>
              <DueBy due={f} />
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Axles that stood under the unit once, each with what it was last measured at. */
function TakenOut({ unit: { takenOut } }: { unit: UnitDetail }) {
  const shown = useReader().length;
  if (takenOut.length === 0) return null;
  return (
    <section>
      <h2 className="pb-1 text-16">Axles taken out</h2>
      <ul>
        {takenOut.map(({ axle, takenOutAt, readings }) => (
          <li key={axle.id} className="border-b border-rule py-2 text-14">
            Axle {axle.number}, {axleRoles[axle.role].toLowerCase()}
            <span className="block text-12 text-muted">
              taken out {formatDate(takenOutAt)}
              {(['L', 'R'] as const).map((side) => {
                const last = readings.findLast((r) => r.position === `${axle.number}${side}`);
                return last && `, ${last.position} last ${formatPlay(last.endPlayMm, shown)}`;
              })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The wheel end to show first: one that wants attention, else the one read last. */
function firstToLookAt({ wheelEnds }: UnitDetail): string {
  const newestFirst = [...wheelEnds].sort((a, b) => (b.readAt ?? '').localeCompare(a.readAt ?? ''));
  const wanting = newestFirst.find((w) => w.state !== 'in-band' && w.state !== 'not-measured');
  return (wanting ?? newestFirst[0])?.position ?? '1L';
}

function Unit({ unit }: { unit: UnitDetail }) {
  const reader = useReader();
  const shown = reader.length;
  const able = useMay();
  const [params, setParams] = useSearchParams();
  const asked = worksAsked(params);
  const [opening, setOpening] = useState(asked !== null);
  const closeNew = () => {
    setOpening(false);
    // Opened again from this page, a job is for what is chosen then.
    if (asked) setParams({ at: position }, { replace: true });
  };
  const position = params.get('at') ?? firstToLookAt(unit);
  const wheelEnd = unit.wheelEnds.find((w) => w.position === position) ?? unit.wheelEnds[0]!;
  const axle = axleAt(unit.axles, wheelEnd.position)!;
  const readings = unit.readings.filter((r) => r.position === wheelEnd.position);
  const growth = usualGrowth(readings);
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-4 border-b border-rule px-5 py-4">
        <div>
          <h1 className="text-23">{unit.name}</h1>
          <p className="text-13 text-muted">
            {unitKinds[unit.kind]} · {unit.owner.name}
            {unit.plate && ` · ${unit.plate}`} · {formatMeter(unit.meterKm, unit.hours, reader)}
            {unit.meterDate && ` on ${formatDate(unit.meterDate)}`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {able('change-fleet') && (
            <Link to={`/fleet/${unit.id}/axles`} className={buttonLook('plain')}>
              Change axles
            </Link>
          )}
          {unit.openJobId && (
            <Link to={`/jobs/${unit.openJobId}`} className={buttonLook('plain')}>
              Go to its open job
            </Link>
          )}
          {able('plan-work') && (
            <Link to={promiseLink(unit.id)} className={buttonLook('plain')}>
              Find a time
            </Link>
          )}
          {able('open-jobs') && (
            <Button weight="main" onClick={() => setOpening(true)}>
              Open a job
            </Button>
          )}
        </div>
      </div>
      <div className="grid lg:grid-cols-[1fr_340px]">
        <div className="flex min-w-0 flex-col gap-6 p-5">
          <div className="overflow-x-auto">
            <AxlePlan
              size="large"
              axles={unit.axles}
              wheelEnds={unit.wheelEnds.map((w) => ({
                ...w,
                note: w.endPlayMm === null ? undefined : playDigits(w.endPlayMm, shown),
              }))}
              selected={wheelEnd.position}
              onSelect={(at) => setParams({ at }, { replace: true })}
              label={`Axle plan of ${unit.name}, front to the left`}
            />
          </div>
          <section className="flex flex-col gap-2">
            <h2 className="flex flex-wrap items-center gap-x-3 gap-y-1 text-18">
              <StateMark state={wheelEnd.state} size={20} />
              {wheelEnd.position}, {stateWords[wheelEnd.state]}
              {wheelEnd.endPlayMm !== null && (
                <span className="figure text-16 font-normal">{formatPlay(wheelEnd.endPlayMm, shown)}</span>
              )}
              {wheelEnd.readAt && (
                <span className="text-13 font-normal text-muted">
                  last read {formatDate(wheelEnd.readAt)}
                </span>
              )}
            </h2>
            {wheelEnd.left && (wheelEnd.left.length > 0 || !wheelEnd.outOfService) && (
              <p className="text-14 text-rust">{describeLeft(wheelEnd.left)} The next job begins with it.</p>
            )}
            {wheelEnd.outOfService && (
              <Note tone="trouble">
                Out of service for the road: {wheelEnd.outOfService}.{' '}
                {mayRollInYard(wheelEnd.outOfService)
                  ? 'A job with thicker linings settles it.'
                  : 'It never rolls on this axle until a job has settled that.'}
              </Note>
            )}
            <Suspense fallback={<div className="h-[276px]" />}>
              <ReadingsChart readings={readings} band={axle.sheet.band} />
            </Suspense>
            {growth && (
              <p className="text-14">
                Grows by {formatGrowth(growth.mmPer10000Km, reader)}
                {growth.settings === 1
                  ? ', from one setting.'
                  : `, the middle of ${growth.settings} settings.`}
              </p>
            )}
          </section>
          <UnitVisits key={wheelEnd.position} id={unit.id} position={wheelEnd.position} />
          <UnitJobs jobs={unit.jobs} />
        </div>
        <aside className="flex flex-col gap-6 border-t border-rule bg-side p-5 lg:border-t-0 lg:border-l">
          <DuePanel unitId={unit.id} due={unit.due} />
          <DutyPanel unit={unit} />
          <RemarksPanel unit={unit} />
          <FollowUps followUps={unit.followUps} />
          <MetersPanel unitId={unit.id} km={unit.meterKm} hours={unit.hours} />
          {able('see-prices') && <UnitCosts unitId={unit.id} />}
          <SheetPanel sheet={axle.sheet} />
          <TakenOut unit={unit} />
        </aside>
      </div>
      <Suspense>{opening && <NewJob {...{ unit, asked }} onClose={closeNew} />}</Suspense>
    </main>
  );
}

/** One unit: its axle plan, and for the chosen wheel end its sheet, readings and history. */
export function UnitPage() {
  const { id = '' } = useParams();
  const { data, error } = useUnitQuery(id);
  if (error) return <PageProblem error={error} />;
  return data ? <Unit key={data.id} unit={data} /> : <p className="p-5 text-muted">Opening.</p>;
}
