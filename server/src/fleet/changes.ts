import { randomUUID } from 'node:crypto';
import { col, fn, Op, Transaction, UniqueConstraintError, where } from 'sequelize';
import { numbered } from '@lanternwright/core/axle-plan';
import { addDays } from '@lanternwright/core/interval';
import type { Sheet, TorqueKey } from '@lanternwright/core/procedure';
import {
  meterAggregate,
  unitAggregate,
  type MeterCommand,
  type MeterRead,
  type MeterState,
  type Unit,
  type UnitCommand,
  type UnitFacts,
} from '@lanternwright/core/record';
import { meterKm, type Meter } from '@lanternwright/core/traveller';
import type { ChangeAxles, NewUnit, Owner } from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import { appendBatch, beginningOfUnit, type FleetRow } from '../record/batch.ts';
import type { Clock } from '../shop/clock.ts';

const dateOf = (iso: string | null) => (iso === null ? null : new Date(iso));

/** A reading of that day; null where neither meter was read. */
function readOf(date: string, meter: Meter, source: MeterRead['source']): MeterRead | null {
  const { distance = null, hours } = meter;
  if (!distance && !hours) return null;
  return { date, distance, km: meterKm(meter), hours: hours?.value ?? null, source };
}

/** What is changed about units, axles and meters: recorded, and written into rows. */
export function fleetChanges(db: Database, clock: Clock) {
  /** Where a unit came in with a file, its streams begin with that file's row. */
  const changeUnit = async (id: string, command: UnitCommand, asked: Asked): Promise<Unit> =>
    change(db, unitAggregate, id, command, asked, (await beginningOfUnit(db, id)).unit);
  const changeMeter = async (id: string, command: MeterCommand, asked: Asked): Promise<MeterState> =>
    change(db, meterAggregate, id, command, asked, (await beginningOfUnit(db, id)).meter);

  async function insertMeter(
    unitId: string,
    nth: number,
    { date, distance, km, hours }: MeterRead,
  ): Promise<void> {
    await db.meterReading.create({ unitId, nth, date, distance, km, hours });
  }

  async function recordMeter(
    unitId: string,
    date: string,
    meter: Meter,
    source: MeterRead['source'],
    asked: Asked,
  ): Promise<void> {
    const read = readOf(date, meter, source);
    if (!read) return;
    const { reads } = await changeMeter(unitId, { kind: 'read', read }, asked);
    await insertMeter(unitId, reads.length - 1, read);
  }

  /**
   * Puts a meter reading right that was taken within a day of `at`; where there is none, it is added.
   */
  async function correctMeter(
    unitId: string,
    at: string,
    wrong: Meter,
    right: Meter,
    asked: Asked,
  ): Promise<void> {
    const day = at.slice(0, 10);
    const date = { [Op.between]: [addDays(day, -1), addDays(day, 1)] };
    const row = await db.meterReading.findOne({
      where: { unitId, km: meterKm(wrong), hours: wrong.hours?.value ?? null, date },
    });
    if (!row) return recordMeter(unitId, day, right, 'job', asked);
    const read = readOf(row.date, right, 'job');
    await changeMeter(unitId, { kind: 'correct', nth: row.nth, right: read }, asked);
    if (read) await row.update(read);
    else await row.destroy();
  }

  async function ownerByName(name: string): Promise<Owner> {
    // Two at once with a new owner make one.
    await db.sequelize.query(
      'insert into owner (id, name) values (:id, :name) on conflict (lower(name)) do nothing',
      { replacements: { id: randomUUID(), name } },
    );
    const owner = await db.owner.findOne({
      where: where(fn('lower', col('name')), fn('lower', name)),
    });
    return { id: owner!.id, name: owner!.name };
  }

  /** Writes a unit's rows as its record has it. */
  async function projectUnit(id: string, state: Unit): Promise<void> {
    const { unit, axles: list } = unitAggregate.project(state);
    await db.unit.update({ version: unit.version }, { where: { id } });
    // Those that are taken out first: their numbers are free then.
    const rows = list.map((axle) => ({ ...axle, unitId: id, takenOutAt: dateOf(axle.takenOutAt) }));
    rows.sort((a, b) => Number(a.takenOutAt === null) - Number(b.takenOutAt === null));
    await db.axle.bulkCreate(rows, {
      updateOnDuplicate: ['number', 'role', 'wheels', 'brake', 'sheet', 'takenOutAt'],
    });
  }

  /** Fills in figures that an axle's sheet does not have; one it has stays, and so does a sheet that was changed for another. */
  async function fillSheet(
    at: { unitId: string; axleId: string; sheetId: string },
    figures: Partial<Pick<Sheet, TorqueKey>>,
    asked: Asked,
  ): Promise<void> {
    const row = await db.axle.findOne({ where: { id: at.axleId, takenOutAt: null } });
    if (!row || row.sheet.sheetId !== at.sheetId) return;
    const missing = Object.entries(figures).filter(([key]) => !row.sheet[key as TorqueKey]);
    if (missing.length === 0) return;
    const command = {
      kind: 'fill-figures',
      axleId: at.axleId,
      figures: Object.fromEntries(missing),
    } as const;
    await projectUnit(at.unitId, await changeUnit(at.unitId, command, asked));
  }

  /** The rows of a new unit. @throws HttpProblem 422 when the owner has one of that name */
  async function insertUnit(
    id: string,
    { owner, name, unitKind, plate, axles: list }: UnitFacts,
  ): Promise<void> {
    try {
      await db.unit.create({ id, ownerId: owner.id, name, kind: unitKind, plate });
    } catch (error) {
      if (error instanceof UniqueConstraintError)
        throw refused(`${owner.name} has a unit named ${name} already`, 'name');
      throw error;
    }
    await db.axle.bulkCreate(list.map((axle) => ({ ...axle, unitId: id })));
  }

  async function factsOf({ owner, name, kind, plate, axles: list }: NewUnit): Promise<UnitFacts> {
    const placed = numbered(list).map((axle) => ({ ...axle, id: randomUUID() }));
    return { owner: await ownerByName(owner), name, unitKind: kind, plate, axles: placed };
  }

  async function addIn(wanted: NewUnit, asked: Asked): Promise<string> {
    const id = randomUUID();
    const unit = await factsOf(wanted);
    await insertUnit(id, unit);
    await projectUnit(id, await changeUnit(id, { kind: 'add', unit }, asked));
    await recordMeter(id, clock.today(), wanted.meter, 'by-hand', asked);
    return id;
  }

  return {
    recordMeter,
    correctMeter,
    fillSheet,

    /** Brings units in from a file, in the open transaction: one entry of the record for all of them. */
    async bringIn(units: readonly NewUnit[], asked: Asked): Promise<void> {
      const rows: FleetRow[] = [];
      for (const wanted of units) {
        const unit = await factsOf(wanted);
        const row = { id: randomUUID(), unit, meter: readOf(clock.today(), wanted.meter, 'file') };
        rows.push(row);
        await insertUnit(row.id, unit);
        if (row.meter) await insertMeter(row.id, 0, row.meter);
      }
      await appendBatch(db, 'fleet-file', rows, asked);
    },

    async add(unit: NewUnit, asked: Asked): Promise<{ id: string }> {
      return { id: await inTransaction(db, () => addIn(unit, asked)) };
    },

    /** @throws HttpProblem 409 when the unit was changed since, 422 where an axle's number would change */
    async replaceAxles(
      id: string,
      { seenVersion, axles: list }: ChangeAxles,
      asked: Asked,
    ): Promise<{ id: string }> {
      return inTransaction(db, async (transaction) => {
        // Two at once stand in line here.
        const unit = await db.unit.findByPk(id, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });
        if (!unit) throw notFound('unit');
        const axles = list.map((axle) => ({ ...axle, id: axle.id ?? randomUUID() }));
        const command = { kind: 'change-axles', axles } as const;
        await projectUnit(id, await changeUnit(id, command, { ...asked, expected: seenVersion }));
        return { id };
      });
    },
  };
}
