import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { UnitSummary } from '@lanternwright/contract/fleet';
import type { JobSummary } from '@lanternwright/contract/jobs';
import type { Booked, Floor } from '@lanternwright/contract/plan';
import { describeWorks } from '@lanternwright/core/work-plan';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { problemText } from '../api.ts';
import { StageStrip, standWords } from '../jobs/stage-strip.tsx';
import { useFollowUpsQuery } from '../jobs/jobs-api.ts';
import { jobLink } from '../jobs/job-link.ts';
import { useMay, useShop } from '../people/people-api.ts';
import { formatClock, formatWeekday } from '../shell/words.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { BookingForm, type Wanted } from './booking-soon.tsx';
import { ComingIn, Decide, FollowUp, PartsShort } from './floor-side.tsx';
import { expected, standing, standsSince, waitsFor, withoutBay } from './floor-state.ts';
import { useFloorQuery, useSayWhereMutation } from './plan-api.ts';

const NotLeft = lazy(() => import('./arrivals.tsx').then((m) => ({ default: m.NotLeft })));
const Expected = lazy(() => import('./arrivals.tsx').then((m) => ({ default: m.Expected })));

const numberWords = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** The wheel end that a lane speaks of: one in trouble, else the one that is farthest behind. */
const atHand = ({ wheelEnds }: JobSummary) =>
  wheelEnds.find((w) => w.trouble && !w.released) ?? wheelEnds.find((w) => !w.released) ?? wheelEnds[0];

function Work({ job, unit }: { job: JobSummary; unit: UnitSummary | undefined }) {
  const wheelEnd = atHand(job);
  const waits = waitsFor(job);
  return (
    <Link
      to={`/jobs/${job.id}`}
      className="grid min-h-[84px] items-center gap-x-5 gap-y-1 rounded-md py-2 hover:bg-side sm:grid-cols-[190px_1fr_auto] wall:grid-cols-[300px_1fr_auto]"
    >
      <span className="min-w-0">
        <span className="block truncate text-16 font-semibold wall:text-26">{job.unit.name}</span>
        <span className="block truncate text-13 text-muted wall:text-18">
          {unitKinds[job.unit.kind]}. {job.title}
        </span>
      </span>
      {wheelEnd && (
        <span className="flex min-w-0 flex-col gap-1.5">
          <StageStrip wheelEnd={wheelEnd} />
          <span
            className={`text-13 wall:text-18 ${wheelEnd.trouble || waits ? 'font-semibold text-rust' : ''}`}
          >
            {wheelEnd.position} {standWords(wheelEnd).toLowerCase()}
            {waits && `; ${waits}`}
            {wheelEnd.who && <span className="font-normal text-muted">, {wheelEnd.who}</span>}
          </span>
        </span>
      )}
      {unit && (
        <span className="hidden lg:block wall:scale-125">
          <AxlePlan axles={unit.axles} wheelEnds={unit.wheelEnds} label={`Axle plan of ${unit.name}`} />
        </span>
      )}
    </Link>
  );
}

interface LaneProps {
  bay: { id: string; name: string };
  floor: Floor;
  now: string;
  put: () => void;
  move: (booked: Booked) => void;
}

/** One bay: what stands in it since when and how it comes along; or that it is free, and until when. */
function Lane({ bay, floor, now, put, move }: LaneProps) {
  const able = useMay();
  const [sayWhere, { isLoading, error }] = useSayWhereMutation();
  // Two may be said to stand in one bay: of the first nobody said yet that it left.
  const standingHere = standing(floor, now).filter((b) => b.bayId === bay.id);
  const [here, notLeft] = [standingHere.at(-1), standingHere.slice(0, -1)];
  const due = expected(floor, now).filter((b) => b.bayId === bay.id);
  const next = floor.bookings.find((b) => b.bayId === bay.id && b.from > now);
  const job = here && floor.jobs.find((j) => j.id === here.jobId);
  const unit = here && floor.units.find((u) => u.id === here.unitId);
  const lit = job && (waitsFor(job) !== null || job.wheelEnds.some((w) => w.trouble && !w.released));
  return (
    <li
      className={`grid gap-x-4 border-b border-rule px-5 py-1 md:grid-cols-[110px_1fr_auto] md:items-center wall:grid-cols-[190px_1fr_auto] ${lit ? 'bg-linear-to-r from-lamp to-transparent' : ''}`}
    >
      <div className="py-2">
        <h2 className="text-16 wall:text-26">{bay.name}</h2>
        {here && <p className="text-13 text-muted wall:text-18">since {formatClock(standsSince(here))}</p>}
        {here && here.until < now && (
          <p className="text-13 font-semibold text-rust wall:text-18">
            booked until {formatClock(here.until)}
          </p>
        )}
      </div>
      {job ? (
        <Work job={job} unit={unit} />
      ) : here ? (
        <div className="flex min-h-[84px] flex-wrap items-center justify-between gap-3">
          <Link to={`/fleet/${here.unitId}`} className="min-h-12 grow rounded-md py-2 hover:bg-side">
            <span className="block text-16 font-semibold wall:text-26">{here.unit.name}</span>
            <span className="block text-13 text-muted wall:text-18">
              {describeWorks(here.works) || 'No work chosen'}. No job is open yet
            </span>
          </Link>
          {able('open-jobs') && (
            <Link
              to={jobLink(here.unitId, here.works, here.id)}
              className={`${buttonLook('plain')} wall:hidden`}
            >
              Open the job
            </Link>
          )}
        </div>
      ) : due.length > 0 ? (
        <Suspense fallback={<div className="min-h-16" />}>
          <Expected booked={due[0]!} move={move} />
        </Suspense>
      ) : (
        <p className="min-h-12 py-3 text-14 font-semibold text-muted wall:text-23">
          Free{next && ` until ${formatClock(next.from)}, then ${next.unit.name}`}
        </p>
      )}
      {able('plan-work') && (
        <div className="flex flex-wrap gap-2 pb-2 md:pb-0 wall:hidden">
          {here ? (
            <>
              <Button weight="quiet" onClick={() => move(here)}>
                Move
              </Button>
              <Button
                weight="quiet"
                disabled={isLoading}
                onClick={() => void sayWhere({ id: here.id, seenVersion: here.version, what: 'end' })}
              >
                Unit has left {bay.name}
              </Button>
            </>
          ) : due.length === 0 ? (
            <Button onClick={put}>Assign a unit</Button>
          ) : null}
        </div>
      )}
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {notLeft.map((b) => (
        <div key={b.id} className="md:col-start-2 md:col-end-4">
          <Suspense fallback={<div className="min-h-16" />}>
            <NotLeft booked={b} />
          </Suspense>
        </div>
      ))}
      {due.slice(here ? 0 : 1).map((b) => (
        <div key={b.id} className="md:col-start-2 md:col-end-4">
          <Suspense fallback={<div className="min-h-16" />}>
            <Expected booked={b} move={move} />
          </Suspense>
        </div>
      ))}
    </li>
  );
}

/** Open jobs that stand in no bay now; one is chosen for a bay. */
function WithoutBay({ floor, now, put }: { floor: Floor; now: string; put: (job: JobSummary) => void }) {
  const able = useMay();
  const jobs = withoutBay(floor, now);
  if (jobs.length === 0) return null;
  return (
    <section aria-label="Open jobs without a bay">
      <h2 className="px-5 pt-5 pb-1 text-16 wall:text-23">Open jobs without a bay</h2>
      <ul>
        {jobs.map((job) => (
          <li
            key={job.id}
            className="grid gap-x-4 border-b border-rule px-5 py-1 md:grid-cols-[1fr_auto] md:items-center"
          >
            <Work job={job} unit={floor.units.find((u) => u.id === job.unit.id)} />
            {able('plan-work') && (
              <Button className="wall:hidden" onClick={() => put(job)}>
                Assign a bay
              </Button>
            )}
          </li>
        ))}
      </ul>
      {floor.moreJobs && (
        <p className="px-5 py-3 text-13">
          <Link to="/jobs" className="underline">
            All open jobs
          </Link>
        </p>
      )}
    </section>
  );
}

function Counts({ floor, bays, now }: { floor: Floor; bays: number; now: string }) {
  const here = standing(floor, now);
  const waiting = here.filter((b) => {
    const job = floor.jobs.find((j) => j.id === b.jobId);
    return job && waitsFor(job) !== null;
  }).length;
  const out = floor.jobs
    .flatMap((j) => j.wheelEnds)
    .filter((w) => !w.released && (w.trouble === 'loose' || w.trouble === 'tight')).length;
  const due = expected(floor, now).length;
  const parts = [
    `${here.length - waiting} working`,
    waiting > 0 && `${waiting} waiting`,
    due > 0 && `${due} expected`,
    `${Math.max(0, bays - here.length)} free`,
  ].filter(Boolean);
  return (
    <p className="text-13 text-muted wall:text-18">
      {parts.join(', ')}.
      {out > 0 && ` ${out === 1 ? '1 wheel end is' : `${out} wheel ends are`} out of band.`}
    </p>
  );
}

/** Choosing what goes into a free bay: a job that is open and stands nowhere. */
function ChooseJob({
  floor,
  now,
  bay,
  onChoose,
  onClose,
}: {
  floor: Floor;
  now: string;
  bay: string;
  onChoose: (job: JobSummary) => void;
  onClose: () => void;
}) {
  const jobs = withoutBay(floor, now);
  return (
    <Note tone="plain">
      <p className="pb-2 font-semibold">What goes into {bay}?</p>
      <div className="flex flex-wrap gap-2">
        {jobs.map((j) => (
          <Button key={j.id} onClick={() => onChoose(j)}>
            {j.unit.name}
          </Button>
        ))}
        {jobs.length === 0 && <span>No open job is without a bay. Open one from a unit in the fleet.</span>}
        <Button weight="quiet" onClick={onClose}>
          Nothing
        </Button>
      </div>
    </Note>
  );
}

/** The shop this morning: what stands in the bays, what waits for a decision, what comes in. */
export function FloorPage() {
  const { data: floor, error } = useFloorQuery(undefined, { pollingInterval: 60_000 });
  const followUps = useFollowUpsQuery({ page: 1 });
  const bays = useShop()?.bays ?? [];
  const able = useMay();
  const wall = useSearchParams()[0].has('wall');
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [choosing, setChoosing] = useState<{ id: string; name: string } | null>(null);
  const now = new Date().toISOString();
  const move = (booked: Booked) => setWanted({ unit: booked.unit, jobId: booked.jobId, booked });
  const again = ({ unit, jobId, works }: Booked) => setWanted({ unit, jobId, works });
  const put = (job: JobSummary, bayId?: string) => {
    setChoosing(null);
    setWanted({ unit: job.unit, jobId: job.id, ...(bayId ? { bayId } : {}) });
  };
  if (error && !floor)
    return (
      <div className="p-5">
        <Note tone="trouble">{problemText(error)}</Note>
      </div>
    );
  // What is looked after stands over what comes in: the page is shown when it knows both.
  if (!floor || followUps.isLoading) return <p className="p-5 text-muted">Opening.</p>;
  return (
    <main
      data-wall={wall || undefined}
      className={`grid ${wall ? 'lg:grid-cols-[1fr_560px]' : 'lg:grid-cols-[1fr_372px]'}`}
    >
      <div className="min-w-0">
        <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule px-5 py-4">
          <h1 className="text-23 wall:text-54">
            {formatWeekday()}, {numberWords[bays.length] ?? bays.length} {bays.length === 1 ? 'bay' : 'bays'}
          </h1>
          <Counts floor={floor} bays={bays.length} now={now} />
          <Link to="/floor/yard" className="ml-auto text-13 underline underline-offset-2 wall:hidden">
            Who is in the yard
          </Link>
          <Link
            to={wall ? '/floor' : '/floor?wall'}
            className="text-13 underline underline-offset-2 wall:ml-auto"
          >
            {wall ? 'With hands' : 'On the wall'}
          </Link>
        </div>
        {bays.length === 0 && (
          <p className="px-5 py-6 text-16 text-muted">
            No bays are named yet.{' '}
            {able('change-settings') && (
              <Link to="/settings" className="underline">
                Name them in the settings of the shop.
              </Link>
            )}
          </p>
        )}
        {choosing && (
          <div className="px-5 py-3">
            <ChooseJob
              {...{ floor, now }}
              bay={choosing.name}
              onChoose={(job) => put(job, choosing.id)}
              onClose={() => setChoosing(null)}
            />
          </div>
        )}
        <ul>
          {bays.map((bay) => (
            <Lane key={bay.id} {...{ bay, floor, now }} put={() => setChoosing(bay)} move={move} />
          ))}
        </ul>
        <WithoutBay {...{ floor, now, put }} />
      </div>
      <aside className="flex flex-col gap-7 border-t border-rule bg-side p-5 lg:border-t-0 lg:border-l">
        <Decide {...{ floor, again }} />
        <FollowUp />
        <ComingIn bookings={floor.bookings} move={move} />
        <PartsShort />
      </aside>
      {wanted && <BookingForm wanted={wanted} people={floor.people} onClose={() => setWanted(null)} />}
    </main>
  );
}
