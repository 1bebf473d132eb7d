import type { Due } from '@lanternwright/contract/fleet';
import type { DueUnit, Floor } from '@lanternwright/contract/plan';
import { JOBS_A_PAGE, type JobSummary } from '@lanternwright/contract/jobs';
import { DUE_A_PAGE } from '@lanternwright/contract/plan';
import { addDays, dueState } from '@lanternwright/core/interval';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import type { FleetService } from '../fleet/service.ts';
import type { JobsService } from '../jobs/service.ts';
import type { Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import { bookedBetween, UNIT_HEAD } from './bookings.ts';
import { dueOfUnit } from './due-sql.ts';

export const DOUBTED = `
  select ${UNIT_HEAD} as unit, to_char(m.date, 'YYYY-MM-DD') as date, m.km, m.hours
  from meter_reading m join unit u on u.id = m.unit_id join owner o on o.id = u.owner_id
  where (m.km is not null and m.total_km is null) or (m.hours is not null and m.total_hours is null)
  order by m.date desc limit 8`;

/** Of the owner who is asked for, or of all. */
const OF_OWNER = `($2 ::uuid is null or exists (select 1 from unit u where u.id = d.unit_id and u.owner_id = $2))`;

export const DUE = `
  with page as (
    select d.unit_id, d.due_on, d.earliest from unit_due d
    where case when $1 then d.due_on is not null else d.unknown > 0 end and ${OF_OWNER}
    order by d.due_on, d.unit_id limit ${DUE_A_PAGE} offset $3
  )
  select ${UNIT_HEAD} as unit, to_char(d.due_on, 'YYYY-MM-DD') as "dueOn", to_char(d.earliest, 'YYYY-MM-DD') as earliest,
    ${dueOfUnit('u.id')} as due,
    (select ${isoTime('min(lower(b.during))')} from booking b
      where b.unit_id = u.id and not b.cancelled and upper(b.during) > now()) as "bookedFrom",
    (select w.open_job_id from wheel_end w where w.unit_id = u.id and w.open_job_id is not null limit 1) as "openJobId"
  from page d join unit u on u.id = d.unit_id join owner o on o.id = u.owner_id order by d.due_on, d.unit_id`;

export const DUE_COUNTS = `
  select count(*) filter (where case when $1 then d.due_on is not null else d.unknown > 0 end) ::int as total,
    count(*) filter (where d.due_on < $3 ::date) ::int as overdue
  from unit_due d where ${OF_OWNER}`;

interface Neighbours {
  fleet: FleetService;
  jobs: JobsService;
}

/** What the supervisor looks at in the morning. */
export function floorService(db: Database, { fleet, jobs }: Neighbours, clock: Clock) {
  return {
    async floor(viewer: Pick<Viewer, 'owners'>): Promise<Floor> {
      const until = new Date(clock.now().getTime() + 86_400_000).toISOString();
      const [bookings, page, doubted, people] = await Promise.all([
        bookedBetween(db, clock.now().toISOString(), until),
        jobs.list('open', 1, viewer, db),
        prepared<Floor['doubted'][number]>(db, 'meters-doubted', DOUBTED, []),
        db.person.findAll({
          attributes: ['id', 'name'],
          where: { role: ['technician', 'supervisor'], switchedOffAt: null },
          order: ['name'],
          raw: true,
        }),
      ]);
      const open = JSON.parse(page.text) as JobSummary[];
      const ids = new Set([...bookings.map((b) => b.unitId), ...open.map((j) => j.unit.id)]);
      return {
        bookings,
        jobs: open,
        moreJobs: open.length === JOBS_A_PAGE,
        units: await fleet.some([...ids]),
        doubted,
        people: people.map(({ id, name }) => ({ id, name })),
      };
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
        ]),
        prepared<{ total: number; overdue: number }>(db, 'due-counts', DUE_COUNTS, [known, owner, today]),
      ]);
      return {
        ...counts!,
        rows: rows.map((row) => {
          const last = addDays(row.dueOn !== null && row.dueOn > today ? row.dueOn : today, query.within);
          return {
            ...row,
            due: row.due
              .filter((d) => (known ? d.dueOn !== null && d.dueOn <= last : d.dueOn === null))
              .map((d) => ({ ...d, state: dueState({ date: d.dueOn, earliest: d.earliest }, today) })),
          };
        }),
      };
    },
  };
}
export type FloorService = ReturnType<typeof floorService>;
