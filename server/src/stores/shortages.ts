import { QueryTypes } from 'sequelize';
import type { PlacedAxle } from '@lanternwright/core/axle-plan';
import {
  bySize,
  forecastStock,
  type Part,
  type PartArrival,
  type PartComing,
  type PartDemand,
} from '@lanternwright/core/part';
import { addDays } from '@lanternwright/core/interval';
import { jobAggregate, replay } from '@lanternwright/core/record';
import type { Work } from '@lanternwright/core/stack';
import { linesOfWork, partsWanted } from '@lanternwright/core/traveller';
import type { PartLine, Shortage } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { keptWhileStill } from '../database/kept-while-still.ts';
import { PLACED_AXLE } from '../fleet/axle-sql.ts';
import { entriesOfAll } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';
import { PART_LINE } from './search.ts';

/** How far ahead it is looked, days: longer than most parts take to come. */
const AHEAD_DAYS = 56;
/** Open jobs that are looked into; a shop has far fewer. */
export const MOST_JOBS = 400;

interface DueWork {
  works: Work[];
  date: string;
  count: number;
  units: string[];
  axle: PlacedAxle;
}

/**
 * SQL: work that comes due until $1, as many wheel ends of one sheet on one day to a row, by the day its unit is booked
 * for where it is. Wheel ends in an open job are not among them: their job says what it needs. $2 is the shop's zone.
 */
const DUE_WORK = `
  with booked as (
    select unit_id, (min(lower(during)) at time zone $2) ::date as day from booking
    where not cancelled and job_id is null and lower(during) > now() group by unit_id
  ), ends as (
    select d.axle_id, d.position, d.unit_id, array_agg(d.work order by d.work) as works,
      coalesce(min(b.day), min(d.due_on)) as day
    from due d left join booked b on b.unit_id = d.unit_id
    where d.due_on <= $1 ::date
      and not exists (select 1 from wheel_end w
        where w.axle_id = d.axle_id and w.position = d.position and w.open_job_id is not null)
    group by d.axle_id, d.position, d.unit_id
  ), kinds as (
    select (array_agg(a.id))[1] as id, e.works, e.day, count(*) ::int as count, array_agg(distinct u.name) as units
    from ends e join axle a on a.id = e.axle_id and a.taken_out_at is null join unit u on u.id = e.unit_id
    where e.day <= $1 ::date
    group by a.sheet ->> 'sheetId', a.sheet ->> 'revision', a.role, a.brake, e.works, e.day
  )
  select k.works, to_char(k.day, 'YYYY-MM-DD') as date, k.count, k.units,
    ${PLACED_AXLE} as axle
  from kinds k join axle a on a.id = k.id`;

/** SQL: open jobs with the day they stand in a bay; $1 is the shop's zone. */
const OPEN = `
  select j.id, u.name as unit,
    to_char((select min(lower(b.during)) from booking b where b.job_id = j.id and not b.cancelled) at time zone $1,
      'YYYY-MM-DD') as day
  from job j join unit u on u.id = j.unit_id where j.closed_at is null order by j.opened_at desc limit ${MOST_JOBS}`;

const FITS = `
  select ${PART_LINE}, p.part, p.part -> 'fits' as fits from part p
  where (jsonb_array_length(p.part -> 'fits') > 0 or p.reserved > 0) and (p.part ->> 'supersededBy' is null or p.on_hand > 0)`;

const KEPT = `
  select r.part_id as "partId", r.job_id as "jobId", r.position, r.line, r.quantity from reservation r`;

export interface Coming extends Omit<PartComing, 'late'> {
  partId: string;
  quantity: number;
}
/** SQL: what is on its way, part by part, with the day it is promised for; where nobody promised, from its lead time. $1 is the shop's zone. */
export const COMING = `
  select (l ->> 'partId') ::uuid as "partId", o.id as "orderId", o.number as "orderNumber",
    (l ->> 'quantity') ::int - (l ->> 'delivered') ::int as quantity,
    to_char(coalesce(o.expected, (o.sent_at at time zone $1) ::date + coalesce((p.part ->> 'leadDays') ::int, 0)), 'YYYY-MM-DD')
      as expected
  from purchase o cross join jsonb_array_elements(o.lines) l join part p on p.id = (l ->> 'partId') ::uuid
  where o.status = 'sent' and l ->> 'ended' is null and (l ->> 'quantity') ::int > (l ->> 'delivered') ::int
  order by 4, o.number`;

type Fitting = PartLine & { part: Part };
/** What an open job wants, or what is due. */
type Demand = PartDemand & { jobId?: string };

/** The parts of one line that are taken: of each size the one of which most are free. */
const chosen = (fitting: readonly Fitting[]): Fitting[] =>
  bySize(fitting, (p) => p.part.dims).map((parts) =>
    parts.reduce((a, b) => (b.onHand - b.reserved > a.onHand - a.reserved ? b : a)),
  );

/** What is due in a fleet of thousands takes so long to look through, and changes by the day. */
const LONG_MS = 300;
const KEPT_MS = 5 * 60_000;

/** An answer that many wait for is worked out once; one that took long is kept for a while. */
export function keptWhereSlow<T>(work: () => Promise<T>, now = () => performance.now()): () => Promise<T> {
  let answer: Promise<T> | null = null;
  return () => {
    if (answer) return answer;
    const began = now();
    const own = work();
    const forget = () => {
      if (answer === own) answer = null;
    };
    answer = own;
    own.then(() => {
      if (now() - began < LONG_MS) forget();
      else setTimeout(forget, KEPT_MS).unref();
    }, forget);
    return own;
  };
}

/** Which parts will be short, on which day, and until when they can be ordered. */
export function shortagesService(db: Database, clock: Clock): () => Promise<Shortage[]> {
  const dueWork = keptWhereSlow(() =>
    db.sequelize.query<DueWork>(DUE_WORK, {
      type: QueryTypes.SELECT,
      bind: [addDays(clock.today(), AHEAD_DAYS), clock.zone()],
    }),
  );
  const kept = keptWhileStill(() => shortagesOf(db, clock, dueWork));
  return () => kept(db, clock.today());
}

async function shortagesOf(
  db: Database,
  clock: Clock,
  dueWork: () => Promise<DueWork[]>,
): Promise<Shortage[]> {
  const today = clock.today();
  const ask = <T extends object>(sql: string, bind: unknown[]) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });
  const parts = await ask<Fitting>(FITS, []);
  if (parts.length === 0) return [];
  const due = await dueWork();
  const open = await ask<{ id: string; unit: string; day: string | null }>(OPEN, [clock.zone()]);
  const kept = await ask<{ partId: string; jobId: string; position: string; line: string; quantity: number }>(
    KEPT,
    [],
  );
  const coming = await ask<Coming>(COMING, [clock.zone()]);
  const entries = await entriesOfAll(
    db,
    'job',
    open.map((j) => j.id),
  );
  const ofLine = new Map<string, Fitting[]>();
  for (const part of parts)
    for (const { sheetId, line } of part.part.fits)
      ofLine.set(`${sheetId} ${line}`, [...(ofLine.get(`${sheetId} ${line}`) ?? []), part]);
  const demands = new Map<string, Demand[]>(parts.map((p) => [p.id, []]));
  const want = (sheetId: string, line: string, demand: Demand) => {
    for (const { id } of chosen(ofLine.get(`${sheetId} ${line}`) ?? [])) demands.get(id)?.push(demand);
  };

  const known = new Map<string, ReturnType<typeof linesOfWork>>();
  /** The same works on the same sheet need the same, on whatever day. */
  const linesOf = (axle: PlacedAxle, works: readonly Work[]) => {
    const key = [axle.sheet.sheetId, axle.sheet.revision, axle.role, axle.brake, ...works].join(' ');
    const lines = known.get(key) ?? linesOfWork(axle, works);
    known.set(key, lines);
    return lines;
  };
  for (const { works, date, count, units, axle } of due) {
    const what = units.length > 3 ? `${units.slice(0, 3).join(', ')} and others` : units.join(', ');
    for (const line of linesOf(axle, works))
      if (line.group === 'part') want(axle.sheet.sheetId, line.what, { date, quantity: count, what });
  }
  for (const { id, unit, day } of open) {
    const date = day ?? today;
    const own = kept.filter((k) => k.jobId === id);
    for (const { partId, quantity } of own)
      demands.get(partId)?.push({ date, quantity, what: unit, jobId: id });
    for (const w of replay(jobAggregate, entries.get(id) ?? [])?.wheelEnds ?? [])
      for (const { what: line } of partsWanted(w))
        if (!own.some((k) => k.position === w.position && k.line === line))
          want(w.sheet.sheetId, line, { date, quantity: 1, what: unit, jobId: id });
  }
  return parts
    .map(({ part, ...line }): Shortage => {
      const wanted = demands.get(line.id) ?? [];
      const onOrder = coming
        .filter((c) => c.partId === line.id)
        .map(({ orderId, orderNumber, quantity, expected }) => ({
          ...{ orderId, orderNumber, quantity, expected },
          late: expected < today,
        }));
      // What is late has no day that could be counted on.
      const inTime = onOrder.filter((o) => !o.late);
      const arrivals = inTime.map((o) => ({ date: o.expected, quantity: o.quantity }));
      const forecast = forecastStock({
        ...{ today, onHand: line.onHand, demands: wanted, arrivals, leadDays: part.leadDays },
      });
      const holdsUp = onOrder.some((o) => o.late)
        ? heldUp(wanted, { onHand: line.onHand, arrivals }, today)
        : [];
      return {
        ...{ part: line, leadDays: part.leadDays, ...forecast, onOrder },
        ...{ demands: byDay(wanted, today), holdsUp },
      };
    })
    .filter((s) => s.shortOn !== null)
    .sort((a, b) => (a.orderBy ?? a.shortOn!).localeCompare(b.orderBy ?? b.shortOn!));
}

/** Open jobs for which nothing is left once those before them have theirs; on one day a job comes before what is due. */
function heldUp(
  demands: readonly Demand[],
  stock: { onHand: number; arrivals: readonly PartArrival[] },
  today: string,
): Shortage['holdsUp'] {
  const day = (date: string) => (date < today ? today : date);
  const inOrder = [...demands].sort(
    (a, b) => day(a.date).localeCompare(day(b.date)) || Number(!a.jobId) - Number(!b.jobId),
  );
  const jobs = new Map<string, Shortage['holdsUp'][number]>();
  let wanted = 0;
  for (const { jobId, what, quantity, date } of inOrder) {
    wanted += quantity;
    const come = stock.arrivals.reduce((n, a) => n + (a.date <= day(date) ? a.quantity : 0), stock.onHand);
    if (jobId && wanted > come) jobs.set(jobId, { jobId, unit: what, date: day(date) });
  }
  return [...jobs.values()];
}

/** Demands by day, one line a day. */
function byDay(demands: readonly PartDemand[], today: string): PartDemand[] {
  const days = new Map<string, { quantity: number; units: Set<string> }>();
  for (const { date, quantity, what } of demands) {
    const day = date < today ? today : date;
    const known = days.get(day) ?? { quantity: 0, units: new Set<string>() };
    days.set(day, { quantity: known.quantity + quantity, units: known.units.add(what) });
  }
  return [...days]
    .map(([date, { quantity, units }]) => ({ date, quantity, what: [...units].join(', ') }))
    .sort((a, b) => a.date.localeCompare(b.date));
}
