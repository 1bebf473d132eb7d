import { QueryTypes } from 'sequelize';
import { replay, type Entry, type StreamKind } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { CHAIN_LOCK, endOfRecord } from './append.ts';
import { beginningOf, fleetRowSchema, type Beginning } from './batch.ts';
import { jobsNumberedSchema, kindsOf, type Kind } from './kinds.ts';
import { toEntry } from './model.ts';
import { closeBeside, firstDifference, keepWorking, openBeside, swapIn } from './tables.ts';

/** A stream whose records come to nothing; its rows stay as they were. */
interface Aside {
  stream: StreamKind;
  streamId: string;
  reason: string;
}

export interface Rebuilt {
  streams: number;
  aside: Aside[];
}

/** Streams, or rows of batches, that are read at once. */
const A_PAGE = 200;

/** Numbers that a migration gave to jobs from before a job's opening named its own. */
async function jobNumbers(db: Database): Promise<ReadonlyMap<string, number>> {
  const rows = await db.entry.findAll({ where: { stream: 'shop' }, attributes: ['body'], raw: true });
  return new Map(
    rows.flatMap(({ body }) => {
      const numbered = jobsNumberedSchema.safeParse(body);
      return numbered.success ? Object.entries(numbered.data.numbers) : [];
    }),
  );
}

/** What units that came in with files begin with, a page at a time. */
async function* beginnings(db: Database): AsyncGenerator<Map<string, Beginning>> {
  for (let after = ''; ;) {
    const rows = await db.sequelize.query<{ row: unknown }>(
      `select row from batch_row where row ->> 'id' > $1 order by row ->> 'id' limit ${A_PAGE}`,
      { type: QueryTypes.SELECT, bind: [after] },
    );
    if (rows.length === 0) return;
    const page = rows.map(({ row }) => fleetRowSchema.parse(row));
    yield new Map(page.map((row) => [row.id, beginningOf(row)]));
    after = page.at(-1)!.id;
  }
}

/** The streams of a kind that have an entry after `seq`, a page at a time. */
async function* streamsAfter(db: Database, stream: StreamKind, seq: number): AsyncGenerator<string[]> {
  for (let after = ''; ;) {
    const rows = await db.sequelize.query<{ id: string }>(
      `select distinct stream_id as id from entry where stream = $1 and seq > $2 and stream_id > $3
       order by stream_id limit ${A_PAGE}`,
      { type: QueryTypes.SELECT, bind: [stream, seq, after] },
    );
    if (rows.length === 0) return;
    yield rows.map((r) => r.id);
    after = rows.at(-1)!.id;
  }
}

async function entriesOfAll(
  db: Database,
  stream: StreamKind,
  ids: readonly string[],
): Promise<Map<string, Entry[]>> {
  const rows = await db.entry.findAll({ where: { stream, streamId: [...ids] }, order: ['version'] });
  const entries = new Map<string, Entry[]>(ids.map((id) => [id, []]));
  for (const row of rows) entries.get(row.streamId)!.push(toEntry(row));
  return entries;
}

async function beginningsOf(db: Database, ids: readonly string[]): Promise<Map<string, Beginning>> {
  const rows = await db.sequelize.query<{ row: unknown }>(
    `select row from batch_row where row ->> 'id' = any($1 ::text[])`,
    { type: QueryTypes.SELECT, bind: [ids] },
  );
  return new Map(
    rows.map(({ row }) => {
      const begun = fleetRowSchema.parse(row);
      return [begun.id, beginningOf(begun)];
    }),
  );
}

/** Folds streams and writes their rows beside; those that do not fold keep the working ones. */
async function writeStreams(
  db: Database,
  { aggregate, tables, write }: Kind<unknown>,
  ids: readonly string[],
): Promise<Aside[]> {
  const { stream } = aggregate;
  const entries = await entriesOfAll(db, stream, ids);
  const fromFiles =
    stream === 'unit' || stream === 'meter' ? await beginningsOf(db, ids) : new Map<string, Beginning>();
  const aside: Aside[] = [];
  const states: { id: string; state: unknown }[] = [];
  for (const [id, list] of entries) {
    const begun = fromFiles.get(id)?.[stream as keyof Beginning] ?? null;
    try {
      states.push({ id, state: replay(aggregate, list, begun) });
    } catch (error) {
      aside.push({ stream, streamId: id, reason: error instanceof Error ? error.message : String(error) });
    }
  }
  for (const [table, column] of tables)
    await db.sequelize.query(`delete from pg_temp.${table} where ${column} ::text = any($1 ::text[])`, {
      bind: [[...entries.keys()]],
    });
  await write(db, states);
  for (const [table, column] of tables)
    await keepWorking(
      db,
      table,
      column,
      aside.map((a) => a.streamId),
    );
  return aside;
}

/** Writes every row beside the working ones, following the record; the chain is locked only for what came last. */
async function buildBeside(db: Database): Promise<Rebuilt> {
  await openBeside(db);
  const numbers = await jobNumbers(db);
  const kinds = kindsOf((jobId) => numbers.get(jobId));
  const aside = new Map<string, Aside>();
  const seen = new Set<string>();
  for await (const page of beginnings(db)) {
    for (const kind of kinds) {
      const { stream } = kind.aggregate;
      if (stream !== 'unit' && stream !== 'meter') continue;
      const states = [...page].flatMap(([id, begun]) =>
        begun[stream] ? [{ id, state: begun[stream] }] : [],
      );
      await kind.write(db, states);
      for (const { id } of states) seen.add(`${stream} ${id}`);
    }
  }
  const follow = async (cursor: number): Promise<number> => {
    const end = await endOfRecord(db);
    for (const kind of kinds) {
      const { stream } = kind.aggregate;
      for await (const ids of streamsAfter(db, stream, cursor)) {
        for (const id of ids) {
          seen.add(`${stream} ${id}`);
          aside.delete(`${stream} ${id}`);
        }
        for (const a of await writeStreams(db, kind, ids)) aside.set(`${stream} ${a.streamId}`, a);
      }
    }
    return end;
  };
  // Once without holding anybody up, once for what was recorded meanwhile; the rest with the chain held.
  let cursor = await follow(0);
  cursor = await follow(cursor);
  await db.sequelize.query(`select pg_advisory_xact_lock(${CHAIN_LOCK})`);
  await follow(cursor);
  await db.sequelize.query('analyze pg_temp.job; analyze pg_temp.reading');
  await db.sequelize.query('select refresh_wheel_ends(null)');
  return { streams: seen.size, aside: [...aside.values()] };
}

/**
 * Builds every row that follows from the record anew, beside the working ones, and swaps them in. The shop goes on
 * meanwhile; only the last records wait.
 */
export async function rebuildProjections(db: Database): Promise<Rebuilt> {
  return inTransaction(db, async () => {
    const rebuilt = await buildBeside(db);
    await swapIn(db);
    await closeBeside(db);
    return rebuilt;
  });
}

class Undo extends Error {}

/** Whether the working rows are what the record comes to. Nothing is changed. */
export async function compareProjections(
  db: Database,
): Promise<Rebuilt & { differs: { table: string; key: string } | null }> {
  let compared: (Rebuilt & { differs: { table: string; key: string } | null }) | null = null;
  try {
    await inTransaction(db, async () => {
      compared = { ...(await buildBeside(db)), differs: await firstDifference(db) };
      throw new Undo();
    });
  } catch (error) {
    if (!(error instanceof Undo)) throw error;
  }
  return compared!;
}
