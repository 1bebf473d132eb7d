import { axleNumber, type PlacedAxle } from '@lanternwright/core/axle-plan';
import { billSchema, billTotals, estimateOf, type EstimatedEnd, type Rates } from '@lanternwright/core/cost';
import { addDays } from '@lanternwright/core/interval';
import type { Work } from '@lanternwright/core/stack';
import { linesOfWork } from '@lanternwright/core/traveller';
import type { MeasuredTime } from '@lanternwright/core/work-plan';
import { AHEAD_MOST, type AheadUnit, type OwnAhead } from '@lanternwright/contract/estimates';
import type { Database } from '../database/connect.ts';
import { placedAxles } from '../fleet/axle-sql.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { UNIT_HEAD } from '../plan/bookings.ts';
import { dueOfUnit } from '../plan/due-sql.ts';
import type { ShopAhead } from '../plan/shop-ahead.ts';
import type { Clock } from '../shop/clock.ts';
import { pricesOf, type LineOfSheet } from './prices.ts';
import type { RatesService } from './rates.ts';

/** How far an owner looks ahead: half a year. */
const DAYS_AHEAD = 183;

/** SQL: open jobs of some owners ($1), the newest first, with the estimate that is not answered where there is one. */
const JOBS = `
  select j.id as "jobId", j.number, j.title, j.stopped, j.estimate, ${UNIT_HEAD} as unit,
    jsonb_array_length(j.wheel_ends) as "wheelEnds",
    (select count(*) ::int from jsonb_array_elements(j.wheel_ends) w where (w ->> 'released') ::boolean) as released,
    (select ${isoTime('max(upper(b.during))')} from booking b where b.job_id = j.id and not b.cancelled) as expected,
    asked.bill, asked.at
  from job j join unit u on u.id = j.unit_id join owner o on o.id = u.owner_id
  left join lateral (
    select e.body -> 'bill' as bill, ${isoTime('e.at')} as at from entry e
    where j.estimate = 'asks' and e.stream = 'job' and e.stream_id = j.id ::text
      and e.body ->> 'kind' = 'bill-written' and e.body ->> 'as' = 'estimate'
    order by e.version desc limit 1) asked on true
  where j.closed_at is null and o.id = any($1 ::uuid[])
  order by j.opened_at desc, j.number desc limit ${AHEAD_MOST}`;

/** SQL: units of some owners ($1) on which something is due until a day ($2), the first due first, and how many there are. */
const DUE = `
  with ahead as (
    select d.unit_id, d.due_on from unit_due d join unit u on u.id = d.unit_id
    where u.owner_id = any($1 ::uuid[]) and d.due_on <= $2 ::date)
  select ${UNIT_HEAD} as unit, to_char(d.due_on, 'YYYY-MM-DD') as "dueOn", (select count(*) ::int from ahead) as units,
    ${dueOfUnit('u.id', 'd.due_on <= $2 ::date')} as due,
    ${placedAxles('u.id')} as axles,
    (select ${isoTime('min(lower(b.during))')} from booking b
      where b.unit_id = u.id and not b.cancelled and upper(b.during) > $3 ::timestamptz) as "bookedFrom",
    (select w.open_job_id from wheel_end w where w.unit_id = u.id and w.open_job_id is not null limit 1) as "openJobId"
  from (select * from ahead order by due_on, unit_id limit ${AHEAD_MOST}) d
  join unit u on u.id = d.unit_id join owner o on o.id = u.owner_id order by d.due_on, u.name, u.id`;

type JobRow = OwnAhead['inShop'][number] & { estimate: string; bill: unknown; at: string | null };
type DueRow = Pick<AheadUnit, 'unit' | 'dueOn' | 'bookedFrom' | 'openJobId'> & {
  units: number;
  due: AheadUnit['due'];
  axles: PlacedAxle[];
};
type PartLine = LineOfSheet & { title: string; work: Work };

/** Parts of works by how an axle is built: worked out once for all that are built alike. */
function partsOfAxles() {
  const known = new Map<string, PartLine[]>();
  return (axle: PlacedAxle, work: Work): PartLine[] => {
    const { sheet, role, brake, wheels } = axle;
    const key = JSON.stringify([sheet.sheetId, sheet.revision, role, brake, wheels, work]);
    let found = known.get(key);
    if (!found) {
      found = linesOfWork(axle, [work])
        .filter((l) => l.group === 'part')
        .map((l) => ({ sheet: sheet.sheetId, line: l.what, title: l.title ?? l.what, work }));
      known.set(key, found);
    }
    return found;
  };
}

/** Wheel ends of a unit with what is due there; a part that several works need is one. */
function endsOf({ due, axles }: DueRow, partsOf: ReturnType<typeof partsOfAxles>) {
  return [...new Set(due.map((d) => d.position))].map((position) => {
    const works = due.filter((d) => d.position === position).map((d) => d.work);
    const axle = axles.find((a) => a.number === axleNumber(position));
    const lines = axle ? works.flatMap((work) => partsOf(axle, work)) : [];
    const parts = [...new Set(lines.map((l) => l.line))].map((line) => {
      const same = lines.filter((l) => l.line === line);
      return { ...same[0]!, works: same.map((l) => l.work) };
    });
    return { position, works, parts };
  });
}

function costOf(
  row: DueRow,
  ends: readonly EstimatedEnd[],
  { measured, rates }: { measured: readonly MeasuredTime[]; rates: Rates },
): AheadUnit {
  const { unit, dueOn, due, bookedFrom, openJobId } = row;
  const bill = estimateOf(ends, { kind: unit.kind, measured, rates });
  const hours = bill.lines.reduce((sum, l) => sum + (l.group === 'labour' ? l.quantity : 0), 0);
  const total =
    rates.hourMinor === null ? null : { currency: rates.currency, minor: billTotals(bill).totalMinor };
  const unpriced = ends.flatMap((e) => e.parts).filter((p) => p.minor === null).length;
  return { ...{ unit, dueOn, bookedFrom, openJobId, hours, total, unpriced }, due: due.map(lineOf) };
}

const lineOf = ({ position, work, dueOn }: AheadUnit['due'][number]) => ({ position, work, dueOn });

/** What waits for the answer of some owners, where their units stand, and what is due on them in half a year. */
export async function ownAhead(
  { db, ahead, rates }: { db: Database; ahead: Pick<ShopAhead, 'measured'>; rates: RatesService },
  owners: readonly string[],
  clock: Clock,
): Promise<OwnAhead> {
  const until = addDays(clock.today(), DAYS_AHEAD);
  // One after another: what a contact reads is read in one transaction.
  const jobs = await prepared<JobRow>(db, 'own-jobs', JOBS, [owners]);
  const rows = await prepared<DueRow>(db, 'own-due', DUE, [owners, until, clock.now().toISOString()]);
  const own = await rates.current();
  const { validDays } = own;
  const charged = rates.inCurrency(own);
  const measured = await ahead.measured();
  const partsOf = partsOfAxles();
  const ends = rows.map((row) => endsOf(row, partsOf));
  const lines = ends.flat().flatMap((e) => e.parts.map(({ sheet, line }) => ({ sheet, line })));
  const distinct = [...new Map(lines.map((l) => [`${l.sheet} ${l.line}`, l])).values()];
  const priceOf = await pricesOf(db, distinct, charged.currency);
  const priced = ends.map((of) =>
    of.map((e) => ({ ...e, parts: e.parts.map((p) => ({ ...p, minor: priceOf(p) })) })),
  );
  return {
    asks: jobs.flatMap(({ jobId, number, title, unit, bill, at }) => {
      if (at === null) return [];
      const written = billSchema.parse(bill);
      const total = { currency: written.currency, minor: billTotals(written).totalMinor };
      const last = validDays === null ? null : addDays(clock.dayOf(at), validDays);
      return [{ ...{ jobId, number, title, unit, total }, writtenAt: at, until: last }];
    }),
    inShop: jobs.map(({ jobId, number, title, unit, wheelEnds, released, stopped, expected }) => ({
      ...{ jobId, number, title, unit, wheelEnds, released, stopped, expected },
    })),
    until,
    due: rows.map((row, i) => costOf(row, priced[i]!, { measured, rates: charged })),
    dueUnits: rows[0]?.units ?? 0,
  };
}
