import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { bookingAggregate, type Booking, type BookingCommand } from '@lanternwright/core/record';
import type { Booked, CancelBooking, MoveBooking, WhereItIs } from '@lanternwright/contract/plan';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import { ABSENT_NAME, NAMED_ABSENCES } from './absences.ts';
import { insertTables } from '../record/insert-rows.ts';
import { kindsOf } from '../record/kinds.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import type { PartsKeeper } from '../stores/keeping.ts';

const SIX_WEEKS_MS = 43 * 86_400_000;

/** SQL: a unit u with its owner o, as lists name it. */
export const UNIT_HEAD = `json_build_object('id', u.id, 'name', u.name, 'kind', u.kind,
  'owner', json_build_object('id', o.id, 'name', o.name))`;

/** SQL: bookings with their unit, people and job. @param where a condition on b */
export const bookedWhere = (where: string, of: 'standing' | 'cancelled' = 'standing') => `
  select b.id, b.version, b.bay_id as "bayId", b.unit_id as "unitId", b.job_id as "jobId", b.note, b.people,
    b.tools, b.locked, b.works,
    ${isoTime('b.came_at')} as "cameAt",
    ${isoTime('b.left_at')} as "leftAt",
    ${isoTime('lower(b.during)')} as from, ${isoTime('upper(b.during)')} as until,
    ${UNIT_HEAD} as unit,
    array(select coalesce(p.name, '') from unnest(b.people) with ordinality as w (id, nth)
      left join person p on p.id = w.id order by w.nth) as names,
    case when j.id is null then null
      else json_build_object('id', j.id, 'number', j.number, 'title', j.title) end as job
  from booking b join unit u on u.id = b.unit_id join owner o on o.id = u.owner_id left join job j on j.id = b.job_id
  where ${of === 'standing' ? 'not ' : ''}b.cancelled and ${where} order by lower(b.during), b.id`;

/** What is booked between two moments, ISO 8601. */
export const bookedBetween = (db: Database, from: string, until: string): Promise<Booked[]> =>
  prepared<Booked>(db, 'booked-between', bookedWhere('b.during && tstzrange($1, $2)'), [from, until]);

interface Clash {
  what: 'bay' | 'unit' | 'person' | 'tool';
  unit: string;
  name: string | null;
  bay: string;
  from: Date;
  until: Date;
}

/** What is in the way of a booking: the first of its claims that somebody has then. */
const CLASH = `
  select c.what, u.name as unit, coalesce(p.name, t.tool ->> 'title') as name, b.bay_id as bay, lower(b.during) as from, upper(b.during) as until
  from booking_claim c join booking b on b.id = c.booking_id join unit u on u.id = b.unit_id
  left join person p on c.what = 'person' and p.id ::text = c.of
  left join tool t on c.what = 'tool' and t.id ::text = c.of
  where c.during && tstzrange($1, $2) and c.booking_id <> $3
    and (c.what, c.of) in (select * from unnest($4 ::text[], $5 ::text[]))
  order by array_position(array['bay', 'unit', 'person', 'tool'], c.what), lower(b.during) limit 1`;

/** The first absence that lies across a booking. */
const AWAY = `
  select ${ABSENT_NAME} as name, a.why
  from ${NAMED_ABSENCES} where not a.cancelled and a.during && tstzrange(least($1 ::timestamptz, $2 ::timestamptz), $2 ::timestamptz) and (
    (a.what = 'bay' and a.of = $3) or (a.what = 'unit' and a.of = $4)
    or (a.what = 'person' and a.of = any($5 ::text[])) or (a.what = 'tool' and a.of = any($6 ::text[])))
  order by lower(a.during) limit 1`;

/** A command on one booking, and how it would stand then. */
export interface Change {
  id: string;
  command: BookingCommand;
  booking: Booking;
  expected?: number;
}

interface Neighbours {
  settings: SettingsService;
  keeper: Pick<PartsKeeper, 'soon'>;
}

/** Bookings of bays: recorded, and kept from clashing by the database. */
export function bookingsService(db: Database, { settings, keeper }: Neighbours, clock: Clock) {
  const kind = kindsOf(() => undefined).find((k) => k.aggregate.stream === 'booking')!;
  const bayName = (id: string) =>
    settings.current().bays.find((b) => b.id === id)?.name ?? 'a bay that is gone';

  async function clashOf(id: string, booking: Booking): Promise<HttpProblem> {
    const { claims } = bookingAggregate.project({
      ...booking,
      ...{ version: 0, locked: false, cancelled: false, cameAt: null, leftAt: null, missedAt: null },
    });
    const [found] = await db.sequelize.query<Clash>(CLASH, {
      type: QueryTypes.SELECT,
      bind: [booking.from, booking.until, id, claims.map((c) => c.what), claims.map((c) => c.of)],
    });
    // Whoever was in the way may have gone meanwhile.
    if (!found) return new HttpProblem(409, 'Taken', 'Somebody booked at the same moment: try again');
    const when = `from ${clock.say(found.from.toISOString())} to ${clock.say(found.until.toISOString())}`;
    const words = {
      bay: `${bayName(found.bay)} has ${found.unit} ${when}`,
      unit: `${found.unit} stands in ${bayName(found.bay)} ${when}`,
      tool: `${found.name ?? 'A tool'} is on ${found.unit} in ${bayName(found.bay)} ${when}`,
      person: `${found.name ?? 'Somebody'} is on ${found.unit} in ${bayName(found.bay)} ${when}`,
    };
    const field = { bay: 'bayId', unit: 'unitId', person: 'people', tool: 'tools' } as const;
    return new HttpProblem(409, 'Taken', words[found.what], {
      issues: [{ path: field[found.what], message: words[found.what] }],
    });
  }

  const isClash = (error: unknown) => (error as { parent?: { code?: string } }).parent?.code === '23P01';

  /** Changes some bookings, all or none; that two of them change places is no clash. */
  async function changeAll(asked: Asked, list: () => Promise<Change[]>): Promise<void> {
    let wanted: Change[] = [];
    try {
      await inTransaction(db, async () => {
        wanted = await list();
        await db.sequelize.query('set constraints booking_claim_clash deferred');
        for (const { id, command, expected } of wanted) {
          const state = await change(db, bookingAggregate, id, command, {
            ...asked,
            ...(expected === undefined ? {} : { expected }),
          });
          for (const [table, column] of kind.tables)
            await db.sequelize.query(`delete from ${table} where ${column} = $1`, { bind: [id] });
          await insertTables(db, kind.rowsOf([{ id, state }]));
        }
        await db.sequelize.query('set constraints booking_claim_clash immediate');
      });
    } catch (error) {
      if (!isClash(error)) throw error;
      const clashes = await Promise.all(wanted.map((w) => clashOf(w.id, w.booking)));
      throw clashes.find((c) => c.issues) ?? clashes[0]!;
    }
    keeper.soon();
  }

  async function changeOne(
    id: string,
    asked: Asked,
    commandOf: () => Promise<Omit<Change, 'id' | 'expected'>>,
  ): Promise<{ id: string }> {
    await changeAll(asked, async () => [{ id, ...(await commandOf()) }]);
    return { id };
  }

  async function known(id: string): Promise<Booking> {
    const [row] = await db.sequelize.query<Booked>(bookedWhere('b.id = $1'), {
      type: QueryTypes.SELECT,
      bind: [id],
    });
    if (!row) throw notFound('booking');
    return row;
  }

  /** @throws HttpProblem 422 for a bay, somebody or a job that is not there */
  async function mustBeThere({ bayId, people, tools, unitId, jobId, from, until }: Booking): Promise<void> {
    if (!settings.current().bays.some((b) => b.id === bayId)) throw refused('There is no such bay', 'bayId');
    if (!(await db.unit.findByPk(unitId))) throw refused('There is no such unit', 'unitId');
    const here = await db.person.count({ where: { id: people, switchedOffAt: null } });
    if (here !== new Set(people).size) throw refused('Somebody of them is not here any more', 'people');
    const kept = tools.length === 0 ? 0 : await db.tool.count({ where: { id: tools, retiredAt: null } });
    if (kept !== new Set(tools).size) throw refused('One of the tools is not there any more', 'tools');
    const [away] = await db.sequelize.query<{ name: string; why: string }>(AWAY, {
      type: QueryTypes.SELECT,
      bind: [from, until, bayId, unitId, people, tools],
    });
    if (away) throw refused(`${away.name || bayName(bayId)} is away then: ${away.why}`, 'from');
    if (jobId === null) return;
    const job = await db.job.findByPk(jobId);
    if (job?.unitId !== unitId) throw refused('That job is not on this unit', 'jobId');
  }

  /** @throws HttpProblem 422 for a unit of which nobody said that it left the bay it came into before */
  async function mustStandNowhere(id: string, unitId: string): Promise<void> {
    // Two tablets at once: the second looks once the first is done.
    await db.sequelize.query('select 1 from unit where id = $1 for no key update', { bind: [unitId] });
    const [other] = await db.sequelize.query<Booked>(
      bookedWhere('b.unit_id = $1 and b.id <> $2 and b.came_at is not null and b.left_at is null'),
      { type: QueryTypes.SELECT, bind: [unitId, id] },
    );
    if (other)
      throw refused(
        `It is in ${bayName(other.bayId)} since ${clock.say(other.cameAt!)}: say first that it left there`,
      );
  }

  return {
    async between(from: string, until: string): Promise<Booked[]> {
      if (Date.parse(until) - Date.parse(from) > SIX_WEEKS_MS)
        throw refused('Six weeks at most are shown at once', 'until');
      return bookedBetween(db, from, until);
    },

    /** @throws HttpProblem 409 in words where the bay, the unit or somebody is taken then */
    async book(booking: Booking, asked: Asked): Promise<{ id: string }> {
      return changeOne(randomUUID(), asked, async () => {
        await mustBeThere(booking);
        return { command: { kind: 'book', booking }, booking };
      });
    },

    /** @throws HttpProblem 409 as `book`, and where it was changed since it was seen */
    async move(
      id: string,
      { seenVersion, ...to }: MoveBooking & { tools: string[] },
      asked: Asked,
    ): Promise<{ id: string }> {
      return changeOne(id, { ...asked, expected: seenVersion }, async () => {
        const booking = { ...(await known(id)), ...to };
        await mustBeThere(booking);
        return { command: { kind: 'move', to }, booking };
      });
    },

    /** @throws HttpProblem 422 where that cannot be said of it now */
    async sayWhere(
      id: string,
      { seenVersion, what }: { seenVersion: number; what: WhereItIs },
      asked: Asked,
    ): Promise<{ id: string }> {
      return changeOne(id, { ...asked, expected: seenVersion }, async () => {
        const booking = await known(id);
        if (what === 'come') await mustStandNowhere(id, booking.unitId);
        const until = what === 'end' ? asked.at : booking.until;
        return { command: { kind: what, at: asked.at }, booking: { ...booking, until } };
      });
    },

    /** Ties a job that is opened to the booking it is for. @throws HttpProblem 422 where that is another unit's, or has one */
    async openJobFor(
      id: string,
      { jobId, unitId }: { jobId: string; unitId: string },
      asked: Asked,
    ): Promise<void> {
      await changeOne(id, asked, async () => {
        const booking = await known(id);
        if (booking.unitId !== unitId) throw refused('That booking is of another unit', 'bookingId');
        return { command: { kind: 'open-job', jobId }, booking: { ...booking, jobId } };
      });
    },

    async lock(id: string, seenVersion: number, locked: boolean, asked: Asked): Promise<{ id: string }> {
      return changeOne(id, { ...asked, expected: seenVersion }, async () => ({
        command: { kind: 'lock', locked },
        booking: await known(id),
      }));
    },

    /** Some at once, all or none. @throws HttpProblem as `book` and `move` */
    async changeAll(changes: readonly Change[], asked: Asked): Promise<void> {
      await changeAll(asked, async () => {
        for (const { booking } of changes) await mustBeThere(booking);
        return [...changes];
      });
    },

    async cancel(id: string, { seenVersion, reason }: CancelBooking, asked: Asked): Promise<{ id: string }> {
      return changeOne(id, { ...asked, expected: seenVersion }, async () => ({
        command: { kind: 'cancel', reason },
        booking: await known(id),
      }));
    },
  };
}
export type BookingsService = ReturnType<typeof bookingsService>;
