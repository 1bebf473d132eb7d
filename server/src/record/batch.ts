import { createHash, randomUUID } from 'node:crypto';
import { canonicalJson, type Recorder } from '@lanternwright/core/record';
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
    await db.sequelize.query(
      `insert into batch_row (batch_id, n, row)
       select $1 ::uuid, $2 ::int + nth - 1, row from jsonb_array_elements($3 ::jsonb) with ordinality as r(row, nth)`,
      { bind: [id, i, JSON.stringify(rows.slice(i, i + AT_ONCE))] },
    );
  const body = { kind: 'batch-taken', what, rows: rows.length, rowsHash: hash.end() };
  await append(db, { id: randomUUID(), stream: 'batch', streamId: id, version: 1, at, by, body });
}
