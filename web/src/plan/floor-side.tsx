import { lazy, Suspense, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { ShopFollowUp } from '@lanternwright/contract/jobs';
import type { Booked, Floor } from '@lanternwright/contract/plan';
import { describeWorks } from '@lanternwright/core/work-plan';
import { DueBy, followUpWords } from '../jobs/due-by.tsx';
import { useFollowUpsQuery } from '../jobs/jobs-api.ts';
import type { LookedAfter } from '../jobs/look-after.tsx';
import { findingsAsked, releasesWaiting } from '../jobs/what-waits.ts';
import {
  formatClock,
  formatDate,
  formatDistance,
  formatHours,
  formatMeter,
  formatPlay,
  shopToday,
} from '../shell/words.ts';
import { useToolsQuery } from '../tools/tools-api.ts';
import { useMay } from '../people/people-api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { useDueQuery, useShortagesQuery } from './plan-api.ts';
import { useReader } from '../shell/use-reader.ts';
import type { ReaderUnits } from '@lanternwright/core/quantity';

const LookAfter = lazy(() => import('../jobs/look-after.tsx').then((m) => ({ default: m.LookAfter })));

const Missed = lazy(() => import('./arrivals.tsx').then((m) => ({ default: m.Missed })));

const ApartLines = lazy(() => import('./apart-lines.tsx').then((m) => ({ default: m.ApartLines })));

/** What is planned moves through the day; what is short of it is looked at now and then. */
const LOOK_MS = 5 * 60_000;

/** A list of the Floor under its heading. */
function FloorPart({ title, more, children }: { title: string; more?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="flex items-baseline justify-between gap-3 border-b border-rule pb-1 text-16 wall:text-23">
        {title}
        {more && <span className="text-13 font-normal">{more}</span>}
      </h2>
      <ul>{children}</ul>
    </section>
  );
}

export interface FloorLineProps {
  to: string;
  act?: string;
  head: string;
  children?: ReactNode;
}

/** One line that leads to its act. */
function FloorLine({ to, act, head, children }: FloorLineProps) {
  return (
    <li className="border-b border-rule">
      <Link to={to} className="flex min-h-12 items-center justify-between gap-3 py-2 hover:bg-panel">
        <span className="min-w-0">
          <span className="block text-14 font-semibold wall:text-18">{head}</span>
          <span className="block text-13 text-muted wall:text-16">{children}</span>
        </span>
        {act && <span className={`${buttonLook('plain')} shrink-0 text-14!`}>{act}</span>}
      </Link>
    </li>
  );
}

const Nothing = ({ children }: { children: ReactNode }) => (
  <li className="py-2 text-13 text-muted wall:text-16">{children}</li>
);

/** What waits for a decision: findings, releases, answers of owners, meters that do not fit. */
export function Decide({
  floor: { jobs, doubted, apart, missed },
  again,
}: {
  floor: Floor;
  again: (booked: Booked) => void;
}) {
  const reader = useReader();
  const leftOut = apart.flatMap(({ outOfBand, ...a }) =>
    outOfBand && a.left.length === 0 ? [{ ...a, outOfBand }] : [],
  );
  const notWhole = apart.filter((a) => !a.outOfBand || a.left.length > 0);
  const asked = findingsAsked(jobs);
  const releases = releasesWaiting(jobs);
  const estimates = jobs.filter((j) => j.estimate === 'asks');
  const { data: short = [] } = useShortagesQuery(undefined, { pollingInterval: LOOK_MS });
  const heldUp = short.flatMap(({ part, onOrder, holdsUp }) => {
    const order = onOrder.find((o) => o.late);
    return order ? holdsUp.map((job) => ({ part, order, job })) : [];
  });
  const none =
    asked.length +
      releases.length +
      estimates.length +
      doubted.length +
      apart.length +
      heldUp.length +
      missed.length ===
    0;
  return (
    <FloorPart title="Decide">
      {none && <Nothing>Nothing waits for a decision.</Nothing>}
      {notWhole.length > 0 && (
        <Suspense>
          <ApartLines apart={notWhole} Line={FloorLine} />
        </Suspense>
      )}
      {leftOut.map(({ unit, position, outOfBand }) => (
        <FloorLine
          key={`${unit.id}${position}`}
          to={`/fleet/${unit.id}?at=${position}`}
          act="Look"
          head={`Left ${outOfBand.verdict}: ${unit.name}, ${position}`}
        >
          {formatPlay(outOfBand.endPlayMm, reader.length)}, read on {formatDate(outOfBand.at)}. No job since.
        </FloorLine>
      ))}
      {missed.length > 0 && (
        <Suspense
          fallback={missed.map((b) => (
            <li key={b.id} className="h-[77px]" />
          ))}
        >
          <Missed missed={missed} again={again} />
        </Suspense>
      )}
      {asked.map(({ job, position, q }) => (
        <FloorLine
          key={`${job.id}${position}${q.component}`}
          to={`/jobs/${job.id}?at=${position}`}
          act="Judge"
          head={`${q.title}, ${job.unit.name} ${position}`}
        >
          {q.seen}. {q.askedBy}
        </FloorLine>
      ))}
      {releases.map(({ job, ends }) => (
        <FloorLine
          key={job.id}
          to={`/jobs/${job.id}/release`}
          act="Release"
          head={`${job.unit.name}, ${ends.map((w) => w.position).join(' and ')}`}
        >
          All is done but the release. {ends[0]!.who}
        </FloorLine>
      ))}
      {estimates.map((job) => (
        <FloorLine key={`e${job.id}`} to={`/jobs/${job.id}`} act="Look" head={`Estimate, ${job.unit.name}`}>
          {job.unit.owner.name} has not answered
        </FloorLine>
      ))}
      {heldUp.map(({ part, order, job }) => (
        <FloorLine
          key={`${part.id}${job.jobId}`}
          to={`/jobs/${job.jobId}?parts=`}
          act="Look"
          head={`Late part, ${job.unit}`}
        >
          {part.number} of order {order.orderNumber} was promised for {formatDate(order.expected)}
        </FloorLine>
      ))}
      {doubted.map((d) => (
        <FloorLine
          key={`${d.unit.id}${d.date}`}
          to={`/fleet/${d.unit.id}`}
          act="Look"
          head={`Meter, ${d.unit.name}`}
        >
          {formatMeter(d.km, d.hours, reader)} on {formatDate(d.date)} does not fit: swapped, set back or
          misread
        </FloorLine>
      ))}
    </FloorPart>
  );
}

const SHOWN = 8;

function overdueBy(due: ShopFollowUp, reader: ReaderUnits): string | null {
  const km = (due.meterKm ?? -Infinity) - (due.byKm ?? Infinity);
  const hours = (due.meterHours ?? -Infinity) - (due.byHours ?? Infinity);
  if (km > 0) return `overdue by ${formatDistance(km, reader)}`;
  return hours > 0 ? `overdue by ${formatHours(hours)}` : null;
}

function HowLate({ due }: { due: ShopFollowUp }) {
  const late = overdueBy(due, useReader());
  return late ? <span className="figure font-semibold text-rust">{late}</span> : <DueBy due={due} />;
}

/** Wheel ends of one job with the same to be done stand together. */
function grouped(rows: readonly ShopFollowUp[]): { due: ShopFollowUp; positions: string[] }[] {
  const groups = new Map<string, { due: ShopFollowUp; positions: string[] }>();
  for (const due of rows) {
    const key = `${due.jobId ?? due.unit.id} ${due.kind} ${due.what}`;
    const group = groups.get(key);
    if (group) group.positions.push(due.position);
    else groups.set(key, { due, positions: [due.position] });
  }
  return [...groups.values()];
}

/** What is to be looked after: retorques, oil levels, what was deferred, calibrations that end. */
export function FollowUp() {
  const able = useMay();
  const [at, setAt] = useState<LookedAfter | null>(null);
  const { data } = useFollowUpsQuery({ page: 1 });
  const { data: tools = [] } = useToolsQuery();
  const today = shopToday();
  const ending = tools
    .flatMap((t) => {
      const until = t.tool.calibratedUntil;
      if (until === null) return [];
      const days = Math.round((Date.parse(until) - Date.parse(today)) / 86_400_000);
      return days <= 30 ? [{ ...t.tool, days }] : [];
    })
    .sort((a, b) => a.days - b.days);
  return (
    <FloorPart
      title="Follow up"
      more={
        data &&
        data.total > SHOWN && (
          <Link to="/jobs/follow-ups" className="underline underline-offset-2">
            all {data.total}
          </Link>
        )
      }
    >
      {data?.total === 0 && ending.length === 0 && <Nothing>Nothing to follow up.</Nothing>}
      {grouped(data?.rows ?? [])
        .slice(0, SHOWN)
        .map(({ due, positions }) => (
          <li
            key={`${due.jobId}${due.position}${due.kind}${due.nth}${due.unit.id}`}
            className="flex items-center gap-3 border-b border-rule"
          >
            <Link
              to={
                due.jobId
                  ? `/jobs/${due.jobId}?at=${due.position}`
                  : `/fleet/${due.unit.id}?at=${due.position}`
              }
              className="min-h-12 min-w-0 grow py-2 hover:bg-panel"
            >
              <span className="block text-14 font-semibold wall:text-18">
                {followUpWords[due.kind]}, {due.unit.name} {positions.join(' ')}
              </span>
              <span className="block text-13 wall:text-16">
                <HowLate due={due} />
              </span>
            </Link>
            {due.jobId && able('work-on-jobs') && (
              <Button
                className="shrink-0 text-14! wall:hidden"
                onClick={() => setAt({ jobId: due.jobId!, unit: due.unit.name, positions })}
              >
                Do it
              </Button>
            )}
          </li>
        ))}
      {ending.slice(0, 4).map((t) => (
        <FloorLine key={t.id} to="/fleet/tools" head={`${t.title} ${t.code}`}>
          {t.days < 0
            ? 'calibration has ended'
            : t.days === 0
              ? 'calibration ends today'
              : `calibration ends in ${t.days} days`}
        </FloorLine>
      ))}
      {at && (
        <Suspense>
          <LookAfter {...at} onClose={() => setAt(null)} />
        </Suspense>
      )}
    </FloorPart>
  );
}

const DAYS_AHEAD = 7;

/** What is booked for today and tomorrow, and what is due and not booked. */
export function ComingIn({
  bookings,
  move,
}: {
  bookings: Floor['bookings'];
  move: (booked: Booked) => void;
}) {
  const able = useMay();
  const { data } = useDueQuery({ page: 1, state: 'known', within: DAYS_AHEAD });
  const now = new Date().toISOString();
  const coming = bookings.filter((b) => b.from > now);
  const waiting = (data?.rows ?? []).filter((r) => r.bookedFrom === null && r.openJobId === null).slice(0, 5);
  return (
    <FloorPart
      title="Arriving"
      more={
        <Link to="/plan" className="underline underline-offset-2">
          weeks ahead
        </Link>
      }
    >
      {coming.map((b) => (
        <li key={b.id} className="flex items-center justify-between gap-3 border-b border-rule">
          <Link to={`/fleet/${b.unitId}`} className="min-h-12 min-w-0 grow py-2 hover:bg-panel">
            <span className="block text-14 font-semibold wall:text-18">
              {b.unit.name}, {formatClock(b.from)}
            </span>
            <span className="block text-13 text-muted wall:text-16">
              {b.cameAt && `In the yard since ${formatClock(b.cameAt)}. `}
              {b.job ? b.job.title : describeWorks(b.works) || 'No job opened'}
              {b.names.length > 0 ? `. ${b.names.join(', ')}` : '. No technician assigned'}
            </span>
          </Link>
          {able('plan-work') && (
            <Button className="shrink-0 text-14! wall:hidden" onClick={() => move(b)}>
              Move
            </Button>
          )}
        </li>
      ))}
      {waiting.map((r) => (
        <FloorLine key={r.unit.id} to={`/plan`} act="Plan" head={`${r.unit.name}, ${r.unit.owner.name}`}>
          {describeWorks(r.due)}. Due since {formatDate(r.dueOn!)}
        </FloorLine>
      ))}
      {data && coming.length + waiting.length === 0 && <Nothing>Nothing is booked or due.</Nothing>}
    </FloorPart>
  );
}

const SHORT_SHOWN = 4;

/** Parts that will be short: those first that have to be ordered first. */
export function PartsShort() {
  const { data } = useShortagesQuery(undefined, { pollingInterval: LOOK_MS });
  if (!data || data.length === 0) return null;
  return (
    <FloorPart
      title="Parts short"
      more={
        <Link to="/stores?by=shortage" className="underline underline-offset-2">
          {data.length > SHORT_SHOWN ? `all ${data.length}` : 'what for'}
        </Link>
      }
    >
      {data.slice(0, SHORT_SHOWN).map(({ part, missing, shortOn, orderBy, late }) => (
        <FloorLine
          key={part.id}
          to="/stores?by=shortage"
          head={`${part.number}, ${missing} short from ${formatDate(shortOn!)}`}
        >
          {part.title}
          {late ? '; ordered today it is late' : orderBy && `; order by ${formatDate(orderBy)}`}
        </FloorLine>
      ))}
    </FloorPart>
  );
}
