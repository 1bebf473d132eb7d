import { Op, QueryTypes, Transaction } from 'sequelize';
import { addDays } from '@lanternwright/core/interval';
import {
  meterAggregate,
  sameJson,
  type MeterCommand,
  type MeterRead,
  type MeterState,
} from '@lanternwright/core/record';
import { meterKm, type Meter } from '@lanternwright/core/traveller';
import {
  METERS_A_PAGE,
  type CorrectMeter,
  type MeterPage,
  type NewMeterRead,
  type SwapMeter,
} from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import { seesOwner, type Viewer } from '../http/viewer.ts';
import { changed, type Asked } from '../record/append.ts';
import { fromBatchesOf, metersOf } from '../record/beginning.ts';
import { asColumns } from '../record/insert-rows.ts';
import { refreshDue } from '../plan/refresh-due.ts';
import type { Clock } from '../shop/clock.ts';

/** A reading of that day; null where neither meter was read. */
export function readOf(date: string, meter: Meter, source: MeterRead['source']): MeterRead | null {
  const { distance = null, hours } = meter;
  if (!distance && !hours) return null;
  return { date, distance, km: meterKm(meter), hours: hours?.value ?? null, source };
}

const COLUMNS = ['date', 'distance', 'km', 'hours', 'source', 'total_km', 'total_hours'];
const WRITE_READS = `
  insert into meter_reading (unit_id, nth, ${COLUMNS.join(', ')})
  select $1 ::uuid, nth, ${COLUMNS.map((c) => (c === 'distance' ? `nullif(distance, 'null'::jsonb)` : c)).join(', ')}
  from jsonb_populate_recordset(null ::meter_reading, $2 ::jsonb)
  on conflict (unit_id, nth) do update set ${COLUMNS.map((c) => `${c} = excluded.${c}`).join(', ')}`;
const WRITE_SWAPS = `
  insert into meter_swap select * from jsonb_populate_recordset(null ::meter_swap, $1 ::jsonb)
  on conflict (unit_id, nth) do nothing`;

/** Meters of units: what was read, and which was changed for another. */
export function metersService(db: Database, clock: Clock) {
  /** Writes the rows that a change made others of. */
  async function write(unitId: string, before: MeterState | null, after: MeterState | null): Promise<void> {
    if (!after) return;
    const was = new Map(before && meterAggregate.project(before).reads.map((r) => [r.nth, r]));
    const { reads, swaps } = meterAggregate.project(after);
    const others = reads.filter((r) => !sameJson(r, was.get(r.nth)));
    reads.forEach((r) => was.delete(r.nth));
    if (was.size > 0) await db.meterReading.destroy({ where: { unitId, nth: [...was.keys()] } });
    if (others.length > 0) await db.sequelize.query(WRITE_READS, { bind: [unitId, asColumns(others)] });
    if (swaps.length > (before?.swaps.length ?? 0))
      await db.sequelize.query(WRITE_SWAPS, {
        bind: [asColumns(swaps.map((swap, nth) => ({ ...swap, nth, unitId })))],
      });
    await refreshDue(db, [unitId]);
  }

  /** In the open transaction, which stands in line for the unit. Where it came in with a file, its meters begin with that. */
  async function changeIn(unitId: string, command: MeterCommand, asked: Asked): Promise<void> {
    const begun = await fromBatchesOf(db, unitId);
    const { before, after } = await changed(db, meterAggregate, unitId, command, asked, (entries) =>
      metersOf(entries, begun),
    );
    await write(unitId, before, after);
  }

  async function changeOne(unitId: string, command: MeterCommand, asked: Asked): Promise<{ id: string }> {
    return inTransaction(db, async (transaction) => {
      const lock = Transaction.LOCK.NO_KEY_UPDATE;
      if (!(await db.unit.findByPk(unitId, { transaction, lock }))) throw notFound('unit');
      await changeIn(unitId, command, asked);
      return { id: unitId };
    });
  }

  function notLater(date: string): string {
    if (date > clock.today()) throw refused('This day is still to come', 'date');
    return date;
  }

  async function record(
    unitId: string,
    date: string,
    meter: Meter,
    source: MeterRead['source'],
    asked: Asked,
  ): Promise<void> {
    const read = readOf(date, meter, source);
    if (read) await changeIn(unitId, { kind: 'read', read }, asked);
  }

  return {
    write,
    record,

    /** Puts a job's reading right that was taken within a day of `at`; where there is none, it is added. */
    async correctJobs(unitId: string, at: string, wrong: Meter, right: Meter, asked: Asked): Promise<void> {
      const day = at.slice(0, 10);
      const date = { [Op.between]: [addDays(day, -1), addDays(day, 1)] };
      const row = await db.meterReading.findOne({
        where: { unitId, km: meterKm(wrong), hours: wrong.hours?.value ?? null, date },
      });
      if (!row) return record(unitId, day, right, 'job', asked);
      await changeIn(unitId, { kind: 'correct', nth: row.nth, right: readOf(row.date, right, 'job') }, asked);
    },

    /** A page of a unit's readings, newest first, with the meters that were changed. */
    async page(unitId: string, page: number, viewer: Viewer): Promise<MeterPage> {
      const unit = await db.unit.findByPk(unitId);
      if (!unit || !seesOwner(viewer, unit.ownerId)) throw notFound('unit');
      const { rows, count } = await db.meterReading.findAndCountAll({
        attributes: ['nth', 'date', 'km', 'hours', 'source', 'totalKm', 'totalHours'],
        where: { unitId },
        order: [
          ['date', 'DESC'],
          ['nth', 'DESC'],
        ],
        limit: METERS_A_PAGE,
        offset: (page - 1) * METERS_A_PAGE,
        raw: true,
      });
      const swaps = await db.sequelize.query<MeterPage['swaps'][number]>(
        `select to_char(date, 'YYYY-MM-DD') as date, of, why, last, first from meter_swap where unit_id = $1
         order by date desc, nth desc`,
        { type: QueryTypes.SELECT, bind: [unitId] },
      );
      const version = await db.entry.count({ where: { stream: 'meter', streamId: unitId } });
      return { version, total: count, rows, swaps };
    },

    /** @throws HttpProblem 422 where it does not fit what was read before */
    async add(unitId: string, { date, sure, ...meter }: NewMeterRead, asked: Asked): Promise<{ id: string }> {
      const read = readOf(notLater(date), meter, 'by-hand');
      if (!read) throw refused('Enter the odometer or the hour meter', 'distance');
      return changeOne(unitId, { kind: 'read', read, sure }, asked);
    },

    async swap(unitId: string, swap: SwapMeter, asked: Asked): Promise<{ id: string }> {
      notLater(swap.date);
      return changeOne(unitId, { kind: 'swap', swap }, asked);
    },

    /** @throws HttpProblem 409 where the meters were changed since they were seen */
    async correct(
      unitId: string,
      { seenVersion, nth, right }: CorrectMeter,
      asked: Asked,
    ): Promise<{ id: string }> {
      const read = right && readOf(notLater(right.date), right, 'by-hand');
      return changeOne(unitId, { kind: 'correct', nth, right: read }, { ...asked, expected: seenVersion });
    },
  };
}
export type MetersService = ReturnType<typeof metersService>;
