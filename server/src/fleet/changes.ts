import { randomUUID } from 'node:crypto';
import { Op, QueryTypes, Transaction, UniqueConstraintError } from 'sequelize';
import { movedLayers } from '@lanternwright/core/assembly';
import { numbered, type PlacedAxle } from '@lanternwright/core/axle-plan';
import { stackOfSheet, type Sheet, type TorqueKey } from '@lanternwright/core/procedure';
import { layerOf, layerTitles, type Work } from '@lanternwright/core/stack';
import {
  toldOfAll,
  unitAggregate,
  type Unit,
  type UnitCommand,
  type UnitFacts,
} from '@lanternwright/core/record';
import type {
  ChangeAxles,
  NewUnit,
  Owner,
  SetDuty,
  SetRemarks,
  TellService,
  TellServices,
} from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { grouped } from '../database/grouped.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { notFound, refused } from '../http/problem.ts';
import { change, type Asked } from '../record/append.ts';
import { appendBatch } from '../record/batch.ts';
import { beginningOf, fromBatchesOf, unitOf, type FleetRow } from '../record/beginning.ts';
import { insertRows } from '../record/insert-rows.ts';
import { refreshDue } from '../plan/refresh-due.ts';
import type { Clock } from '../shop/clock.ts';
import { readOf, type MetersService } from './meters.ts';

/** SQL: works ($2) of units ($1) of which nobody knows when they were done last, by wheel end. */
const UNKNOWN_SERVICES = `
  select unit_id as "unitId", position, array_agg(work order by work) as works from due
  where unit_id = any($1 ::uuid[]) and work = any($2 ::text[]) and missing @> '["last"]'
  group by unit_id, position order by unit_id, position`;

const dateOf = (iso: string | null) => (iso === null ? null : new Date(iso));

/** What is changed about units and axles: recorded, and written into rows. */
export function fleetChanges(db: Database, clock: Clock, meters: MetersService) {
  /** Where a unit came in with a file, its streams begin with that file's row. */
  async function changeUnit(id: string, command: UnitCommand, asked: Asked): Promise<Unit> {
    const begun = await fromBatchesOf(db, id);
    return change(db, unitAggregate, id, command, asked, (entries) => unitOf(entries, begun));
  }

  async function ownerByName(name: string): Promise<Owner> {
    // Two at once with a new owner make one.
    await db.sequelize.query(
      'insert into owner (id, name) values ($1, $2) on conflict (lower(name)) do nothing',
      { bind: [randomUUID(), name] },
    );
    const [owner] = await db.sequelize.query<Owner>(
      'select id, name from owner where lower(name) = lower($1)',
      { type: QueryTypes.SELECT, bind: [name] },
    );
    return owner!;
  }

  const insertTold = (id: string, told: Unit['told']) =>
    insertRows(
      db,
      'service_told',
      told.map((t, nth) => ({ ...t, nth, unitId: id })),
    );

  /** Writes a unit's rows as its record has it. */
  async function projectUnit(id: string, state: Unit): Promise<void> {
    const { unit, axles: list, told } = unitAggregate.project(state);
    const { version, duty, remarks } = unit;
    await db.unit.update({ version, duty, remarks }, { where: { id } });
    // Those that are taken out first: their numbers are free then.
    const rows = list.map((axle) => ({ ...axle, unitId: id, takenOutAt: dateOf(axle.takenOutAt) }));
    rows.sort((a, b) => Number(a.takenOutAt === null) - Number(b.takenOutAt === null));
    await db.axle.bulkCreate(rows, {
      updateOnDuplicate: ['number', 'role', 'wheels', 'brake', 'sheet', 'takenOutAt'],
    });
    await db.sequelize.query('delete from service_told where unit_id = $1', { bind: [id] });
    await insertTold(id, told);
    await refreshDue(db, [id]);
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
    { owner, name, unitKind, plate, remarks, axles: list }: UnitFacts,
  ): Promise<void> {
    try {
      await db.unit.create({ id, ownerId: owner.id, name, kind: unitKind, plate, remarks });
    } catch (error) {
      if (error instanceof UniqueConstraintError)
        throw refused(`${owner.name} has a unit named ${name} already`, 'name');
      throw error;
    }
    await db.axle.bulkCreate(list.map((axle) => ({ ...axle, unitId: id })));
  }

  /** A layer that a job left off or open stays in the stack: only a job says what it is instead. */
  async function verifyStacks(axles: readonly PlacedAxle[]): Promise<void> {
    const left = await db.wheelEnd.findAll({
      where: { axleId: axles.map((a) => a.id), assembly: { [Op.not]: null } },
    });
    for (const { axleId, position, assembly } of left) {
      const axle = axles.find((a) => a.id === axleId)!;
      const stack = stackOfSheet(axle.sheet, axle) ?? [];
      const lost = assembly && movedLayers(assembly).find((id) => !layerOf(stack, id));
      if (lost)
        throw refused(
          `${position} was left with “${layerTitles[lost]}” off or not finished, and this sheet has no such layer. Change the sheet in a job on ${position}.`,
          'axles',
        );
    }
  }

  function mustBePast(date: string): void {
    if (date > clock.today()) throw refused('This day is still to come', 'date');
  }

  /**
   * Changes a unit that is held meanwhile: two at once stand in line here.
   * @param verify looked at before, while it is held
   */
  async function changeHeld(
    id: string,
    command: UnitCommand,
    asked: Asked,
    verify: () => Promise<void> = () => Promise.resolve(),
  ): Promise<{ id: string }> {
    return inTransaction(db, async (transaction) => {
      const unit = await db.unit.findByPk(id, { transaction, lock: Transaction.LOCK.NO_KEY_UPDATE });
      if (!unit) throw notFound('unit');
      await verify();
      await projectUnit(id, await changeUnit(id, command, asked));
      return { id };
    });
  }

  async function factsOf({
    owner,
    name,
    kind,
    plate,
    remarks,
    told,
    axles: list,
  }: NewUnit): Promise<UnitFacts> {
    const early = told.find(({ date }) => date > clock.today());
    if (early) throw refused(`${name}: ${early.date} is still to come`, 'told');
    const placed = numbered(list).map((axle) => ({ ...axle, id: randomUUID() }));
    return { owner: await ownerByName(owner), name, unitKind: kind, plate, axles: placed, remarks };
  }

  async function addIn(wanted: NewUnit, asked: Asked): Promise<string> {
    const id = randomUUID();
    const unit = await factsOf(wanted);
    await insertUnit(id, unit);
    let state = await changeUnit(id, { kind: 'add', unit }, asked);
    for (const { position, date, works } of toldOfAll(unit.axles, wanted.told))
      state = await changeUnit(id, { kind: 'tell-service', position, date, works }, asked);
    await projectUnit(id, state);
    await meters.record(id, clock.today(), wanted.meter, 'by-hand', asked);
    return id;
  }

  return {
    recordMeter: meters.record,
    correctMeter: meters.correctJobs,
    fillSheet,

    /** Brings units in from a file, in the open transaction: one entry of the record for all of them. */
    async bringIn(units: readonly NewUnit[], asked: Asked): Promise<void> {
      const rows: FleetRow[] = [];
      const added: string[] = [];
      for (const wanted of units) {
        const unit = await factsOf(wanted);
        const told = toldOfAll(unit.axles, wanted.told);
        const row = { id: randomUUID(), unit, meter: readOf(clock.today(), wanted.meter, 'file'), told };
        rows.push(row);
        await insertUnit(row.id, unit);
        await insertTold(row.id, told);
        await meters.write(row.id, null, beginningOf(row).meter);
        added.push(row.id);
      }
      await appendBatch(db, 'fleet-file', rows, asked);
      await refreshDue(db, added);
    },

    async add(unit: NewUnit, asked: Asked): Promise<{ id: string }> {
      return { id: await inTransaction(db, () => addIn(unit, asked)) };
    },

    /** Tells when works were done on a wheel end that no job here tells of. */
    async tellService(
      id: string,
      { position, date, works }: TellService,
      asked: Asked,
    ): Promise<{ id: string }> {
      mustBePast(date);
      return changeHeld(id, { kind: 'tell-service', position, date, works }, asked);
    },

    /** Tells of several units when works were done, on all wheel ends of which that is not known; all of it or nothing. */
    async tellServices(
      { unitIds, date, works }: TellServices,
      asked: Asked,
    ): Promise<{ wheelEnds: number; units: number }> {
      mustBePast(date);
      return inTransaction(db, async (transaction) => {
        // In one order always, so that two who tell at once do not wait for each other.
        const where = { id: unitIds };
        const lock = Transaction.LOCK.NO_KEY_UPDATE;
        const found = await db.unit.findAll({ where, order: ['id'], attributes: ['id'], transaction, lock });
        if (found.length < new Set(unitIds).size) throw notFound('unit');
        const unknown = await db.sequelize.query<{ unitId: string; position: string; works: Work[] }>(
          UNKNOWN_SERVICES,
          { type: QueryTypes.SELECT, bind: [unitIds, works] },
        );
        const byUnit = grouped(unknown, (u) => u.unitId);
        for (const [id, wheelEnds] of byUnit) {
          let state: Unit | null = null;
          for (const { position, works: done } of wheelEnds)
            state = await changeUnit(id, { kind: 'tell-service', position, date, works: done }, asked);
          await projectUnit(id, state!);
        }
        return { wheelEnds: unknown.length, units: byUnit.size };
      });
    },

    /** Says what the office knows of a unit. @throws HttpProblem 409 when the unit was changed since */
    setRemarks: (id: string, { seenVersion, remarks }: SetRemarks, asked: Asked) =>
      changeHeld(id, { kind: 'say-remarks', remarks }, { ...asked, expected: seenVersion }),

    /** Says what makes the unit's work come sooner. @throws HttpProblem 409 when the unit was changed since */
    setDuty: (id: string, { seenVersion, duty }: SetDuty, asked: Asked) =>
      changeHeld(id, { kind: 'say-duty', duty }, { ...asked, expected: seenVersion }),

    /** @throws HttpProblem 409 when the unit was changed since, 422 where an axle's number would change */
    async replaceAxles(
      id: string,
      { seenVersion, axles: list }: ChangeAxles,
      asked: Asked,
    ): Promise<{ id: string }> {
      const axles = list.map((axle) => ({ ...axle, id: axle.id ?? randomUUID() }));
      const seen = { ...asked, expected: seenVersion };
      return changeHeld(id, { kind: 'change-axles', axles }, seen, () => verifyStacks(axles));
    },
  };
}
