import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { connectDatabase } from '../../database/connect.ts';
import { openFolding, type Page } from '../../record/folding.ts';
import { kindsOf } from '../../record/kinds.ts';
import { rebuildProjections, streamsAfter } from '../../record/rebuild.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { openWork, record } from './technician.ts';

const UNITS = Number(process.env['UNITS'] ?? 20_000);
/** What a seal job of one wheel end comes to; it ends with the wheel end apart. */
const RECORDS = 46;

let shop: LoadShop;
beforeAll(async () => {
  shop = await openLoadShop({ servers: 1, technicians: 1 });
}, 120_000);
afterAll(() => shop.close());

const seconds = (since: number) => ((performance.now() - since) / 1000).toFixed(1);

/** Writes the record of the one unit again for so many more: the same words with ids, names and numbers of their own. */
async function multiply(client: pg.Client, units: number): Promise<void> {
  const { rows } = await client.query<{ id: string }>(
    'select id from unit union select id from axle union select id from job',
  );
  const idOf = (id: string) =>
    `overlay(overlay(md5('${id}' || n) placing '4' from 13) placing '8' from 17) ::uuid ::text`;
  const ofCopy = (text: string) =>
    rows.reduce((sql, { id }) => `replace(${sql}, '${id}', ${idOf(id)})`, text);
  // The guards against changes of the record are the server's; the superuser of this database goes round them.
  await client.query(`
    set session_replication_role = replica;
    insert into entry (seq, id, stream, stream_id, version, at, by, body, prev_hash, hash, form)
    select last.seq + n * last.seq + e.seq, gen_random_uuid(), stream, ${ofCopy('stream_id')}, version, at, by,
      case body ->> 'kind'
        when 'unit-added' then jsonb_set(copied, '{unit,name}', to_jsonb('Unit ' || n))
        when 'job-opened' then jsonb_set(copied, '{number}', to_jsonb(n + 1000))
        else copied end,
      prev_hash, md5(hash || n), form
    from entry e, (select max(seq) as seq from entry) last, generate_series(1, ${units} ::int) n,
      lateral (select ${ofCopy('body ::text')} ::jsonb as copied) c
    where stream in ('unit', 'job', 'meter')`);
  await client.query('analyze entry');
}

it('rebuilds what the record of a large fleet comes to', async () => {
  const caller = shop.technicians[0]!;
  const work = (await openWork(caller)).slice(0, RECORDS);
  for (const sent of work) expect((await record(caller, sent)).status).toBe(200);
  const command = {
    kind: 'ended-out-of-service',
    reason: 'Waits for a spindle',
    leaves: 'stays',
    told: 'M. Tern',
  } as const;
  const { jobId } = work[0]!;
  expect((await record(shop.supervisor, { id: randomUUID(), jobId, command }, RECORDS + 1)).status).toBe(200);
  const { port, password } = shop.postgres;
  const client = new pg.Client({
    ...{ host: '127.0.0.1', port, user: 'postgres', password, database: 'lanternwright' },
  });
  await client.connect();
  let before = performance.now();
  await multiply(client, UNITS - 1);
  await client.end();
  console.log(`the record of ${UNITS} units written in ${seconds(before)} s`);

  const db = connectDatabase(shop.postgres.url);
  before = performance.now();
  const { aside, streams } = await rebuildProjections(db);
  console.log(`${streams} streams rebuilt in ${seconds(before)} s`);
  expect(aside).toEqual([]);
  const [left] = await db.sequelize.query<{ units: string }>(
    `select count(distinct unit_id) as units from wheel_end where assembly is not null`,
    { type: QueryTypes.SELECT },
  );
  expect(Number(left?.units)).toBe(UNITS);

  before = performance.now();
  const folding = await openFolding(db);
  const jobs = kindsOf((id) => folding.numbers.get(id)).find((k) => k.aggregate.stream === 'job')!;
  const pages: string[] = [];
  const ahead: Page[] = [];
  const takeNext = async () => pages.push((await ahead.shift()!.folded).rows['job'] ?? '[]');
  for await (const ids of streamsAfter(db, 'job', 0)) {
    ahead.push(await folding.begin(jobs, ids));
    if (ahead.length > 4) await takeNext();
  }
  while (ahead.length > 0) await takeNext();
  await folding.close();
  console.log(`assemblies alone, read and folded, in ${seconds(before)} s`);
  const apart = pages.flatMap((rows) => JSON.parse(rows) as { leaves: unknown }[]).filter((j) => j.leaves);
  expect(apart).toHaveLength(UNITS);
  await db.sequelize.close();
}, 1_200_000);
