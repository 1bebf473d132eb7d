import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Client } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import type { Database } from './connect.ts';
import { currentTransaction } from './transaction-context.ts';

/** A value as a field of COPY's text format. */
function field(value: string | number | object | null): string {
  if (value === null) return '\\N';
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value);
  return text.replace(/[\\\n\r\t]/g, (c) => `\\${{ '\\': '\\', '\n': 'n', '\r': 'r', '\t': 't' }[c]}`);
}

const AT_ONCE = 1_000;

async function* linesOf(rows: AsyncIterable<Row> | Iterable<Row>): AsyncGenerator<string> {
  let piece: string[] = [];
  for await (const row of rows) {
    piece.push(row.map(field).join('\t'));
    if (piece.length === AT_ONCE) {
      yield `${piece.join('\n')}\n`;
      piece = [];
    }
  }
  if (piece.length > 0) yield `${piece.join('\n')}\n`;
}

export type Row = readonly (string | number | object | null)[];

/**
 * Writes many rows by COPY in the open transaction. PostgreSQL does not copy into a table whose rows it keeps apart by
 * owner: into a temporary one, and from there.
 * @param into table and columns, as `meters_in (unit_id, km)`
 */
export async function copyIn(
  { sequelize }: Database,
  into: string,
  rows: AsyncIterable<Row> | Iterable<Row>,
): Promise<void> {
  const open = currentTransaction(sequelize) as { connection?: Client } | null;
  if (!open?.connection) throw new Error('COPY runs inside a transaction');
  await pipeline(Readable.from(linesOf(rows)), open.connection.query(copyFrom(`copy ${into} from stdin`)));
}
