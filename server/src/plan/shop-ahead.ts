import { QueryTypes } from 'sequelize';
import type { UnitKind } from '@lanternwright/core/axle-plan';
import type { Due } from '@lanternwright/contract/fleet';
import type { Booked, ChangeShift, Shift } from '@lanternwright/contract/plan';
import type { Work } from '@lanternwright/core/stack';
import {
  heaviest,
  workSpans,
  type MeasuredTime,
  type Taken,
  type TimeSpan,
} from '@lanternwright/core/work-plan';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { notFound } from '../http/problem.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { AbsencesService } from './absences.ts';
import { bookedBetween, UNIT_HEAD } from './bookings.ts';
import { OPEN_FOLLOW_UPS } from '../jobs/follow-ups.ts';
import { dueOfUnit } from './due-sql.ts';
import type { ShiftsService } from './shifts.ts';

const QUARTER_MS = 15 * 60_000;
/** Most units that one plan takes in. */
const MOST_VISITS = 300;

/** Quartiles of the last sixty wheel ends, for each kind of unit and set of works. */
const MEASURED = `
  select kind, works, count(*) ::int as measured,
    percentile_cont(array[0.25, 0.5, 0.75]) within group (order by minutes) as quartiles
  from (select u.kind, s.works, s.minutes,
      row_number() over (partition by u.kind, s.works order by s.date desc, s.job_id) as nth
    from service_done s join unit u on u.id = s.unit_id where s.minutes > 0) t
  where nth <= 60 group by kind, works`;

/** SQL: whether a unit `u` has no booking that goes on after a moment. @param now what names the moment */
const notBooked = (now: string) => `not exists (select 1 from booking b
      where b.unit_id = u.id and not b.cancelled and upper(b.during) > ${now} ::timestamptz)`;

/** SQL: whether a unit `u` is in no open job. */
const IN_NO_JOB = `not exists (select 1 from wheel_end w where w.unit_id = u.id and w.open_job_id is not null)`;

const VISITS = `
  select ${UNIT_HEAD} as unit, to_char(d.due_on, 'YYYY-MM-DD') as "dueOn", ${dueOfUnit('u.id')} as due
  from unit_due d join unit u on u.id = d.unit_id join owner o on o.id = u.owner_id
  where d.due_on <= $1 ::date and ($2 ::uuid is null or o.id = $2)
    and ${notBooked('$3')}
    and ${IN_NO_JOB}
  order by d.due_on, u.name, u.id limit ${MOST_VISITS}`;

/** Retorques and oil levels whose time has come on units that are neither booked nor in a job. */
const LOOKED_AFTER = `
  select ${UNIT_HEAD} as unit,
    json_agg(json_build_object('position', f.position, 'work', f.kind,
      'dueOn', to_char(least(f.by_date, $1 ::date), 'YYYY-MM-DD'))) as due
  from (${OPEN_FOLLOW_UPS('$1 ::date')}) f
  join unit u on u.id = f.unit_id join owner o on o.id = u.owner_id
  where f.kind in ('retorque', 'oil-level') and f.state <> 'early' and ($2 ::uuid is null or o.id = $2)
    and ${notBooked('$3')}
    and ${IN_NO_JOB}
  group by u.id, o.id order by min(f.by_date), u.id limit ${MOST_VISITS}`;

const WAITING_JOBS = `
  select ${UNIT_HEAD} as unit, j.id as "jobId", j.title,
    (select coalesce(json_agg(json_build_object('works', w -> 'works', 'left', w -> 'left')), '[]')
      from jsonb_array_elements(j.wheel_ends) w where not (w ->> 'released') ::boolean) as ends,
    (select max(l ->> 'by') from jsonb_array_elements(j.wheel_ends) w, jsonb_array_elements(w -> 'lacks') l)
      as "partsBy"
  from job j join unit u on u.id = j.unit_id join owner o on o.id = u.owner_id
  where j.closed_at is null and j.stopped is null and ($1 ::uuid is null or o.id = $1)
    and ${notBooked('$2')}
  order by j.opened_at, j.id limit ${MOST_VISITS}`;

export interface UnitHead {
  id: string;
  name: string;
  kind: UnitKind;
  owner: { id: string; name: string };
}
interface DueVisit {
  unit: UnitHead;
  dueOn: string;
  due: Omit<Due, 'state'>[];
}
interface LookedAfter {
  unit: UnitHead;
  due: { position: string; work: 'retorque' | 'oil-level'; dueOn: string }[];
}
interface WaitingJob {
  unit: UnitHead;
  jobId: string;
  title: string;
  /** Wheel ends that are not released, with the part of their works that is left. */
  ends: { works: Work[]; left: number }[];
  /** When the last of what is ordered is promised, a day; null where nothing is. */
  partsBy: string | null;
}

/** What a plan is made from: people, hours, what is booked and away, what is due, and how long work takes here. */
export function shopAhead(
  db: Database,
  {
    settings,
    absences,
    shifts,
  }: { settings: SettingsService; absences: AbsencesService; shifts: ShiftsService },
  clock: Clock,
) {
  const ms = (iso: string) => Date.parse(iso);

  /** Who is planned: the technicians. */
  async function technicians(): Promise<{ id: string; name: string }[]> {
    const rows = await db.person.findAll({
      attributes: ['id', 'name'],
      where: { role: 'technician', switchedOffAt: null },
      order: ['name'],
      raw: true,
    });
    return rows.map(({ id, name }) => ({ id, name }));
  }

  return {
    /** The next quarter of an hour. */
    begin: () => Math.ceil(clock.now().getTime() / QUARTER_MS) * QUARTER_MS,

    hours(from: number, until: number): TimeSpan[] {
      const { week, holidays, zone } = settings.current();
      return workSpans({ week, holidays, zone }, from, until);
    },

    /** Technicians, each with the hours of their own from one moment to another; the shop's hours where undefined. */
    async people(from: number, until: number) {
      const { holidays, zone } = settings.current();
      const [all, own] = await Promise.all([technicians(), shifts.all()]);
      return all.map((person) => {
        const week = own.get(person.id);
        return { ...person, hours: week && workSpans({ week, holidays, zone }, from, until) };
      });
    },

    /** Technicians, and the hours of their own. */
    async shifts(): Promise<Shift[]> {
      const [all, own] = await Promise.all([technicians(), shifts.all()]);
      return all.map((person) => ({ ...person, week: own.get(person.id) ?? null }));
    },

    /** @throws HttpProblem 404 for who is no technician, 409 where somebody changed it meanwhile */
    async changeShift(id: string, { week, seen }: ChangeShift): Promise<Shift[]> {
      if (!(await technicians()).some((person) => person.id === id)) throw notFound('technician');
      await shifts.change(id, week, seen);
      return this.shifts();
    },

    bookings: (from: number, until: number): Promise<Booked[]> =>
      bookedBetween(db, new Date(from).toISOString(), new Date(until).toISOString()),

    /** What nobody can use: away or closed. */
    async away(from: number, until: number): Promise<Taken[]> {
      const told = await absences.between(new Date(from).toISOString(), new Date(until).toISOString());
      return told.map((a) => ({ what: a.what, of: a.of, from: ms(a.from), until: ms(a.until) }));
    },

    async measured(): Promise<MeasuredTime[]> {
      const rows = await db.sequelize.query<{
        kind: UnitKind;
        works: Work[];
        measured: number;
        quartiles: [number, number, number];
      }>(MEASURED, { type: QueryTypes.SELECT });
      const best = new Map<string, MeasuredTime>();
      for (const { kind, works, measured, quartiles } of rows) {
        const work = heaviest(works);
        if (!work) continue;
        const key = `${kind} ${work}`;
        const [low, usual, high] = quartiles;
        if ((best.get(key)?.measured ?? 0) < measured)
          best.set(key, { work, kind, low, usual, high, measured });
      }
      return [...best.values()];
    },

    /** Units on which something is due until a day, neither booked nor in a job. */
    dueVisits: (until: string, owner: string | null): Promise<DueVisit[]> =>
      prepared<DueVisit>(db, 'due-visits', VISITS, [until, owner, clock.now().toISOString()]),

    /** What is to be looked after by now on units that are neither booked nor in a job. */
    lookedAfter: (owner: string | null): Promise<LookedAfter[]> =>
      prepared<LookedAfter>(db, 'looked-after', LOOKED_AFTER, [
        clock.today(),
        owner,
        clock.now().toISOString(),
      ]),

    /** Open jobs whose unit is not booked. */
    waitingJobs: (owner: string | null): Promise<WaitingJob[]> =>
      prepared<WaitingJob>(db, 'waiting-jobs', WAITING_JOBS, [owner, clock.now().toISOString()]),
  };
}
export type ShopAhead = ReturnType<typeof shopAhead>;

/** All that a booking takes, as what is taken. */
export function takenBy(
  b: Pick<Booked, 'bayId' | 'unitId' | 'people' | 'tools' | 'from' | 'until'>,
): Taken[] {
  const span = { from: Date.parse(b.from), until: Date.parse(b.until) };
  return [
    { what: 'bay', of: b.bayId, ...span },
    { what: 'unit', of: b.unitId, ...span },
    ...b.people.map((of) => ({ what: 'person' as const, of, ...span })),
    ...b.tools.map((of) => ({ what: 'tool' as const, of, ...span })),
  ];
}
