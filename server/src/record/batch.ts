import { createHash, randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { z } from 'zod';
import {
  canonicalJson,
  meterReadSchema,
  unitFactsSchema,
  type MeterState,
  type Recorder,
  type Unit,
} from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { append } from './append.ts';

const AT_ONCE = 1_000;

/** SHA-256 over rows in their order, a line of canonical JSON each. */
export function rowsHash(): { add: (row: unknown) => void; end: () => string } {
  const hash = createHash('sha256');
  return { add: (row) => hash.update(`${canonicalJson(row)}\n`), end: () => hash.digest('hex') };
}

/**
 * Records a file or the answer of a feed as one entry that carries the hash of its rows; the rows stand beside it and
 * are proved with it.
 * @param what kind of batch, as `fleet-file`
 */
export async function appendBatch(
  db: Database,
  what: string,
  rows: readonly object[],
  { by, at }: { by: Recorder; at: string },
): Promise<void> {
  const id = randomUUID();
  const hash = rowsHash();
  for (const row of rows) hash.add(row);
  for (let i = 0; i < rows.length; i += AT_ONCE)
    await db.batchRow.bulkCreate(
      rows.slice(i, i + AT_ONCE).map((row, n) => ({ batchId: id, n: i + n, row })),
    );
  const body = { kind: 'batch-taken', what, rows: rows.length, rowsHash: hash.end() };
  await append(db, { id: randomUUID(), stream: 'batch', streamId: id, version: 1, at, by, body });
}

/** A row of a fleet file: a unit as it came in, and its meters where the file had them. */
export const fleetRowSchema = z.object({
  id: z.uuid(),
  unit: unitFactsSchema,
  meter: meterReadSchema.nullable(),
});
export type FleetRow = z.output<typeof fleetRowSchema>;

/** What the streams of a unit begin with: the row of the fleet file it came in with, or nothing. */
export interface Beginning {
  unit: Unit | null;
  meter: MeterState | null;
}

export function beginningOf(row: FleetRow): Beginning {
  return {
    unit: { ...row.unit, version: 0, takenOut: [] },
    meter: row.meter && { version: 0, reads: [row.meter] },
  };
}

/** What the streams of this unit begin with. */
export async function beginningOfUnit(db: Database, unitId: string): Promise<Beginning> {
  const [found] = await db.sequelize.query<{ row: unknown }>(
    `select row from batch_row where row ->> 'id' = $1`,
    { type: QueryTypes.SELECT, bind: [unitId] },
  );
  return found ? beginningOf(fleetRowSchema.parse(found.row)) : { unit: null, meter: null };
}
