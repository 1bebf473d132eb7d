import { QueryTypes } from 'sequelize';
import { z } from 'zod';
import {
  broughtReadsSchema,
  meterReadSchema,
  replay,
  replayMeters,
  toldSchema,
  unitAggregate,
  unitFactsSchema,
  type BroughtReads,
  type Entry,
  type MeterState,
  type Unit,
} from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';

/** A row of a fleet file: a unit as it came in, and its meters where the file had them. */
const fleetRowSchema = z.object({
  id: z.uuid(),
  unit: unitFactsSchema,
  meter: meterReadSchema.nullable(),
  /** What was done on its wheel ends before, as the file says it. */
  told: toldSchema.default([]),
});
export type FleetRow = z.output<typeof fleetRowSchema>;

/** What batches hold of a unit: the row of the fleet file it came in with, and readings that came in later. */
export interface FromBatches {
  unit: Unit | null;
  meter: MeterState | null;
  brought: BroughtReads[];
}

const nothing = (): FromBatches => ({ unit: null, meter: null, brought: [] });

export const beginningOf = (row: FleetRow): FromBatches => ({
  unit: { ...row.unit, version: 0, takenOut: [], told: row.told, duty: [] },
  meter: row.meter && { version: 0, reads: [row.meter], swaps: [] },
  brought: [],
});

const ROWS = `
  select b.row from batch_row b join entry e on e.stream = 'batch' and b.batch_id = e.stream_id ::uuid
  where b.row ->> 'id' = any($1 ::text[]) or (b.row ? 'unitId' and b.row ->> 'unitId' = any($1 ::text[]))
  order by e.seq, b.n`;

/** What batches hold of these units; of each something, be it nothing. */
export async function fromBatches(db: Database, ids: readonly string[]): Promise<Map<string, FromBatches>> {
  const rows = await db.sequelize.query<{ row: object }>(ROWS, { type: QueryTypes.SELECT, bind: [ids] });
  const found = new Map(ids.map((id) => [id, nothing()]));
  for (const { row } of rows) {
    if ('unitId' in row) {
      const reads = broughtReadsSchema.parse(row);
      found.get(reads.unitId)!.brought.push(reads);
    } else {
      const begun = fleetRowSchema.parse(row);
      const { unit, meter } = beginningOf(begun);
      Object.assign(found.get(begun.id)!, { unit, meter });
    }
  }
  return found;
}

export const fromBatchesOf = async (db: Database, id: string): Promise<FromBatches> =>
  (await fromBatches(db, [id])).get(id)!;

/** What the records of a unit come to. @param of what batches hold of it */
export const unitOf = (entries: readonly Entry[], { unit }: FromBatches) =>
  replay(unitAggregate, entries, unit);

/** What the records of a unit's meters come to. @param of what batches hold of it */
export const metersOf = (entries: readonly Entry[], { meter, brought }: FromBatches) =>
  replayMeters(entries, brought, meter);

/** Streams that batches hold something of. */
export const withBatches = { unit: unitOf, meter: metersOf };
