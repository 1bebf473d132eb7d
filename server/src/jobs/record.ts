import type { Transaction } from 'sequelize';
import { fold, upcast, type Job, type StoredEvent } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { GENESIS, hashLink, linkOf, type Link } from './chain.ts';
import type { JobEventRow } from './model.ts';
import { project, rebuild } from './projection.ts';

/** Any number that nothing else in this database locks: one event joins the chain at a time. */
const CHAIN_LOCK = 618_002;

/** Channel on which every stored event is announced, as `{ jobId, seq }`. */
export const CHANNEL = 'job_event';

/** An event as the traveller takes it; a body of an old shape is lifted. */
export function toStored(row: JobEventRow): StoredEvent {
  return {
    id: row.id,
    jobId: row.jobId,
    version: row.version,
    at: row.at.toISOString(),
    by: row.by,
    body: upcast(row.body),
  };
}

export async function eventsOf(
  db: Database,
  jobId: string,
  transaction?: Transaction,
): Promise<StoredEvent[]> {
  return (await db.jobEvent.findAll({ where: { jobId }, order: ['version'], transaction })).map(toStored);
}

function rowOf(link: Link) {
  return { ...link, at: new Date(link.at), hash: hashLink(link) };
}

/** Reads a link back as the database holds it: what is hashed must be what is read for ever after. */
async function proveInsert(db: Database, { seq }: Link, transaction: Transaction): Promise<void> {
  const row = await db.jobEvent.findOne({ where: { seq }, transaction, raw: true });
  if (!row) throw new Error(`Record ${seq} was not stored`);
  const { id, jobId, version, at, by, body, prevHash, hash } = row;
  if (hashLink({ seq, id, jobId, version, at: at.toISOString(), by, body, prevHash }) !== hash)
    throw new Error(`Record ${seq} reads back otherwise than it was hashed: it is not stored`);
}

/**
 * Appends one event to the chain and writes its projections, in the given transaction. The job
 * passed is the fold with the event in it.
 */
export async function store(
  db: Database,
  job: Job,
  event: StoredEvent,
  transaction: Transaction,
): Promise<void> {
  await db.sequelize.query(`select pg_advisory_xact_lock(${CHAIN_LOCK})`, { transaction });
  const last = await db.jobEvent.findOne({
    attributes: ['seq', 'hash'],
    order: [['seq', 'DESC']],
    transaction,
  });
  const link = linkOf(event, Number(last?.seq ?? 0) + 1, last?.hash ?? GENESIS);
  await db.jobEvent.create(rowOf(link), { transaction });
  await proveInsert(db, link, transaction);
  await project(db, job, event.body, transaction);
  const payload = JSON.stringify({ jobId: event.jobId, seq: link.seq });
  await db.sequelize.query('select pg_notify(:channel, :payload)', {
    replacements: { channel: CHANNEL, payload },
    transaction,
  });
}

/** Appends many events at once to an empty chain: the demo's four years. Projections are rebuilt after. */
export async function storeAll(
  db: Database,
  events: readonly StoredEvent[],
  transaction: Transaction,
): Promise<void> {
  let prevHash = GENESIS;
  const rows = events.map((event, i) => {
    const row = rowOf(linkOf(event, i + 1, prevHash));
    prevHash = row.hash;
    return row;
  });
  for (let i = 0; i < rows.length; i += 2000) {
    await db.sequelize.query(
      `insert into job_event (seq, id, job_id, version, at, by, body, prev_hash, hash)
       select seq, id, "jobId", version, at, by, body, "prevHash", hash
       from jsonb_to_recordset($1 ::jsonb) as r(seq bigint, id uuid, "jobId" uuid, version integer, at timestamptz,
         by jsonb, body jsonb, "prevHash" text, hash text)`,
      { bind: [JSON.stringify(rows.slice(i, i + 2000))], transaction },
    );
  }
}

/** Rebuilds every projection from the events. @returns how many jobs were folded */
export async function rebuildProjections(db: Database): Promise<number> {
  return inTransaction(db, async (transaction) => {
    await db.sequelize.query(`select pg_advisory_xact_lock(${CHAIN_LOCK})`, { transaction });
    const ids = (await db.job.findAll({ attributes: ['id'], order: ['number'], transaction })).map(
      (j) => j.id,
    );
    async function* jobs() {
      for (const id of ids) yield fold(await eventsOf(db, id, transaction));
    }
    return rebuild(db, jobs(), transaction);
  });
}
