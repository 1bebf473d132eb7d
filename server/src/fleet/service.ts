import { randomUUID } from 'node:crypto';
import { col, fn, Op, QueryTypes, Transaction, UniqueConstraintError, where } from 'sequelize';
import type {
  FollowUp,
  HistoryLine,
  NewUnit,
  Owner,
  ReadingRow,
  UnitDetail,
  UnitSummary,
  WheelEndSummary,
} from '@lanternwright/contract/fleet';
import { positionsOf, type Axle } from '@lanternwright/core/axle-plan';
import { addDays, retorqueState } from '@lanternwright/core/interval';
import { sheetSchema, type Sheet, type TorqueKey } from '@lanternwright/core/procedure';
import { fold, meterKm, sayEvent, type Meter } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import type { WheelEndRow } from '../jobs/model.ts';
import { eventsOf } from '../jobs/record.ts';
import { ownOnly, seesOwner, type Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import type { AxleRow, UnitRow } from './model.ts';

interface LatestMeter {
  unitId: string;
  km: number | null;
  hours: number | null;
  date: string;
}

/** A sheet of an old shape is read through today's schema. */
const toAxle = ({ role, wheels, brake, sheet }: AxleRow): Axle => ({
  role,
  wheels,
  brake,
  sheet: sheetSchema.parse(sheet),
});

function byUnit<T extends { unitId: string }>(rows: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.unitId);
    if (group) group.push(row);
    else groups.set(row.unitId, [row]);
  }
  return groups;
}

function summariseWheelEnds(axleCount: number, rows: readonly WheelEndRow[]): WheelEndSummary[] {
  return positionsOf(axleCount).map((position) => {
    const row = rows.find((r) => r.position === position);
    return {
      position,
      state: row?.openJobId
        ? 'working'
        : row?.outOfService
          ? 'out-of-service'
          : ((row?.verdict === 'unsure' ? 'repeat' : row?.verdict) ?? 'not-measured'),
      endPlayMm: row?.endPlayMm ?? null,
      readAt: row?.readAt?.toISOString() ?? null,
      readKm: row?.readKm ?? null,
      outOfService: row?.outOfService?.reason ?? null,
    };
  });
}

function summarise(
  unit: UnitRow,
  axles: readonly AxleRow[],
  wheelEnds: readonly WheelEndRow[],
  meter: LatestMeter | undefined,
): UnitSummary {
  return {
    id: unit.id,
    owner: { id: unit.owner!.id, name: unit.owner!.name },
    name: unit.name,
    kind: unit.kind,
    plate: unit.plate,
    meterKm: meter?.km ?? null,
    hours: meter?.hours ?? null,
    meterDate: meter?.date ?? null,
    axles: axles.map(({ role, wheels, brake }) => ({ role, wheels, brake })),
    wheelEnds: summariseWheelEnds(axles.length, wheelEnds),
    openJobId: wheelEnds.find((w) => w.openJobId)?.openJobId ?? null,
  };
}

/** Units, their axles and what is known about their wheel ends. */
export function fleetService(db: Database, clock: Clock) {
  async function latestMeters(unitId: string | null): Promise<Map<string, LatestMeter>> {
    const rows = await db.sequelize.query<LatestMeter>(
      `select distinct on (unit_id) unit_id as "unitId", km, hours, to_char(date, 'YYYY-MM-DD') as date
       from meter_reading where :unitId is null or unit_id = :unitId ::uuid order by unit_id, date desc, id desc`,
      { type: QueryTypes.SELECT, replacements: { unitId } },
    );
    return new Map(rows.map((r) => [r.unitId, r]));
  }

  async function readings(unitId: string, transaction?: Transaction): Promise<ReadingRow[]> {
    const rows = await db.reading.findAll({ where: { unitId }, order: ['at', 'round'], transaction });
    return rows.map(
      ({ jobId, position, round, endPlayMm, rangeMm, cycles, verdict, at, byName, km, final }) => ({
        jobId,
        position,
        round,
        endPlayMm,
        rangeMm,
        cycles,
        verdict,
        at: at.toISOString(),
        by: byName,
        km,
        final,
      }),
    );
  }

  async function openFollowUps(unitId: string, meterKm: number | null): Promise<FollowUp[]> {
    const rows = await db.sequelize.query<Omit<FollowUp, 'state'>>(
      `select job_id as "jobId", position, kind, nth, what, from_km as "fromKm", by_km as "byKm",
         to_char(by_date, 'YYYY-MM-DD') as "byDate"
       from open_follow_up where unit_id = :unitId order by by_date, position, kind, nth`,
      { type: QueryTypes.SELECT, replacements: { unitId } },
    );
    return rows.map((due) => ({ ...due, state: retorqueState(due, meterKm, clock.today()) }));
  }

  async function axles(unitId: string, transaction?: Transaction): Promise<Axle[]> {
    return (await db.axle.findAll({ where: { unitId }, order: ['number'], transaction })).map(toAxle);
  }

  async function writeAxles(unitId: string, list: readonly Axle[], transaction: Transaction): Promise<void> {
    await db.axle.destroy({ where: { unitId }, transaction });
    await db.axle.bulkCreate(
      list.map((axle, i) => ({ unitId, number: i + 1, ...axle })),
      { transaction },
    );
  }

  async function recordMeter(
    unitId: string,
    date: string,
    meter: Meter,
    transaction?: Transaction,
  ): Promise<void> {
    const { distance, hours } = meter;
    if (!distance && !hours) return;
    const km = meterKm(meter);
    await db.meterReading.create(
      { unitId, date, distance: distance ?? null, km, hours: hours?.value ?? null },
      { transaction },
    );
  }

  /**
   * Puts a meter reading right that was taken within a day of `at`; where there is none, it is added.
   */
  async function correctMeter(
    unitId: string,
    at: string,
    wrong: Meter,
    right: Meter,
    transaction: Transaction,
  ): Promise<void> {
    const day = at.slice(0, 10);
    const row = await db.meterReading.findOne({
      where: {
        unitId,
        km: meterKm(wrong),
        hours: wrong.hours?.value ?? null,
        date: { [Op.between]: [addDays(day, -1), addDays(day, 1)] },
      },
      transaction,
    });
    await row?.destroy({ transaction });
    await recordMeter(unitId, row?.date ?? day, right, transaction);
  }

  async function ownerByName(name: string, transaction: Transaction): Promise<string> {
    // Two at once with a new owner make one.
    await db.sequelize.query(
      'insert into owner (id, name) values (:id, :name) on conflict (lower(name)) do nothing',
      { replacements: { id: randomUUID(), name }, transaction },
    );
    const owner = await db.owner.findOne({
      where: where(fn('lower', col('name')), fn('lower', name)),
      transaction,
    });
    return owner!.id;
  }

  /** Fills in figures that an axle's sheet does not have; one it has stays, and so does a sheet that was changed for another. */
  async function fillSheet(
    at: { unitId: string; axle: number; sheetId: string },
    figures: Partial<Pick<Sheet, TorqueKey>>,
    transaction: Transaction,
  ): Promise<void> {
    const row = await db.axle.findOne({ where: { unitId: at.unitId, number: at.axle }, transaction });
    if (!row || row.sheet.sheetId !== at.sheetId) return;
    const missing = Object.entries(figures).filter(([key]) => !row.sheet[key as TorqueKey]);
    if (missing.length === 0) return;
    const sheet = { ...row.sheet, ...Object.fromEntries(missing) };
    await db.axle.update({ sheet }, { where: { unitId: at.unitId, number: at.axle }, transaction });
  }

  /** Adds a unit inside a transaction. @throws HttpProblem 422 when the owner has one of that name */
  async function addIn(unit: NewUnit, transaction: Transaction): Promise<string> {
    const id = randomUUID();
    const ownerId = await ownerByName(unit.owner, transaction);
    try {
      await db.unit.create(
        { id, ownerId, name: unit.name, kind: unit.kind, plate: unit.plate },
        { transaction },
      );
    } catch (error) {
      if (error instanceof UniqueConstraintError)
        throw refused(`${unit.owner} has a unit named ${unit.name} already`, 'name');
      throw error;
    }
    await writeAxles(id, unit.axles, transaction);
    await recordMeter(id, clock.today(), unit.meter, transaction);
    return id;
  }

  return {
    axles,
    readings,
    recordMeter,
    fillSheet,
    correctMeter,
    addIn,

    /** The axles of units, by their ids. */
    async axlesOf(unitIds: readonly string[]): Promise<Map<string, Axle[]>> {
      const groups = byUnit(await db.axle.findAll({ where: { unitId: [...unitIds] }, order: ['number'] }));
      return new Map([...groups].map(([unitId, rows]) => [unitId, rows.map(toAxle)]));
    },

    async list(viewer: Viewer): Promise<UnitSummary[]> {
      const [units, axles, wheelEnds, meters] = await Promise.all([
        db.unit.findAll({
          where: ownOnly(viewer),
          include: [{ model: db.owner, as: 'owner' }],
          order: ['name'],
          raw: true,
          nest: true,
        }),
        db.axle.findAll({
          attributes: ['unitId', 'number', 'role', 'wheels', 'brake'],
          order: ['number'],
          raw: true,
        }),
        db.wheelEnd.findAll({ raw: true }),
        latestMeters(null),
      ]);
      const axlesOf = byUnit(axles);
      const wheelEndsOf = byUnit(wheelEnds);
      return units.map((u) =>
        summarise(u, axlesOf.get(u.id) ?? [], wheelEndsOf.get(u.id) ?? [], meters.get(u.id)),
      );
    },

    async unit(id: string, viewer: Viewer): Promise<UnitDetail> {
      const [unit, axleRows, wheelEnds, meters, rows, jobs] = await Promise.all([
        db.unit.findByPk(id, { include: [{ model: db.owner, as: 'owner' }] }),
        db.axle.findAll({ where: { unitId: id }, order: ['number'] }),
        db.wheelEnd.findAll({ where: { unitId: id } }),
        latestMeters(id),
        readings(id),
        db.job.findAll({ where: { unitId: id }, order: [['openedAt', 'DESC']] }),
      ]);
      if (!unit || !seesOwner(viewer, unit.ownerId)) throw notFound('unit');
      const summary = summarise(unit, axleRows, wheelEnds, meters.get(id));
      return {
        ...summary,
        axles: axleRows.map(toAxle),
        readings: rows,
        followUps: await openFollowUps(id, summary.meterKm),
        jobs: jobs.map(({ id: jobId, number, title, openedAt, closedAt }) => ({
          id: jobId,
          number,
          title,
          openedAt: openedAt.toISOString(),
          closedAt: closedAt?.toISOString() ?? null,
        })),
      };
    },

    async history(unitId: string, position: string | undefined, viewer: Viewer): Promise<HistoryLine[]> {
      const unit = await db.unit.findByPk(unitId, { attributes: ['ownerId'] });
      if (!unit || !seesOwner(viewer, unit.ownerId)) throw notFound('unit');
      const jobs = await db.job.findAll({ where: { unitId }, order: [['openedAt', 'DESC']], limit: 20 });
      const lines: HistoryLine[] = [];
      for (const { id, number } of jobs) {
        const job = fold(await eventsOf(db, id));
        for (const event of [...job.events].reverse()) {
          const at = 'position' in event.body ? event.body.position : null;
          if (position && at !== position && event.body.kind !== 'job-opened') continue;
          lines.push({
            at: event.at,
            by: event.by.name,
            jobId: id,
            jobNumber: number,
            position: at,
            text: sayEvent(job, event),
          });
        }
      }
      return lines;
    },

    async add(unit: NewUnit): Promise<{ id: string }> {
      return { id: await inTransaction(db, (transaction) => addIn(unit, transaction)) };
    },

    async replaceAxles(id: string, list: readonly Axle[]): Promise<{ id: string }> {
      return inTransaction(db, async (transaction) => {
        // Two at once stand in line here.
        const unit = await db.unit.findByPk(id, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });
        if (!unit) throw notFound('unit');
        await writeAxles(id, list, transaction);
        return { id };
      });
    },

    async owners({ owners }: Viewer): Promise<Owner[]> {
      const mine = owners === 'all' ? {} : { id: owners };
      return (await db.owner.findAll({ where: mine, order: ['name'] })).map(({ id, name }) => ({ id, name }));
    },
  };
}
export type FleetService = ReturnType<typeof fleetService>;
