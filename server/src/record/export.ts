import { createWriteStream } from 'node:fs';
import { copyFile, mkdir, readdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileURLToPath } from 'node:url';
import papaparse from 'papaparse';
import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { toLink, type RawEntry } from './model.ts';
import { publicKeysIn, sealsIn, sealsOf } from './seals.ts';
import { tables } from './tables.ts';

const beside = join(dirname(fileURLToPath(import.meta.url)), '../../export');
const AT_ONCE = 2_000;
const PHOTOS_AT_ONCE = 20;

async function* rowsOf<T>(
  db: Database,
  sql: string,
  bind: unknown[] = [],
  atOnce = AT_ONCE,
): AsyncGenerator<T> {
  for (let offset = 0; ; offset += atOnce) {
    const rows = await db.sequelize.query(`${sql} limit ${atOnce} offset ${offset}`, {
      type: QueryTypes.SELECT,
      bind,
    });
    yield* rows as T[];
    if (rows.length < atOnce) return;
  }
}

async function* entries(db: Database): AsyncGenerator<object> {
  for (let seq = 0; ;) {
    const rows = await db.sequelize.query<RawEntry>(
      `select * from entry where seq > $1 order by seq limit ${AT_ONCE}`,
      { type: QueryTypes.SELECT, bind: [seq] },
    );
    if (rows.length === 0) return;
    yield* rows.map(toLink);
    seq = Number(rows.at(-1)!.seq);
  }
}

async function writeLines(path: string, values: AsyncIterable<unknown> | Iterable<unknown>): Promise<void> {
  async function* lines() {
    for await (const value of values) yield `${JSON.stringify(value)}\n`;
  }
  await pipeline(Readable.from(lines()), createWriteStream(path));
}

/** A value as a spreadsheet takes it; what is nested as JSON. */
const cell = (value: unknown) =>
  value instanceof Date
    ? value.toISOString()
    : value !== null && typeof value === 'object'
      ? JSON.stringify(value)
      : value;

async function writeTable(
  db: Database,
  folder: string,
  name: string,
  columns: readonly string[],
): Promise<void> {
  const list = columns.map((c) => `"${c}"`).join(', ');
  const sql = `select ${list} from ${name} order by ${columns[0]}, ${columns[1]}`;
  await writeLines(join(folder, 'rows', `${name}.jsonl`), rowsOf<object>(db, sql));
  async function* csv() {
    yield `${papaparse.unparse([columns as string[]])}\r\n`;
    for await (const row of rowsOf<Record<string, unknown>>(db, sql))
      yield `${papaparse.unparse([columns.map((c) => cell(row[c]))], { escapeFormulae: true })}\r\n`;
  }
  await pipeline(Readable.from(csv()), createWriteStream(join(folder, 'csv', `${name}.csv`)));
}

/**
 * Writes everything on record into an empty folder, as open files that prove themselves. The shop goes on meanwhile:
 * what is written is as it stood at one moment.
 * @param home folder of the seals; null where the record is not sealed
 * @throws Error where the folder is not empty
 */
export async function exportRecord(db: Database, home: string | null, folder: string): Promise<void> {
  for (const name of ['', 'photos', 'certificates', 'rows', 'csv'])
    await mkdir(join(folder, name), { recursive: true });
  const there = (await readdir(folder)).filter(
    (name) => !['photos', 'certificates', 'rows', 'csv'].includes(name),
  );
  if (there.length > 0) throw new Error(`The folder ${folder} is not empty: name another`);
  // Read first: every record they seal is in what is written after.
  const seals = home === null ? [] : await sealsIn(home);
  await inTransaction(db, async () => {
    await db.sequelize.query('set transaction isolation level repeatable read read only');
    await writeLines(join(folder, 'record.jsonl'), entries(db));
    await writeLines(
      join(folder, 'notes.jsonl'),
      rowsOf(
        db,
        'select seq::int, found, fault, reason, person_name as "by", at from chain_note order by seq',
      ),
    );
    await writeLines(
      join(folder, 'batches.jsonl'),
      rowsOf(db, 'select batch_id as "batchId", n, row from batch_row order by batch_id, n'),
    );
    await writeLines(join(folder, 'seals-of-database.jsonl'), await sealsOf(db));
    for (const { name, columns } of tables) await writeTable(db, folder, name, columns);
    const photos = rowsOf<{ id: string; jpeg: Buffer }>(
      db,
      'select id, jpeg from photo order by id',
      [],
      PHOTOS_AT_ONCE,
    );
    for await (const { id, jpeg } of photos) await writeFile(join(folder, 'photos', `${id}.jpg`), jpeg);
    const certificates = rowsOf<{ id: string; type: string; bytes: Buffer }>(
      db,
      'select id, type, bytes from certificate order by id',
      [],
      PHOTOS_AT_ONCE,
    );
    for await (const { id, type, bytes } of certificates)
      await writeFile(join(folder, 'certificates', `${id}.${type === 'image/jpeg' ? 'jpg' : 'pdf'}`), bytes);
  });
  if (home !== null) {
    await writeLines(join(folder, 'seals.jsonl'), seals);
    for (const [file, { pem }] of await publicKeysIn(home)) await writeFile(join(folder, file), pem);
  }
  for (const name of ['README.md', 'verify.mjs']) await copyFile(join(beside, name), join(folder, name));
}
