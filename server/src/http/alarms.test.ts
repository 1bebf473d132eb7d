import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { expect, it } from 'vitest';
import { addToQueue, prepareQueue } from '../queue/queue.ts';
import { addUnit, openShop } from '../testing/shop.ts';

it('tell of work that stays, of backups and seals by their age, and of the room they have', async () => {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-alarms-'));
  const shop = await openShop({ SEALS: home, BACKUPS: home });
  await prepareQueue({ ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl }, pino({ level: 'silent' }));
  await addUnit(shop);
  await shop.seals.sealEnd();
  writeFileSync(join(home, 'lanternwright-2026-01-02T03-04-05Z.tar'), '');
  for (const task of ['seal', 'morning'] as const) await addToQueue(shop.db, task);
  await shop.db.sequelize.query(
    `update graphile_worker._private_jobs set attempts = max_attempts
     where task_id = (select id from graphile_worker._private_tasks where identifier = 'morning')`,
  );
  const { text } = await shop.anyone().get('/api/metrics').expect(200);
  const figure = (name: string) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]);
  expect(figure('queue_waiting')).toBe(1);
  expect(figure('queue_given_up')).toBe(1);
  expect(figure('seal_age_seconds')).toBeLessThan(600);
  const sinceThen = (Date.now() - Date.parse('2026-01-02T03:04:05Z')) / 1000;
  expect(Math.abs(figure('backup_age_seconds') - sinceThen)).toBeLessThan(600);
  for (const room of ['backups_free_bytes', 'seals_free_bytes']) expect(figure(room)).toBeGreaterThan(0);
  // There is no standby to fall behind.
  expect(text).not.toContain('standby_behind_entries');
  await shop.close();
  rmSync(home, { recursive: true, force: true });
});
