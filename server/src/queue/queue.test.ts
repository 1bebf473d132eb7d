import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { expect, it } from 'vitest';
import { withOwner } from '../database/owner.ts';
import { sealsIn } from '../record/seals.ts';
import { addUnit, openShop } from '../testing/shop.ts';
import { addToQueue, prepareQueue, startQueue } from './queue.ts';

const log = pino({ level: 'silent' });
const nothing = {
  plan: () => Promise.resolve(),
  'meter-file': () => Promise.resolve(),
  feed: null,
  supplier: null,
  morning: () => Promise.resolve(),
  'keep-parts': () => Promise.resolve(),
  'tell-programs': () => Promise.resolve(),
  deliver: () => Promise.resolve(),
  seal: () => Promise.resolve(),
  backup: null,
};

it('does what is in it once, by one of two servers; what failed is tried again', async () => {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-queue-'));
  const shop = await openShop({ SEALS: home });
  await addUnit(shop);
  const places = { ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl };
  await Promise.all([prepareQueue(places, log), prepareQueue(places, log)]);
  await addUnit(shop);
  let backups = 0;
  const background = {
    ...nothing,
    seal: () => shop.seals.sealEnd(),
    backup: () => {
      backups += 1;
      return backups === 1 ? Promise.reject(new Error('the disk is full')) : Promise.resolve();
    },
  };
  const queues = await Promise.all([1, 2].map(() => startQueue(shop.databaseUrl, background, log)));
  await addToQueue(shop.db, 'seal');
  await addToQueue(shop.db, 'backup');
  await expect.poll(async () => (await sealsIn(home)).length, { timeout: 8_000 }).toBeGreaterThan(0);
  await expect.poll(() => backups, { timeout: 8_000 }).toBe(2);
  await Promise.all(queues.map((q) => q.stop()));
  expect((await sealsIn(home)).at(-1)!.seq).toBe(Number(await shop.db.entry.max('seq')));
  await shop.close();
  rmSync(home, { recursive: true, force: true });
});

it('a database that fails just as it looks at the clock ends no server: it looks again', async () => {
  const shop = await openShop();
  const places = { ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl };
  await prepareQueue(places, log);
  const rename = (from: string, to: string) =>
    withOwner(places, (db) => db.sequelize.query(`alter table graphile_worker.${from} rename to ${to}`));
  await rename('_private_known_crontabs', 'gone');
  let looked = 0;
  const watched = pino(
    { level: 'error' },
    { write: (line: string) => void (looked += Number(line.includes('Cron'))) },
  );
  const queue = await startQueue(shop.databaseUrl, nothing, watched);
  await expect.poll(() => looked, { timeout: 20_000 }).toBeGreaterThan(1);
  await rename('gone', '_private_known_crontabs');
  const known = async () =>
    (await shop.db.sequelize.query('select 1 from graphile_worker._private_known_crontabs'))[0].length;
  await expect.poll(known, { timeout: 20_000 }).toBe(4);
  await queue.stop();
  await shop.close();
}, 60_000);

it('connections that break while a job is done end neither server nor queue: it is done again', async () => {
  const shop = await openShop();
  const places = { ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl };
  await prepareQueue(places, log);
  let begun = 0;
  let goOn = (): void => undefined;
  const held = new Promise<void>((done) => (goOn = done));
  const seal = () => {
    begun += 1;
    return begun === 1 ? held : Promise.resolve();
  };
  const queue = await startQueue(shop.databaseUrl, { ...nothing, seal }, log);
  await addToQueue(shop.db, 'seal');
  await expect.poll(() => begun, { timeout: 20_000 }).toBe(1);
  const cut = () =>
    shop.db.sequelize.query(
      `select pg_terminate_backend(pid) from pg_stat_activity
       where datname = current_database() and usename = current_user and pid <> pg_backend_pid()`,
    );
  await cut();
  goOn();
  await cut();
  await expect
    .poll(
      () =>
        addToQueue(shop.db, 'seal').then(
          () => true,
          () => false,
        ),
      { timeout: 20_000 },
    )
    .toBe(true);
  await expect.poll(() => begun, { timeout: 30_000 }).toBeGreaterThan(1);
  await queue.stop();
  await shop.close();
}, 90_000);
