import { randomUUID } from 'node:crypto';
import { BaseError, QueryTypes } from 'sequelize';
import {
  replay,
  type Aggregate,
  type Entry,
  type Recorder,
  type StreamKind,
} from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { HttpProblem, refused } from '../http/problem.ts';
import { contentHash, GENESIS, hashOf, linkHash, type Link } from './link.ts';
import { toEntry, toLink, type EntryRow, type RawEntry } from './model.ts';

/** Channel on which every stored entry is announced, as `{ stream, streamId, seq }`. */
export const CHANNEL = 'entry';

/** Any number that nothing else in this database locks: one entry joins the chain at a time. */
export const CHAIN_LOCK = 618_002;

/** What the database says where a version is not the next one of its stream. */
const NOT_NEXT = 'LW409';

/** Somebody else was first. */
export class MovedOn extends HttpProblem {
  constructor() {
    super(
      409,
      'Changed by somebody else',
      'This was changed since you opened it. Nothing of yours was kept: open it again and compare.',
    );
  }
}

/** Place of the last entry; 0 where there is none. */
export async function endOfRecord(db: Database): Promise<number> {
  return Number((await db.entry.max<number | string | null, EntryRow>('seq')) ?? 0);
}

export async function entriesOf(db: Database, stream: StreamKind, streamId: string): Promise<Entry[]> {
  return (await entriesOfAll(db, stream, [streamId])).get(streamId)!;
}

/** The entries of several streams of a kind, by their ids; of each a list, be it empty. */
export async function entriesOfAll(
  db: Database,
  stream: StreamKind,
  ids: readonly string[],
): Promise<Map<string, Entry[]>> {
  const rows = await db.entry.findAll({
    where: { stream, streamId: [...ids] },
    attributes: ['id', 'stream', 'streamId', 'version', 'at', 'by', 'body'],
    order: ['version'],
    raw: true,
  });
  const entries = new Map<string, Entry[]>(ids.map((id) => [id, []]));
  for (const row of rows) entries.get(row.streamId)!.push(toEntry(row));
  return entries;
}

const APPEND = `select * from append_entry($1, $2, $3, $4 ::uuid, $5 ::timestamptz, $6 ::jsonb, $7 ::jsonb, $8)`;

/** What PostgreSQL names of an error. */
function databaseErrorOf(error: unknown): { code?: string; constraint?: string } {
  const parent = error instanceof BaseError ? (error as { parent?: unknown }).parent : undefined;
  return (parent ?? {}) as { code?: string; constraint?: string };
}

/**
 * Runs a statement that ends with `append_entry`, and proves what it stored. The chain is locked from here to the end of
 * the transaction: do everything else before.
 * @throws HttpProblem 409 where the version is not the next of its stream, 422 where the id was used
 */
export async function appending(db: Database, entry: Entry, sql: string, bind: unknown[]): Promise<Link> {
  let link: Link;
  try {
    const [row] = await db.sequelize.query<RawEntry>(sql, { type: QueryTypes.SELECT, bind });
    link = toLink(row!);
  } catch (error) {
    const { code, constraint } = databaseErrorOf(error);
    if (code === NOT_NEXT || constraint === 'entry_stream_version') throw new MovedOn();
    // Under row-level security PostgreSQL does not say which key it was, only which constraint.
    if (constraint === 'entry_id_key') throw refused('This id was used for another record', 'id');
    throw error;
  }
  // What is hashed must be what is read for ever after.
  if (hashOf(link) !== link.hash || link.id !== entry.id)
    throw new Error(`Record ${link.seq} reads back otherwise than it was hashed: it is not stored`);
  return link;
}

/** Appends an entry at the end of the chain, in the open transaction. @throws as `appending` */
export async function append(db: Database, entry: Entry): Promise<Link> {
  const { stream, streamId, version, id, at, by, body } = entry;
  const bind = [stream, streamId, version, id, at, JSON.stringify(by), JSON.stringify(body)];
  return appending(db, entry, APPEND, [...bind, contentHash(entry)]);
}

const ROWS = `seq bigint, id uuid, stream text, "streamId" text, version integer, at timestamptz, by jsonb, body jsonb,
  "prevHash" text, hash text, form smallint`;
const AT_ONCE = 2_000;

/** Appends many entries at once: the demo's four years. Nobody is told, but for how far it is, from 0 to 1. */
export async function appendMany(
  db: Database,
  entries: readonly Entry[],
  tell?: (share: number) => void,
): Promise<void> {
  const last = await db.entry.findOne({ attributes: ['seq', 'hash'], order: [['seq', 'DESC']] });
  let prevHash = last?.hash ?? GENESIS;
  let seq = Number(last?.seq ?? 0);
  const links = entries.map((entry): Link => {
    seq += 1;
    const hash = linkHash(seq, prevHash, contentHash(entry));
    const link = { ...entry, seq, prevHash, hash, form: 2 as const };
    prevHash = hash;
    return link;
  });
  for (let i = 0; i < links.length; i += AT_ONCE) {
    await db.sequelize.query(
      `insert into entry (seq, id, stream, stream_id, version, at, by, body, prev_hash, hash, form)
       select seq, id, stream, "streamId", version, at, by, body, "prevHash", hash, form
       from jsonb_to_recordset($1 ::jsonb) as r(${ROWS})`,
      { bind: [JSON.stringify(links.slice(i, i + AT_ONCE))] },
    );
    tell?.(Math.min(1, (i + AT_ONCE) / links.length));
  }
}

/** Who asks for a change, when, and which version they saw; what no version is asked of may follow any. */
export interface Asked {
  by: Recorder;
  at: string;
  expected?: number;
}

/**
 * Decides a command on a stream and appends what follows from it.
 * @param read what its entries come to, where batches hold something of the stream as well
 * @returns the states before and after it
 * @throws HttpProblem 409 when the stream was changed since `expected`, 422 with why the command is refused
 */
export async function changed<S extends { version: number }, C, B, R>(
  db: Database,
  aggregate: Aggregate<S, C, B, R>,
  streamId: string,
  command: C,
  { by, at, expected }: Asked,
  read = (entries: readonly Entry[]): S | null => replay(aggregate, entries),
): Promise<{ before: S | null; after: S }> {
  const { stream, decide, fold } = aggregate;
  const before = read(await entriesOf(db, stream, streamId));
  let state = before;
  if (expected !== undefined && (state?.version ?? 0) !== expected) throw new MovedOn();
  const decided = decide(state, command);
  if (!decided.ok) throw refused(decided.reason, decided.field);
  for (const body of decided.bodies) {
    const version: number = (state?.version ?? 0) + 1;
    const entry = { id: randomUUID(), stream, streamId, version, at, by, body };
    await append(db, entry);
    state = fold(state, entry);
  }
  return { before, after: state! };
}

/** As `changed`; the state after it alone. */
export async function change<S extends { version: number }, C, B, R>(
  ...asked: Parameters<typeof changed<S, C, B, R>>
): Promise<S> {
  return (await changed(...asked)).after;
}
