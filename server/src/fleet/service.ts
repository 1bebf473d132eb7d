import { QueryTypes } from 'sequelize';
import type {
  FollowUp,
  Owner,
  ReadingRow,
  UnitDetail,
  UnitSummary,
  WheelEndSummary,
} from '@lanternwright/contract/fleet';
import { axleAt, positionsOf, type PlacedAxle } from '@lanternwright/core/axle-plan';
import { retorqueState } from '@lanternwright/core/interval';
import type { Database } from '../database/connect.ts';
import { notFound } from '../http/problem.ts';
import type { ReadingTable, WheelEndRow } from '../jobs/model.ts';
import { ownOnly, seesOwner, type Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import { fleetChanges } from './changes.ts';
import { unitHistory } from './history.ts';
import type { AxleRow, UnitRow } from './model.ts';

interface LatestMeter {
  unitId: string;
  km: number | null;
  hours: number | null;
  date: string;
}

/** Rows follow from the record through today's schema: after a change of shape they are rebuilt, not read anew each time. */
const toAxle = ({ id, number, role, wheels, brake, sheet }: AxleRow): PlacedAxle => ({
  ...{ id, number, role, wheels, brake, sheet },
});

function toReading(row: ReadingTable): ReadingRow {
  const { jobId, axleId, position, round, endPlayMm, rangeMm, cycles, verdict, at, byName, km, final } = row;
  const figures = { endPlayMm, rangeMm, cycles, verdict, km, final };
  return { jobId, axleId, position, round, ...figures, at: at.toISOString(), by: byName };
}

function byUnit<T extends { unitId: string }>(rows: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(row.unitId);
    if (group) group.push(row);
    else groups.set(row.unitId, [row]);
  }
  return groups;
}

function summariseWheelEnds(axles: readonly AxleRow[], rows: readonly WheelEndRow[]): WheelEndSummary[] {
  return positionsOf(axles).map((position) => {
    const { id } = axleAt(axles, position)!;
    const row = rows.find((r) => r.axleId === id && r.position === position);
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
    axles: axles.map(({ id, number, role, wheels, brake }) => ({ id, number, role, wheels, brake })),
    wheelEnds: summariseWheelEnds(axles, wheelEnds),
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

  /** Settled readings of a unit, oldest first. @param axleIds of these axles only; of those under it now if left out */
  async function readings(unitId: string, axleIds?: readonly string[]): Promise<ReadingRow[]> {
    const ids = axleIds ?? (await axles(unitId)).map((a) => a.id);
    const rows = await db.reading.findAll({
      where: { unitId, axleId: [...ids] },
      order: ['at', 'round'],
      raw: true,
    });
    return rows.map(toReading);
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

  async function axles(unitId: string): Promise<PlacedAxle[]> {
    return (await db.axle.findAll({ where: { unitId, takenOutAt: null }, order: ['number'] })).map(toAxle);
  }

  return {
    axles,
    readings,
    ...fleetChanges(db, clock),

    /** The axles of units, by their ids. */
    async axlesOf(unitIds: readonly string[]): Promise<Map<string, PlacedAxle[]>> {
      const where = { unitId: [...unitIds], takenOutAt: null };
      const groups = byUnit(await db.axle.findAll({ where, order: ['number'] }));
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
          attributes: ['id', 'unitId', 'number', 'role', 'wheels', 'brake'],
          where: { takenOutAt: null },
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
        db.axle.findAll({ where: { unitId: id }, order: ['takenOutAt', 'number'], raw: true }),
        db.wheelEnd.findAll({ where: { unitId: id }, raw: true }),
        latestMeters(id),
        db.reading.findAll({ where: { unitId: id }, order: ['at', 'round'], raw: true }),
        db.job.findAll({
          attributes: ['id', 'number', 'title', 'openedAt', 'closedAt'],
          where: { unitId: id },
          order: [['openedAt', 'DESC']],
          raw: true,
        }),
      ]);
      if (!unit || !seesOwner(viewer, unit.ownerId)) throw notFound('unit');
      const present = axleRows.filter((a) => a.takenOutAt === null);
      const summary = summarise(unit, present, wheelEnds, meters.get(id));
      const of = (axleIds: readonly string[]) =>
        rows.filter((r) => axleIds.includes(r.axleId)).map(toReading);
      return {
        ...summary,
        version: unit.version,
        axles: present.map(toAxle),
        readings: of(present.map((a) => a.id)),
        takenOut: axleRows.flatMap((row) =>
          row.takenOutAt == null
            ? []
            : [{ axle: toAxle(row), takenOutAt: row.takenOutAt.toISOString(), readings: of([row.id]) }],
        ),
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

    history: unitHistory(db),

    async owners({ owners }: Viewer): Promise<Owner[]> {
      const mine = owners === 'all' ? {} : { id: owners };
      return (await db.owner.findAll({ where: mine, order: ['name'] })).map(({ id, name }) => ({ id, name }));
    },
  };
}
export type FleetService = ReturnType<typeof fleetService>;
