import { QueryTypes } from 'sequelize';
import { randomUUID } from 'node:crypto';
import { v5 as uuidFrom } from 'uuid';
import type { Part } from '@lanternwright/core/part';
import type { Movement, Reservation } from '@lanternwright/core/record';
import { fold, isClosed, lackedLines, wheelEndAt } from '@lanternwright/core/traveller';
import {
  MOVEMENTS_SHOWN,
  PAID_SHOWN,
  type BatchUse,
  type JobParts,
  type Shortage,
  type StorePart,
} from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound, refused } from '../http/problem.ts';
import { able, type Viewer } from '../http/viewer.ts';
import type { JobsService } from '../jobs/service.ts';
import type { Clock } from '../shop/clock.ts';
import { storeDay } from './day.ts';
import { jobPartsOf } from './job-parts.ts';
import { keepWhatIsHere } from './keeping.ts';
import { NET_USED } from './net-used.ts';
import { partSearch } from './search.ts';
import { unitCosts } from './unit-costs.ts';
import { changeStock, type StockAsked } from './stock.ts';

const counts = (what: string, name: string) => `
  (select coalesce(json_agg(json_build_object('${name}', s.of, 'quantity', s.quantity) order by s.of), '[]')
    from stock s where s.part_id = p.id and s.what = '${what}')`;

/** More units than one batch of seals or bearings is ever on. */
const BATCH_SHOWN = 1_000;

const PART = `
  select p.part, p.version, ${isoTime('p.changed_at')} as "changedAt", p.changed_by as "changedBy",
    p.on_hand as "onHand", p.reserved, p.cores,
    ${counts('place', 'place')} as places, ${counts('lent', 'who')} as lent,
    (select coalesce(json_agg(json_build_object('id', r.id, 'jobId', r.job_id, 'position', r.position, 'line', r.line,
        'quantity', r.quantity, 'jobNumber', j.number, 'unit', coalesce(u.name, '')) order by j.number, r.position, r.id), '[]')
      from reservation r left join job j on j.id = r.job_id left join unit u on u.id = j.unit_id
      where r.part_id = p.id) as reservations,
    (select coalesce(json_agg(json_build_object('version', m.version, 'at', ${isoTime('m.at')}, 'byName', m.by_name,
        'what', m.what, 'quantity', m.quantity, 'change', m.change, 'place', m.place, 'to', m.to_place, 'who', m.who,
        'jobId', m.job_id, 'jobNumber', m.number, 'position', m.position, 'line', m.line, 'reason', m.reason, 'orderId', m.order_id,
        'online', m.online, 'reference', m.reference, 'batch', m.batch,
        'price', case when m.minor is null then null
          else json_build_object('currency', m.currency, 'minor', m.minor) end) order by m.version desc), '[]')
      from (select m.*, j.number from stock_movement m left join job j on j.id = m.job_id
        where m.part_id = p.id order by m.version desc limit ${MOVEMENTS_SHOWN}) m) as movements,
    (select json_build_object('id', n.id, 'number', n.part ->> 'number') from part n
      where n.id = (p.part ->> 'supersededBy') ::uuid) as "supersededBy",
    (select coalesce(json_agg(json_build_object('at', ${isoTime('m.at')}, 'orderNumber', o.number,
        'price', json_build_object('currency', m.currency, 'minor', m.minor)) order by m.version desc), '[]')
      from (select * from stock_movement where part_id = p.id and what = 'received' and minor is not null
        order by version desc limit ${PAID_SHOWN}) m left join purchase o on o.id = m.order_id) as paid
  from part p where p.id = $1`;

/** SQL: what is in of a batch ($2) of a part ($1): used on a wheel end and not returned. */
const BATCH = `
  select u.id as "unitId", u.name as unit, o.name as owner, m.position, j.id as "jobId", j.number as "jobNumber",
    ${isoTime('max(m.at)')} as at, ${NET_USED} ::int as quantity
  from stock_movement m join job j on j.id = m.job_id join unit u on u.id = j.unit_id join owner o on o.id = u.owner_id
  where m.part_id = $1 and m.batch = $2 and m.what in ('used', 'returned')
  group by u.id, o.id, m.position, j.id
  having ${NET_USED} > 0
  order by max(m.at) desc, j.number desc, m.position limit ${BATCH_SHOWN}`;

/** SQL: a part, what takes its place, what takes the place of that. */
const SUCCESSORS = `
  with recursive after as (
    select id, part from part where id = $1
    union select n.id, n.part from part n join after a on n.id = (a.part ->> 'supersededBy') ::uuid
  ) select id from after`;

/** Prices are for those who buy and those who bill. */
function withoutPrices(found: StorePart): StorePart {
  return {
    ...found,
    part: { ...found.part, price: null, core: null },
    movements: found.movements.map((m) => ({ ...m, price: null })),
    paid: [],
  };
}

/** The store: parts, what lies where, and what happened to them. */
export function storesService(
  db: Database,
  jobs: Pick<JobsService, 'detail' | 'record'>,
  shortages: () => Promise<Shortage[]>,
  /** The supplier that takes orders and cores online, by its name; null where none does. */
  online: string | null,
  clock: Clock,
) {
  async function part(id: string, viewer: Viewer): Promise<StorePart> {
    const [row] = await db.sequelize.query<StorePart>(PART, { type: QueryTypes.SELECT, bind: [id] });
    if (!row) throw notFound('part');
    return able(viewer, 'see-prices') ? row : withoutPrices(row);
  }

  /** @throws HttpProblem 422 where the job is closed or does not have this wheel end */
  async function mustBeOpen({ jobId, position }: Pick<Movement, 'jobId' | 'position'>): Promise<void> {
    const [job] = await db.sequelize.query<{ open: boolean; at: boolean }>(
      `select closed_at is null as open,
         exists (select 1 from jsonb_array_elements(wheel_ends) w where w ->> 'position' = $2) as at
       from job where id = $1`,
      { type: QueryTypes.SELECT, bind: [jobId, position] },
    );
    if (!job) throw notFound('job');
    if (!job.open) throw refused('This job is closed', 'movement.jobId');
    if (!job.at) throw refused(`${position} is not in this job`, 'movement.position');
  }

  /** @throws HttpProblem 422 where what takes a part's place is not there, or comes back to it */
  async function mustEnd({ id, supersededBy }: Part): Promise<void> {
    if (supersededBy === null) return;
    const after = await db.sequelize.query<{ id: string }>(SUCCESSORS, {
      type: QueryTypes.SELECT,
      bind: [supersededBy],
    });
    if (after.length === 0) throw refused('There is no such part', 'part.supersededBy');
    if (after.some((p) => p.id === id))
      throw refused('That part is itself replaced by this one', 'part.supersededBy');
  }

  /** What a job needs of the store, and how that stands. @throws HttpProblem 404 for no such job */
  async function ofJob(id: string, viewer: Viewer): Promise<JobParts[]> {
    const { events } = await jobs.detail(id, viewer);
    const lines = await jobPartsOf(db, fold(events), clock);
    if (able(viewer, 'see-prices')) return lines;
    return lines.map((line) => ({ ...line, used: line.used.map((u) => ({ ...u, price: null })) }));
  }

  /** Who takes a part for a line of which the job said that it is not here says with it that it has come. */
  async function noLongerLacked(
    { jobId, position, line }: Pick<Movement, 'jobId' | 'position' | 'line'>,
    recordId: string,
    viewer: Viewer,
  ): Promise<void> {
    if (!jobId || !position || !line) return;
    const job = fold((await jobs.detail(jobId, viewer)).events);
    const wheelEnd = wheelEndAt(job, position);
    if (!wheelEnd || !lackedLines(wheelEnd).some((l) => l.what === line)) return;
    const command = { kind: 'part-received' as const, position, what: line, as: 'received' as const };
    // From the movement's own id: sent again, it is recorded once.
    await jobs.record(jobId, { id: uuidFrom('came', recordId), seenVersion: job.version, command }, viewer);
  }

  return {
    ...partSearch(db),
    part,
    day: () => storeDay(db, clock),

    /** Puts a part on the list, or changes the one of its id. */
    async list(
      wanted: Part,
      asked: Omit<StockAsked, 'id'> & { expected: number },
      viewer: Viewer,
    ): Promise<StorePart> {
      await mustEnd(wanted);
      await changeStock(db, wanted.id, { kind: 'list', part: wanted }, { ...asked, id: randomUUID() });
      return part(wanted.id, viewer);
    },

    shortages,
    costsOf: (unitId: string, currency: string) => unitCosts(db, unitId, currency),

    ofJob,

    /** On which units a batch of a part is. */
    batch: (partId: string, batch: string): Promise<BatchUse[]> =>
      prepared<BatchUse>(db, 'batch-uses', BATCH, [partId, batch]),

    /** Keeps parts for a job. @throws HttpProblem 404 for no such part or job, 422 where the job is closed */
    async reserve(
      id: string,
      reservation: Reservation,
      asked: Omit<StockAsked, 'id'>,
      viewer: Viewer,
    ): Promise<void> {
      await part(id, viewer);
      await mustBeOpen(reservation);
      await changeStock(db, id, { kind: 'reserve', reservation }, { ...asked, id: reservation.id });
    },

    /**
     * Keeps for a job one of each size that its lines take and that is free, where nothing is kept or used for that line.
     * @throws HttpProblem 404 for no such job, 422 where it is closed
     */
    async reserveAll(jobId: string, asked: Omit<StockAsked, 'id'>, viewer: Viewer): Promise<JobParts[]> {
      const { events } = await jobs.detail(jobId, viewer);
      const job = fold(events);
      if (isClosed(job)) throw refused('This job is closed');
      await keepWhatIsHere(db, job, () => randomUUID(), asked, clock);
      return ofJob(jobId, viewer);
    },

    async endReservation(
      { id, reservationId }: { id: string; reservationId: string },
      asked: Omit<StockAsked, 'id'>,
      viewer: Viewer,
    ): Promise<void> {
      await part(id, viewer);
      await changeStock(
        db,
        id,
        { kind: 'end-reservation', id: reservationId },
        { ...asked, id: randomUUID() },
      );
    },

    /**
     * @param instead what was kept for other jobs, and is kept for them no longer since this one takes it
     * @throws HttpProblem 404 for no such part, 422 with why it cannot have happened
     */
    async move(
      id: string,
      movement: Movement,
      asked: StockAsked,
      viewer: Viewer,
      instead: readonly string[] = [],
    ): Promise<StorePart> {
      const { supplier } = (await part(id, viewer)).part;
      if (movement.jobId) await mustBeOpen(movement);
      const answered = movement.what === 'core-returned' && supplier !== '' && supplier === online;
      await inTransaction(db, async () => {
        for (const reservation of instead) {
          const ended = { ...asked, id: uuidFrom(`instead ${reservation}`, asked.id) };
          await changeStock(db, id, { kind: 'end-reservation', id: reservation }, ended);
        }
        const told = answered ? { ...movement, online: true } : movement;
        await changeStock(db, id, { kind: 'move', movement: told }, asked);
      });
      if (movement.what === 'used') await noLongerLacked(movement, asked.id, viewer);
      return part(id, viewer);
    },
  };
}
export type StoresService = ReturnType<typeof storesService>;
