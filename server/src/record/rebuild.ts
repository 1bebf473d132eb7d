import { QueryTypes } from 'sequelize';
import type { StreamKind } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { refreshDue } from '../plan/refresh-due.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { CHAIN_LOCK, endOfRecord } from './append.ts';
import type { Folded } from './fold-streams.ts';
import { A_PAGE, hasBatches, openFolding, type Folding, type Page } from './folding.ts';
import { insertTables } from './insert-rows.ts';
import { kindsOf, type Kind } from './kinds.ts';
import { closeBeside, countBeside, firstDifference, keepWorking, openBeside, swapIn } from './tables.ts';

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

/** Pages that are folded while the rows of an earlier one are written. */
const PAGES_AHEAD = 4;

const ENTERED = 'select stream_id as id from entry where stream = $1 and seq > $2 and stream_id > $3';
/** Units of which a batch after `seq` holds something: they came in with it, or their readings did. */
const IN_BATCHES = `
  select b.row ->> key as id from entry e join batch_row b on b.batch_id = e.stream_id ::uuid,
    unnest(array['id', 'unitId']) key
  where e.stream = 'batch' and e.seq > $2 and b.row ->> key > $3`;

/** The streams of a kind of which something was recorded after `seq`, a page at a time. */
export async function* streamsAfter(db: Database, stream: StreamKind, seq: number): AsyncGenerator<string[]> {
  const source = hasBatches(stream) ? `${ENTERED} union ${IN_BATCHES}` : ENTERED;
  for (let after = ''; ;) {
    const rows = await db.sequelize.query<{ id: string }>(
      `select distinct id from (${source}) found order by id limit ${A_PAGE}`,
      { type: QueryTypes.SELECT, bind: [stream, seq, after] },
    );
    if (rows.length === 0) return;
    yield rows.map((r) => r.id);
    after = rows.at(-1)!.id;
  }
}

/** Units that an entry after `seq` is about, itself or by its meters or jobs; all of them for null. */
async function unitsChangedAfter(db: Database, seq: number | null): Promise<string[]> {
  const rows = await db.sequelize.query<{ id: string }>(
    `select id from unit where $1 ::bigint is null or id in (
       select stream_id ::uuid from entry where seq > $1 and stream in ('unit', 'meter')
       union select (b.row ->> key) ::uuid from entry e join batch_row b on b.batch_id = e.stream_id ::uuid,
         unnest(array['id', 'unitId']) key where e.stream = 'batch' and e.seq > $1 and b.row ? key
       union select unit_id from job
       where id in (select stream_id ::uuid from entry where seq > $1 and stream = 'job'))`,
    { type: QueryTypes.SELECT, bind: [seq] },
  );
  return rows.map((r) => r.id);
}

/** Writes the rows of folded streams beside; those that do not fold keep the working ones. */
async function writeRows(
  db: Database,
  { tables }: Kind<unknown>,
  ids: readonly string[],
  { rows, aside }: Folded,
): Promise<void> {
  for (const [table, column] of tables)
    await db.sequelize.query(`delete from pg_temp.${table} where ${column} ::text = any($1 ::text[])`, {
      bind: [ids],
    });
  await insertTables(db, rows);
  for (const [table, column] of tables)
    await keepWorking(
      db,
      table,
      column,
      aside.map((a) => a.streamId),
    );
}

/** Writes the rows of a kind of which something was recorded after `seq` beside; tells of each page. */
async function followKind(
  db: Database,
  { folding, kind, after }: { folding: Folding; kind: Kind<unknown>; after: number },
  tell: (ids: readonly string[], aside: Folded['aside']) => void,
): Promise<void> {
  const ahead: Page[] = [];
  const writeNext = async () => {
    const { ids, folded } = ahead.shift()!;
    const page = await folded;
    await writeRows(db, kind, ids, page);
    tell(ids, page.aside);
  };
  for await (const ids of streamsAfter(db, kind.aggregate.stream, after)) {
    ahead.push(await folding.begin(kind, ids));
    if (ahead.length > PAGES_AHEAD) await writeNext();
  }
  while (ahead.length > 0) await writeNext();
}

/** Writes every row beside the working ones, following the record; the chain is locked only for what came last. */
async function followRecord(db: Database, folding: Folding): Promise<Rebuilt> {
  const aside = new Map<string, Aside>();
  const seen = new Set<string>();
  const kinds = kindsOf((jobId) => folding.numbers.get(jobId));
  const follow = async (after: number): Promise<number> => {
    const end = await endOfRecord(db);
    for (const kind of kinds) {
      const { stream } = kind.aggregate;
      await followKind(db, { folding, kind, after }, (ids, refused) => {
        for (const id of ids) {
          seen.add(`${stream} ${id}`);
          aside.delete(`${stream} ${id}`);
        }
        for (const a of refused) aside.set(`${stream} ${a.streamId}`, { stream, ...a });
      });
    }
    return end;
  };
  // Once without holding anybody up, once for what was recorded meanwhile; the rest with the chain held.
  let cursor = await follow(0);
  await countBeside(db);
  await refreshDue(db, await unitsChangedAfter(db, null));
  const before = cursor;
  cursor = await follow(cursor);
  await db.sequelize.query(`select pg_advisory_xact_lock(${CHAIN_LOCK})`);
  await follow(cursor);
  await refreshDue(db, await unitsChangedAfter(db, before));
  await db.sequelize.query('select refresh_wheel_ends(null)');
  return { streams: seen.size, aside: [...aside.values()] };
}

async function buildBeside(db: Database): Promise<Rebuilt> {
  await openBeside(db);
  const folding = await openFolding(db);
  try {
    return await followRecord(db, folding);
  } finally {
    await folding.close();
  }
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
