import { randomUUID } from 'node:crypto';
import { sheetSchema } from '@lanternwright/core/procedure';
import { program, type Entry, type StreamKind } from '@lanternwright/core/record';
import { toolSchema } from '@lanternwright/core/tool';
import type { Database } from '../database/connect.ts';
import { grouped } from '../database/grouped.ts';
import { appendMany } from './append.ts';

/**
 * Begins the record of what had none: units with their axles and meters, tools, sheets, people, the numbers of jobs.
 * Each is taken over as it stands now, by the program. A step of the migration: it is done once, so that what is put
 * into a table later without a record is found.
 */
export async function takeOver(db: Database): Promise<void> {
  const at = new Date().toISOString();
  const entries: Entry[] = [];
  const begin = (stream: StreamKind, streamId: string, body: object) =>
    entries.push({ id: randomUUID(), stream, streamId, version: 1, at, by: program, body });

  const axles = grouped(await db.axle.findAll({ order: ['number'] }), (a) => a.unitId);
  for (const { id, name, kind: unitKind, plate, owner } of await db.unit.findAll({
    // What stood there then; later columns do not yet.
    attributes: ['id', 'name', 'kind', 'plate'],
    include: [{ model: db.owner, as: 'owner' }],
  })) {
    const placed = (axles.get(id) ?? []).map(({ id: axleId, number, role, wheels, brake, sheet }) => ({
      ...{ id: axleId, number, role, wheels, brake },
      sheet: sheetSchema.parse(sheet),
    }));
    const whose = { id: owner!.id, name: owner!.name };
    const facts = { owner: whose, name, unitKind, plate, axles: placed, remarks: '' };
    begin('unit', id, { kind: 'unit-taken-over', unit: facts });
  }
  const meters = grouped(
    await db.meterReading.findAll({
      attributes: ['unitId', 'date', 'distance', 'km', 'hours'],
      order: ['nth'],
    }),
    (m) => m.unitId,
  );
  for (const [unitId, rows] of meters)
    begin('meter', unitId, {
      kind: 'meters-taken-over',
      reads: rows.map(({ date, distance, km, hours }) => ({
        date,
        distance,
        km,
        hours,
        source: 'taken-over',
      })),
    });
  for (const { id, tool, retiredAt } of await db.tool.findAll({
    attributes: ['id', 'tool', 'retiredAt'],
  }))
    begin('tool', id, { kind: 'tool-taken-over', tool: toolSchema.parse(tool), retired: retiredAt !== null });
  const sheets = grouped(await db.sheetRevision.findAll({ order: ['revision'] }), (s) => s.sheetId);
  for (const [sheetId, rows] of sheets)
    begin('sheet', sheetId, {
      kind: 'sheet-taken-over',
      revisions: rows.map(({ sheet, note, at: when, by }) => ({
        ...{ note, by, at: when.toISOString() },
        sheet: sheetSchema.parse(sheet),
      })),
    });
  for (const { id, name, role, switchedOffAt, owners = [] } of await db.person.findAll({
    attributes: ['id', 'name', 'role', 'switchedOffAt'],
    include: [{ model: db.owner, as: 'owners' }],
  }))
    begin('person', id, {
      ...{ kind: 'person-taken-over', name, role, owners: owners.map((o) => o.id).sort() },
      switchedOff: switchedOffAt != null,
    });
  const jobs = await db.job.findAll({ attributes: ['id', 'number'] });
  if (jobs.length > 0) {
    const numbers = Object.fromEntries(jobs.map(({ id, number }) => [id, number]));
    begin('shop', 'shop', { kind: 'jobs-numbered', numbers });
  }
  if (entries.length === 0) return;
  await appendMany(db, entries);
}
