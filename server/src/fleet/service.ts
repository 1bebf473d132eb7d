import { literal } from 'sequelize';
import type { Owner, ReadingRow } from '@lanternwright/contract/fleet';
import type { PlacedAxle } from '@lanternwright/core/axle-plan';
import type { Database } from '../database/connect.ts';
import { grouped } from '../database/grouped.ts';
import type { ReadingTable } from '../jobs/model.ts';
import { ownOnly, type Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';
import { fleetChanges } from './changes.ts';
import { finder } from './find.ts';
import { fleetPages } from './fleet-page.ts';
import { unitHistory } from './history.ts';
import { fleetOverview } from './overview.ts';
import { metersService } from './meters.ts';
import type { AxleRow } from './model.ts';
import { unitPage } from './unit-page.ts';

/** Rows follow from the record through today's schema: after a change of shape they are rebuilt, not read anew each time. */
const toAxle = ({ id, number, role, wheels, brake, sheet }: AxleRow): PlacedAxle => ({
  ...{ id, number, role, wheels, brake, sheet },
});

function toReading(row: ReadingTable): ReadingRow {
  const { jobId, axleId, position, round, endPlayMm, rangeMm, cycles, verdict, at, byName, km, final } = row;
  const figures = { endPlayMm, rangeMm, cycles, verdict, km, final };
  return { jobId, axleId, position, round, ...figures, at: at.toISOString(), by: byName };
}

/** Units, their axles and what is known about their wheel ends. */
export function fleetService(db: Database, clock: Clock) {
  const meters = metersService(db, clock);

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

  async function axles(unitId: string): Promise<PlacedAxle[]> {
    return (await db.axle.findAll({ where: { unitId, takenOutAt: null }, order: ['number'] })).map(toAxle);
  }

  const pages = fleetPages(db);

  return {
    axles,
    readings,
    meters,
    ...fleetChanges(db, clock, meters),

    /** The axles of units, by their ids. */
    async axlesOf(unitIds: readonly string[]): Promise<Map<string, PlacedAxle[]>> {
      const where = { unitId: [...unitIds], takenOutAt: null };
      const groups = grouped(await db.axle.findAll({ where, order: ['number'] }), (a) => a.unitId);
      return new Map([...groups].map(([unitId, rows]) => [unitId, rows.map(toAxle)]));
    },

    /** What the office knows of units, by their ids; nothing for an owner's contact. */
    async remarksOf(unitIds: readonly string[], viewer: Viewer): Promise<Map<string, string>> {
      if (viewer.owners !== 'all') return new Map();
      const rows = await db.unit.findAll({
        where: { id: [...unitIds] },
        attributes: ['id', 'remarks'],
        raw: true,
      });
      return new Map(rows.map((row) => [row.id, row.remarks]));
    },

    page: pages.page,
    overview: fleetOverview(db, clock),
    find: finder(db),
    some: pages.some,

    /** Every unit somebody may see, by owner and name: the ids. */
    async ids(viewer: Viewer): Promise<string[]> {
      const rows = await db.unit.findAll({
        attributes: ['id'],
        where: ownOnly(viewer),
        include: [{ model: db.owner, as: 'owner', attributes: [] }],
        order: [literal('owner.name collate natural_order, unit.name collate natural_order, unit.id')],
        raw: true,
      });
      return rows.map((r) => r.id);
    },

    unit: unitPage(db, clock),

    history: unitHistory(db),

    async owners({ owners }: Viewer): Promise<Owner[]> {
      const mine = owners === 'all' ? {} : { id: owners };
      return (await db.owner.findAll({ where: mine, order: ['name'] })).map(({ id, name }) => ({ id, name }));
    },
  };
}
export type FleetService = ReturnType<typeof fleetService>;
