import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';
import { rowsHash } from './batch.ts';
import { compareProjections } from './rebuild.ts';
import { chainOf, isSigned, publicKeysIn, sealsIn, sealsOf, type Seal } from './seals.ts';
import { verifyChain } from './verify-chain.ts';

/** What was looked at, and the first thing that is wrong. */
export type RecordReport =
  | {
      ok: true;
      entries: number;
      lastHash: string;
      noted: number;
      streams: number;
      seals: number;
      photos: number;
    }
  | { ok: false; part: Part; reason: string };

type Part = 'guards' | 'chain' | 'streams' | 'batches' | 'seals' | 'photos' | 'certificates' | 'rows';

/** Triggers that keep tables from being changed; they keep the owner of the tables from it as well. */
const guards = ['entry', 'batch_row', 'seal', 'chain_note', 'photo', 'certificate'].flatMap((table) => [
  `${table}_append_only`,
  `${table}_no_truncate`,
]);

async function first<T extends object>(db: Database, sql: string, bind: unknown[] = []): Promise<T | null> {
  const [row] = await db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });
  return row ?? null;
}

async function whyNotGuarded(db: Database): Promise<string | null> {
  const missing = await first<{ name: string }>(
    db,
    `select name from unnest($1 ::text[]) name
     where not exists (select 1 from pg_trigger where tgname = name and tgenabled in ('O', 'A')) limit 1`,
    [guards],
  );
  if (missing) return `The trigger ${missing.name} is missing or switched off: records could be changed`;
  const open = await first<{ name: string }>(
    db,
    `select p.proname as name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
     where n.nspname = 'public' and p.proname in ('refuse_change', 'refuse_photo_change')
       and p.prosrc not like '%raise exception%'`,
  );
  return open && `The function ${open.name} lets records be changed`;
}

async function whyNotStreams(db: Database): Promise<string | null> {
  const broken = await first<{ stream: string; id: string }>(
    db,
    `select stream, stream_id as id from entry group by stream, stream_id
     having count(*) <> max(version) or min(version) <> 1 order by 1, 2 limit 1`,
  );
  return broken && `The versions of ${broken.stream} ${broken.id} have a gap`;
}

const ROWS_AT_ONCE = 5_000;

async function whyNotBatches(db: Database): Promise<string | null> {
  const stray = await first<{ id: string }>(
    db,
    `select distinct batch_id as id from batch_row b
     where not exists (select 1 from entry where stream = 'batch' and stream_id = b.batch_id ::text) limit 1`,
  );
  if (stray) return `Rows of batch ${stray.id} stand there without a record`;
  for (const { streamId, body } of await db.entry.findAll({ where: { stream: 'batch' }, order: ['seq'] })) {
    const { rows, rowsHash: wanted } = body as { rows: number; rowsHash: string };
    const hash = rowsHash();
    let seen = 0;
    for (;;) {
      const page = await db.batchRow.findAll({
        where: { batchId: streamId },
        order: ['n'],
        offset: seen,
        limit: ROWS_AT_ONCE,
      });
      for (const { row } of page) hash.add(row);
      seen += page.length;
      if (page.length < ROWS_AT_ONCE) break;
    }
    if (seen !== rows || hash.end() !== wanted)
      return `The rows of batch ${streamId} are not those that were taken`;
  }
  return null;
}

async function whyNotSeals(db: Database, home: string): Promise<{ count: number } | string> {
  const keys = new Map([...(await publicKeysIn(home)).values()].map((k) => [k.name, k.key]));
  const [chain, inTable, inFile] = [await chainOf(db), await sealsOf(db), await sealsIn(home)];
  const wrong = async ({ chain: of, seq, hash, key, ...rest }: Seal): Promise<string | null> => {
    const own = keys.get(key);
    if (!own) return `The seal at record ${seq} is signed with another key (${key})`;
    if (!isSigned({ chain: of, seq, hash, key, ...rest }, own))
      return `The seal at record ${seq} is forged: its signature does not fit`;
    if (of !== chain) return null;
    const entry = await db.entry.findByPk(seq, { attributes: ['hash'] });
    if (!entry)
      return `Record ${seq} was sealed and is not there: the end was cut off, or an older copy was put back`;
    return entry.hash === hash
      ? null
      : `Record ${seq} is not the one that was sealed: the chain was rewritten`;
  };
  for (const seal of [...inTable, ...inFile]) {
    const why = await wrong(seal);
    if (why) return why;
  }
  const foreign = inTable.find((s) => s.chain !== chain);
  if (foreign) return `The seal at record ${foreign.seq} is of another record: the chain was rewritten`;
  const kept = new Set(inTable.map((s) => s.seq));
  const gone = inFile.find((s) => s.chain === chain && !kept.has(s.seq));
  if (gone) return `The seal at record ${gone.seq} is in the file and not in the database`;
  const last = inFile.at(-1);
  if (last && last.chain !== chain)
    return `The last seal, at record ${last.seq}, is of another record than this: the chain was rewritten`;
  return { count: inTable.length };
}

async function whyNotPhotos(db: Database): Promise<{ count: number } | string> {
  const wrong = await first<{ seq: string; there: boolean }>(
    db,
    `select e.seq, p.id is not null as there from entry e left join photo p on p.id ::text = e.body ->> 'photoId'
     where e.stream = 'job' and e.body ->> 'kind' = 'photo-added'
       and (p.id is null or encode(sha256(p.jpeg), 'hex') <> e.body ->> 'sha256') order by e.seq limit 1`,
  );
  if (wrong)
    return wrong.there
      ? `The photo of record ${wrong.seq} was swapped: its bytes do not give the recorded hash`
      : `The photo of record ${wrong.seq} is missing`;
  const count = await db.entry.count({ where: { stream: 'job', 'body.kind': 'photo-added' } as never });
  return { count };
}

async function whyNotCertificates(db: Database): Promise<string | null> {
  const wrong = await first<{ seq: string; there: boolean }>(
    db,
    `select e.seq, c.id is not null as there from entry e
     left join certificate c on c.id ::text = e.body #>> '{certificate,id}'
     where e.stream = 'tool' and e.body ->> 'kind' = 'tool-certified'
       and (c.id is null or encode(sha256(c.bytes), 'hex') <> e.body #>> '{certificate,sha256}') order by e.seq limit 1`,
  );
  if (!wrong) return null;
  return wrong.there
    ? `The certificate of record ${wrong.seq} was swapped: its bytes do not give the recorded hash`
    : `The certificate of record ${wrong.seq} is missing`;
}

/**
 * Proves the whole record: guards, chain, versions, batches, seals, photos, certificates, and that rows are what it comes to.
 * @param home folder of the seals; null where the record is not sealed
 * @returns the first thing that is wrong
 */
export async function verifyRecord(db: Database, home: string | null): Promise<RecordReport> {
  const wrong = (part: Part, reason: string): RecordReport => ({ ok: false, part, reason });
  const guarded = await whyNotGuarded(db);
  if (guarded) return wrong('guards', guarded);
  const chain = await verifyChain(db);
  if (!chain.ok) return wrong('chain', chain.reason);
  const seals = home === null ? { count: 0 } : await whyNotSeals(db, home);
  if (typeof seals === 'string') return wrong('seals', seals);
  const versions = await whyNotStreams(db);
  if (versions) return wrong('streams', versions);
  const batches = await whyNotBatches(db);
  if (batches) return wrong('batches', batches);
  const photos = await whyNotPhotos(db);
  if (typeof photos === 'string') return wrong('photos', photos);
  const certificates = await whyNotCertificates(db);
  if (certificates) return wrong('certificates', certificates);
  const { streams, aside, differs } = await compareProjections(db);
  const [off] = aside;
  if (off) return wrong('streams', `${off.stream} ${off.streamId} does not fold: ${off.reason}`);
  if (differs) return wrong('rows', `The row ${differs.key} of ${differs.table} is not what the record says`);
  const { events: entries, lastHash, noted } = chain;
  return { ok: true, entries, lastHash, noted, streams, seals: seals.count, photos: photos.count };
}
