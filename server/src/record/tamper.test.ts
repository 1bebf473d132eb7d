import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { familySheet } from '@lanternwright/core/procedure';
import { createApp } from '../app.ts';
import { readConfig } from '../config.ts';
import { connectDatabase, type Database } from '../database/connect.ts';
import { writeFleetCsv } from '../exchange/fleet-csv.ts';
import {
  addUnit,
  axlesOf,
  asSuperuser,
  fetchJob,
  freshDatabase,
  mirrored,
  openJobOn,
  openShop,
  send,
} from '../testing/shop.ts';
import { exportRecord } from './export.ts';
import { contentHash, linkHash } from './link.ts';
import { toLink, type RawEntry } from './model.ts';
import { rebuildProjections } from './rebuild.ts';
import { verifyRecord } from './verify.ts';

const run = promisify(execFile);
const home = mkdtempSync(join(tmpdir(), 'lanternwright-tamper-'));
const seals = join(home, 'seals');
const pixel = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(200, 1)]).toString('base64');

/** SQL: the entry that put this test's own scale on the list. */
const KEPT = `body ->> 'kind' = 'tool-kept' and body -> 'tool' ->> 'code' = 'PS-1'`;

let name = '';
let earlier = '';

/** A copy of a database; nobody may be connected to it. */
async function copyOf(template: string): Promise<{ name: string; url: string }> {
  const copy = await freshDatabase();
  await asSuperuser('postgres', `drop database ${copy.name}`);
  await asSuperuser('postgres', `create database ${copy.name} template ${template} owner lanternwright`);
  return copy;
}

const settings = { SEALS: seals, SESSION_SECRET: 'for tests only, long enough', LOG_LEVEL: 'silent' };

/** A shop of every kind of record, sealed at a release; and a copy of it as it was before that. */
beforeAll(async () => {
  const shop = await openShop(settings);
  name = shop.databaseName;
  await shop.seals.sealEnd(true);
  const jobId = await openJobOn(shop, await addUnit(shop), ['2L']);
  const { t, flush } = mirrored(shop, jobId, ['2L']);
  t.workTo('2L');
  await flush();
  const { call } = shop.technician;
  const kept = await call.post(`/api/jobs/${jobId}/photos`).send({ jpeg: pixel }).expect(200);
  const { id: photoId, sha256 } = kept.body as { id: string; sha256: string };
  const photo = {
    kind: 'photo-added',
    position: '2L',
    stage: 'verify',
    photoId,
    sha256,
    caption: '',
  } as const;
  await send(call, jobId, (await fetchJob(call, jobId)).version, photo).expect(200);
  const tool = {
    id: randomUUID(),
    kind: 'pull-scale',
    code: 'PS-1',
    title: 'Scale',
    calibratedUntil: '2030-01-31',
  };
  await shop.supervisor.call.put('/api/tools').send({ seenVersion: 0, tool }).expect(200);
  const recall = { seenVersion: 1, lastGood: '2026-01-31', reason: 'Reads high' };
  await shop.supervisor.call.post(`/api/tools/${tool.id}/recalled`).send(recall).expect(200);
  const certificate = {
    ...{ seenVersion: 2, certificateId: randomUUID(), name: 'PS-1.pdf', type: 'application/pdf' },
    ...{ file: Buffer.from(`%PDF-1.4 ${'calibrated '.repeat(20)}`).toString('base64'), until: '2099-01-31' },
  };
  await shop.supervisor.call.post(`/api/tools/${tool.id}/certificates`).send(certificate).expect(200);
  const sheet = { basedOn: 1, sheet: familySheet('a-trailer'), note: 'Confirmed' };
  await shop.supervisor.call.post('/api/sheets/a-trailer').send(sheet).expect(200);
  const marsh = {
    owner: 'Marsh',
    name: 'Marsh 1',
    kind: 'tractor',
    plate: '',
    km: 1200,
    hours: null,
  } as const;
  const csv = writeFleetCsv([{ ...marsh, meter: {}, remarks: '', told: [], axles: axlesOf('tractor-2') }]);
  await shop.supervisor.call.post('/api/exchange/fleet').send({ csv }).expect(200);
  await shop.close();
  earlier = (await copyOf(name)).name;

  const app = createApp(readConfig({ ...settings, DATABASE_URL: shop.databaseUrl }));
  await app.settings.load();
  const supervisor = supertest.agent(app.app);
  await supervisor
    .post('/api/people/session')
    .send({ login: 'okonedo', password: 'correct horse battery' })
    .expect(200);
  const released = await send(supervisor, jobId, 999, { kind: 'wheel-end-released', position: '2L' });
  expect(released.body).toMatchObject({ version: expect.any(Number) });
  await app.close();
}, 60_000);
afterAll(() => rmSync(home, { recursive: true, force: true }));

/** What the standalone script says of an export. */
async function verifyExport(folder: string): Promise<string> {
  try {
    return (await run('node', [join(folder, 'verify.mjs')])).stdout;
  } catch (error) {
    return (error as { stderr: string }).stderr;
  }
}

interface Tampering {
  way: string;
  /** In SQL, with every trigger asleep; or with the rows in hand. */
  sql?: string;
  work?: (db: Database, run: (sql: string) => Promise<void>) => Promise<void>;
  /** To the folder of key and seals. */
  files?: (folder: string) => void;
  from?: 'earlier';
  /** What the program says; what the script says of an export, where that can show it. */
  inside: RegExp;
  outside: RegExp | null;
}

const asleep = (sql: string) => `set session_replication_role = replica; ${sql}`;

/** Writes the chain anew with one body changed, every hash right. */
async function rewrite(db: Database, sql: (text: string) => Promise<void>): Promise<void> {
  const [rows] = await db.sequelize.query('select * from entry order by seq');
  let prev = '0'.repeat(64);
  const updates = (rows as RawEntry[]).map((row) => {
    const link = toLink(row);
    if (link.seq === 5) link.by = { ...link.by, name: 'Somebody else' };
    const hash = linkHash(link.seq, prev, contentHash(link));
    const by = JSON.stringify(link.by).replaceAll("'", "''");
    const text = `update entry set form = 2, by = '${by}', prev_hash = '${prev}', hash = '${hash}' where seq = ${link.seq}`;
    prev = hash;
    return text;
  });
  await sql(asleep(updates.join(';')));
}

const cutTail = `delete from entry where seq > (select max(seq) - 3 from entry)`;
const ways: Tampering[] = [
  {
    way: 'a body altered',
    sql: `update entry set body = jsonb_set(body, '{note}', '"x"') where seq = 9`,
    inside: /chain.*9 was altered/,
    outside: /chain.*9 was altered/,
  },
  {
    way: 'another person named',
    sql: `update entry set by = jsonb_set(by, '{name}', '"M. Pellow"') where seq = 8`,
    inside: /chain.*8 was altered/,
    outside: /chain.*8 was altered/,
  },
  {
    way: 'a time moved',
    sql: `update entry set at = at + interval '1 second' where seq = 8`,
    inside: /chain.*8 was altered/,
    outside: /chain.*8 was altered/,
  },
  {
    way: 'an entry moved to another stream',
    sql: `update entry set stream_id = gen_random_uuid() ::text where seq = 10`,
    inside: /chain.*10 was altered/,
    outside: /chain.*10 was altered/,
  },
  {
    way: 'an entry taken out',
    sql: 'delete from entry where seq = 7',
    inside: /chain.*7 is missing/,
    outside: /chain.*7 is missing/,
  },
  {
    way: 'the first entry taken out',
    sql: 'delete from entry where seq = 1',
    inside: /chain.*1 is missing/,
    outside: /chain.*1 is missing/,
  },
  {
    way: 'two entries renumbered',
    sql: 'update entry set seq = 100000 + seq where seq in (7, 8); update entry set seq = 100015 - seq where seq > 100000',
    inside: /chain/,
    outside: /chain/,
  },
  { way: 'the end cut off', sql: cutTail, inside: /seals.*cut off/, outside: /seals.*cut off/ },
  {
    way: 'the end cut off, and its seals',
    sql: `${cutTail}; delete from seal where seq > (select max(seq) from entry)`,
    inside: /seals.*cut off/,
    outside: /seals.*cut off/,
  },
  {
    way: 'the whole chain rewritten',
    work: rewrite,
    inside: /seals.*(rewritten|not the one that was sealed)/,
    outside: /seals.*not the one that was sealed/,
  },
  {
    way: 'the whole chain rewritten from its first entry, its seals gone',
    work: async (db, sql) => {
      await sql(
        asleep(`update entry set by = jsonb_set(by, '{name}', '"X"') where seq = 1; delete from seal`),
      );
      await rewrite(db, sql);
    },
    inside: /seals.*rewritten/,
    outside: /seals.*(rewritten|another record)/,
  },
  {
    way: 'a seal forged',
    sql: `update seal set signature = encode(sha256('x') || sha256('y'), 'base64')`,
    inside: /seals.*forged/,
    outside: /seals.*forged/,
  },
  {
    way: 'a seal taken out of the database',
    sql: 'delete from seal where seq = (select max(seq) from seal)',
    inside: /seals.*in the file and not in the database/,
    outside: null,
  },
  {
    way: 'a seal of the file forged',
    files: (folder) => {
      const path = join(folder, 'seals.jsonl');
      writeFileSync(path, readFileSync(path, 'utf8').replace(/"hash":"[0-9a-f]{8}/, '"hash":"00000000'));
    },
    inside: /seals.*forged/,
    outside: /seals.*forged/,
  },
  { way: 'an older copy put back', from: 'earlier', inside: /seals.*older copy/, outside: /seals.*cut off/ },
  {
    way: 'a photo swapped',
    sql: `update photo set jpeg = set_byte(jpeg, 50, 7)`,
    inside: /photos.*swapped/,
    outside: /photos.*swapped/,
  },
  {
    way: 'a certificate swapped',
    sql: `update certificate set bytes = set_byte(bytes, 50, 7)`,
    inside: /certificates.*swapped/,
    outside: /certificates.*swapped/,
  },
  {
    way: 'a certificate taken away',
    sql: 'delete from certificate',
    inside: /certificates.*missing/,
    outside: /certificates.*missing/,
  },
  {
    way: 'a photo taken away',
    sql: 'delete from photo',
    inside: /photos.*missing/,
    outside: /photos.*missing/,
  },
  {
    way: 'a row of a file altered',
    sql: `update batch_row set row = jsonb_set(row, '{unit,name}', '"Marsh 9"')`,
    inside: /batches.*not those that were taken/,
    outside: /batches.*not those that were taken/,
  },
  {
    way: 'a row of a file put in',
    sql: `insert into batch_row select batch_id, n + 1, row from batch_row`,
    inside: /batches/,
    outside: /batches/,
  },
  {
    way: 'a reading forged',
    sql: 'update reading set end_play_mm = 0.05, verdict = $$in-band$$ where round = 1',
    inside: /rows.*reading/,
    outside: null,
  },
  {
    way: 'a wheel end forged',
    sql: 'update wheel_end set end_play_mm = 0.011',
    inside: /rows.*wheel_end/,
    outside: null,
  },
  {
    way: 'what a unit has run made less',
    sql: 'update meter_reading set total_km = total_km / 2',
    inside: /rows.*meter_reading/,
    outside: null,
  },
  {
    way: 'a work said to have been done later',
    sql: 'update service_done set date = date + 100',
    inside: /rows.*service_done/,
    outside: null,
  },
  {
    way: 'what is due hidden',
    sql: 'update unit_due set unknown = unknown + 1',
    inside: /rows.*unit_due/,
    outside: null,
  },
  { way: 'a follow-up taken away', sql: 'delete from follow_up', inside: /rows.*follow_up/, outside: null },
  {
    way: 'a person made supervisor in the table',
    sql: `update person set role = 'supervisor' where login = 'achterberg'`,
    inside: /rows.*person/,
    outside: /rows: role of .*person/,
  },
  {
    way: 'a calibration prolonged in the table',
    sql: `update tool set tool = jsonb_set(tool, '{calibratedUntil}', '"2099-01-01"')`,
    inside: /rows.*tool/,
    outside: /rows: tool of/,
  },
  {
    way: 'an axle’s sheet changed in the table',
    sql: `update axle set sheet = jsonb_set(sheet, '{title}', '"x"') where number = 1`,
    inside: /rows.*axle/,
    outside: null,
  },
  {
    way: 'a trigger dropped',
    sql: 'drop trigger entry_append_only on entry',
    inside: /guards.*entry_append_only/,
    outside: null,
  },
  {
    way: 'a trigger switched off',
    sql: 'alter table photo disable trigger photo_append_only',
    inside: /guards.*photo_append_only/,
    outside: null,
  },
  {
    way: 'the guards’ function emptied',
    sql: 'create or replace function refuse_change() returns trigger language plpgsql as $$ begin return new; end $$',
    inside: /guards.*refuse_change/,
    outside: null,
  },
  {
    way: 'an entry added by hand, its row not',
    work: async (db, sql) => {
      const [[row]] = await db.sequelize.query(`select * from entry where ${KEPT}`);
      const link = toLink(row as RawEntry);
      const [[last]] = await db.sequelize.query('select seq, hash from entry order by seq desc limit 1');
      const { seq, hash: prev } = last as { seq: string; hash: string };
      const entry = { ...link, id: randomUUID(), version: 4, body: { kind: 'tool-retired' } };
      const hash = linkHash(Number(seq) + 1, prev, contentHash(entry));
      await sql(
        `insert into entry select ${Number(seq) + 1}, '${entry.id}', stream_id, 4, at, by, '{"kind":"tool-retired"}',
         '${prev}', '${hash}', stream, 2 from entry where seq = ${link.seq}`,
      );
    },
    inside: /rows.*tool/,
    outside: /rows: version of/,
  },
];

describe('a record that was tampered with', () => {
  it.each(ways)('$way', async ({ sql, work, files, from, inside, outside }) => {
    const copy = await copyOf(from === 'earlier' ? earlier : name);
    const folder = mkdtempSync(join(home, 'way-'));
    cpSync(seals, join(folder, 'seals'), { recursive: true });
    const db = connectDatabase(copy.url, { pool: 2 });
    try {
      const onCopy = (text: string) => asSuperuser(copy.name, text);
      if (sql) await onCopy(asleep(sql));
      await work?.(db, onCopy);
      files?.(join(folder, 'seals'));
      const report = await verifyRecord(db, join(folder, 'seals'));
      expect(report.ok ? 'nothing found' : `${report.part}: ${report.reason}`).toMatch(inside);
      const target = join(folder, 'export');
      await exportRecord(db, join(folder, 'seals'), target);
      const said = await verifyExport(target);
      if (outside) expect(said).toMatch(outside);
    } finally {
      await db.sequelize.close();
    }
  });
});

it('one that was not holds, inside and outside, also after a rebuild; a stream that does not fold is set aside', async () => {
  const copy = await copyOf(name);
  const db = connectDatabase(copy.url, { pool: 2 });
  const report = await verifyRecord(db, seals);
  expect(report).toMatchObject({ ok: true, seals: 2, photos: 1 });
  await rebuildProjections(db);
  expect(await verifyRecord(db, seals)).toEqual(report);
  const target = join(home, 'whole');
  await exportRecord(db, seals, target);
  expect(await verifyExport(target)).toMatch(/2 seals, 1 photos, 1 batches: all hold/);
  await expect(exportRecord(db, seals, target)).rejects.toThrow(/not empty/);

  const before = await db.tool.findAll({ raw: true });
  await asSuperuser(copy.name, asleep(`update entry set body = '{"kind": "nonsense"}' where ${KEPT}`));
  await asSuperuser(copy.name, 'update unit set name = $$Forged$$');
  const { aside } = await rebuildProjections(db);
  const ours = before.find((row) => row.code === 'PS-1')!;
  expect(aside).toMatchObject([{ stream: 'tool', streamId: ours.id }]);
  expect(await db.tool.findAll({ raw: true })).toEqual(before);
  expect(await db.unit.count({ where: { name: 'Forged' } })).toBe(0);
  await db.sequelize.close();
});
