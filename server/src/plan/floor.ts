import type { Due } from '@lanternwright/contract/fleet';
import type { DueUnit } from '@lanternwright/contract/plan';
import { JOBS_A_PAGE } from '@lanternwright/contract/jobs';
import { DUE_A_PAGE } from '@lanternwright/contract/plan';
import { dueState } from '@lanternwright/core/interval';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { LEFT, ON_ITS_UNIT, UNIT_SUMMARY } from '../fleet/summary.ts';
import { JsonText } from '../http/serve.ts';
import { jobLines } from '../jobs/job-lines.ts';
import type { Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import { bookedWhere, UNIT_HEAD } from './bookings.ts';
import { dueOfUnit } from './due-sql.ts';

const DOUBTED = `
  select ${UNIT_HEAD} as unit, to_char(m.date, 'YYYY-MM-DD') as date, m.km, m.hours
  from meter_reading m join unit u on u.id = m.unit_id join owner o on o.id = u.owner_id
  where (m.km is not null and m.total_km is null) or (m.hours is not null and m.total_hours is null)
  order by m.date desc limit 8`;

const APART = `
  select ${UNIT_HEAD} as unit, w.position, w.out_of_service ->> 'reason' as "outOfService",
    coalesce(${LEFT}, '[]') as "left",
    case when w.state in ('loose', 'tight') then json_build_object(
      'verdict', w.verdict, 'endPlayMm', w.end_play_mm, 'at', ${isoTime('w.read_at')}) end as "outOfBand"
  from wheel_end w join unit u on u.id = w.unit_id join owner o on o.id = u.owner_id
  where (w.assembly is not null or w.state in ('loose', 'tight')) and ${ON_ITS_UNIT('w')}
    and w.open_job_id is null and ($4 ::uuid[] is null or u.owner_id = any($4))
  order by w.assembly is null, u.name collate natural_order, w.position limit 8`;

/**
 * SQL: bookings of a morning, $1 and $2 the moments between which they are shown. What came and has not left stands here
 * however late it is, and what nobody said anything of is asked about for two days.
 */
const AT_HAND = `(b.during && tstzrange($1, $2) or (b.came_at is not null and b.left_at is null and lower(b.during) < $2)
  or (b.came_at is null and b.during && tstzrange($1 ::timestamptz - interval '2 days', $1)))`;

/** SQL: what did not come in the last four weeks, and is neither booked again nor in a job since. */
const MISSED = `b.missed_at > $1 ::timestamptz - interval '28 days'
  and not exists (select 1 from booking n where n.unit_id = b.unit_id and not n.cancelled
    and upper(n.during) > b.missed_at)
  and not exists (select 1 from booking n where n.unit_id = b.unit_id and n.missed_at > b.missed_at)
  and not exists (select 1 from job j where j.unit_id = b.unit_id and (j.closed_at is null or j.opened_at > b.missed_at))`;

/** Of the owner who is asked for, or of all. */
const OF_OWNER = `($2 ::uuid is null or exists (select 1 from unit u where u.id = d.unit_id and u.owner_id = $2))`;

const IN_VISIT = `case when $1 then d.due_on <= greatest(p.due_on, $4 ::date) + $5 ::int else d.due_on is null end`;

/** SQL: units with what comes in with the first thing due, until $5 days after it; $4 is today. */
export const DUE = `
  with page as (
    select d.unit_id, d.due_on, d.earliest from unit_due d
    where case when $1 then d.due_on is not null else d.unknown > 0 end and ${OF_OWNER}
    order by d.due_on, d.unit_id limit ${DUE_A_PAGE} offset $3
  )
  select ${UNIT_HEAD} as unit, to_char(p.due_on, 'YYYY-MM-DD') as "dueOn", to_char(p.earliest, 'YYYY-MM-DD') as earliest,
    ${dueOfUnit('u.id', IN_VISIT)} as due,
    (select ${isoTime('min(lower(b.during))')} from booking b
      where b.unit_id = u.id and not b.cancelled and upper(b.during) > now()) as "bookedFrom",
    (select w.open_job_id from wheel_end w where w.unit_id = u.id and w.open_job_id is not null limit 1) as "openJobId"
  from page p join unit u on u.id = p.unit_id join owner o on o.id = u.owner_id order by p.due_on, p.unit_id`;

export const DUE_COUNTS = `
  select count(*) filter (where case when $1 then d.due_on is not null else d.unknown > 0 end) ::int as total,
    count(*) filter (where d.due_on < $3 ::date) ::int as overdue,
    count(*) filter (where d.due_on is null and d.unknown = 0) ::int as "withoutIntervals"
  from unit_due d where ${OF_OWNER}`;

/**
 * SQL: the Floor as one JSON; $1 and $2 are the moments between which bookings are shown, $3 how many jobs, $4 whose
 * (null: all). One statement, since each of five waits its turn for a connection and for the processor.
 */
export const FLOOR = `
  with booked as materialized (${bookedWhere(AT_HAND)}),
  open as materialized (${jobLines('open', { owners: '$4', limit: '$3', offset: '0' })}),
  doubted as materialized (${DOUBTED}),
  apart as materialized (${APART}),
  here as (select "unitId" as id from booked union select (unit ->> 'id') ::uuid from open)
  select json_build_object(
    'bookings', (select coalesce(json_agg(b), '[]') from booked b),
    'missed', (select coalesce(json_agg(m), '[]') from (${bookedWhere(MISSED, 'cancelled')}) m),
    'jobs', (select coalesce(json_agg(j), '[]') from open j),
    'moreJobs', (select count(*) = $3 from open),
    'doubted', (select coalesce(json_agg(d), '[]') from doubted d),
    'apart', (select coalesce(json_agg(a), '[]') from apart a),
    'units', (select coalesce(json_agg(${UNIT_SUMMARY} order by u.name collate natural_order, u.id), '[]')
      from here h join unit u on u.id = h.id join owner o on o.id = u.owner_id),
    'people', (select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name) order by p.name, p.id), '[]')
      from person p where p.role in ('technician', 'supervisor') and p.switched_off_at is null)) ::text as floor`;

/** What the supervisor looks at in the morning. */
export function floorService(db: Database, clock: Clock) {
  return {
    /** The Floor as JSON: a `Floor`. */
    async floor({ owners }: Pick<Viewer, 'owners'>): Promise<JsonText> {
      const until = new Date(clock.now().getTime() + 86_400_000).toISOString();
      const [row] = await prepared<{ floor: string }>(db, 'floor', FLOOR, [
        clock.now().toISOString(),
        until,
        JOBS_A_PAGE,
        owners === 'all' ? null : owners,
      ]);
      return new JsonText(row!.floor);
    },

    /** @param within days after the first thing due on a unit: everything until then is one visit */
    async due(query: {
      page: number;
      state: 'known' | 'unknown';
      owner?: string | undefined;
      within: number;
    }) {
      const known = query.state === 'known';
      const owner = query.owner ?? null;
      const today = clock.today();
      const [rows, [counts]] = await Promise.all([
        prepared<Omit<DueUnit, 'due'> & { due: Omit<Due, 'state'>[] }>(db, 'due-units', DUE, [
          known,
          owner,
          (query.page - 1) * DUE_A_PAGE,
          today,
          query.within,
        ]),
        prepared<{ total: number; overdue: number; withoutIntervals: number }>(db, 'due-counts', DUE_COUNTS, [
          known,
          owner,
          today,
        ]),
      ]);
      return {
        ...counts!,
        rows: rows.map((row) => ({
          ...row,
          due: row.due.map((d) => ({
            ...d,
            state: dueState({ date: d.dueOn, earliest: d.earliest }, today),
          })),
        })),
      };
    },
  };
}
export type FloorService = ReturnType<typeof floorService>;
