import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../app.ts';
import { readConfig } from '../config.ts';
import { connectDatabase } from '../database/connect.ts';
import { migrate } from '../database/migrate.ts';
import { exportRecord } from '../record/export.ts';
import { compareProjections } from '../record/rebuild.ts';
import { publicKeysIn, sealsIn } from '../record/seals.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { verifyRecord } from '../record/verify.ts';
import { oldDatabase } from '../testing/old-database.ts';
import {
  addUnit,
  confirmStep,
  fetchJob,
  freshDatabase,
  openJobOn,
  openShop,
  send,
  type Shop,
} from '../testing/shop.ts';
import { backupsIn, nextBackup, restoreBackup, writeBackup } from './backup.ts';

const home = mkdtempSync(join(tmpdir(), 'lanternwright-backup-test-'));
let shop: Shop;
beforeAll(async () => {
  shop = await openShop({ SEALS: join(home, 'seals') });
  await shop.seals.sealEnd(true);
});
afterAll(async () => {
  await shop.close();
  rmSync(home, { recursive: true, force: true });
});

const places = () => ({ ownerUrl: shop.ownerUrl, seals: join(home, 'seals') });

describe('a backup', () => {
  it('is made while work goes on, one file, and comes up whole with its seals', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    let working = true;
    const work = (async () => {
      while (working) {
        const job = await fetchJob(shop.technician.call, jobId);
        const answer = await send(shop.technician.call, jobId, job.version, confirmStep(job, '2L'));
        if (answer.status !== 200) return;
        await shop.seals.sealEnd();
      }
    })();
    const file = join(home, 'backups', 'one.tar');
    const manifest = await writeBackup(places(), file);
    working = false;
    await work;

    const { ownerUrl } = await freshDatabase();
    const target = { ownerUrl, seals: join(home, 'restored') };
    expect(await restoreBackup(target, file)).toEqual(manifest);
    const db = connectDatabase(ownerUrl);
    expect(await verifyRecord(db, target.seals)).toMatchObject({ ok: true });
    expect(await db.entry.count()).toBeGreaterThanOrEqual(manifest.entries);
    expect(await db.person.count()).toBe(2);
    const [sessions] = await db.sequelize.query('select 1 from session');
    expect(sessions).toEqual([]);
    await expect(db.sequelize.query('delete from entry')).rejects.toThrow(/never changed/);
    await db.sequelize.close();
    // Never over what is there.
    await expect(restoreBackup(target, file)).rejects.toThrow(/a shop in this database already/);
  });

  it('leaves the key that seals where it is: a shop restored without it goes on with another, and all is proved', async () => {
    const file = join(home, 'keyless.tar');
    await writeBackup(places(), file);
    const { ownerUrl } = await freshDatabase();
    const target = { ownerUrl, seals: join(home, 'keyless') };
    await restoreBackup(target, file);
    expect(readdirSync(target.seals).sort()).toEqual(['seal-key.pub.pem', 'seals.jsonl']);
    const db = connectDatabase(ownerUrl);
    const again = createApp(
      readConfig({
        ...{
          DATABASE_URL: ownerUrl,
          SEALS: target.seals,
          SESSION_SECRET: 'x'.repeat(20),
          LOG_LEVEL: 'silent',
        },
      }),
    );
    await again.people.addWithPassword({
      ...{ name: 'Somebody', login: 'somebody', role: 'technician', password: 'correct horse battery' },
    });
    await again.seals.sealEnd();
    await again.close();
    const seals = await sealsIn(target.seals);
    expect(new Set(seals.map((s) => s.key)).size).toBe(2);
    expect([...(await publicKeysIn(target.seals)).values()].map((k) => k.name).sort()).toEqual(
      [...new Set(seals.map((s) => s.key))].sort(),
    );
    expect(await verifyRecord(db, target.seals)).toMatchObject({ ok: true });
    // An export proves both as well, without this program.
    const folder = join(home, 'keyless-export');
    await exportRecord(db, target.seals, folder);
    const proved = spawnSync(process.execPath, [join(folder, 'verify.mjs')], { encoding: 'utf8' });
    expect(proved.stdout + proved.stderr).toMatch(/seals/);
    expect(proved.status).toBe(0);
    // A public half that is gone proves nothing any more.
    const old = readdirSync(target.seals).find((name) => /^seal-key-/.test(name))!;
    rmSync(join(target.seals, old));
    expect(await verifyRecord(db, target.seals)).toMatchObject({ ok: false });
    await db.sequelize.close();
  });

  it('takes the key along where that is asked for, and one that was put back first is the one that seals', async () => {
    const file = join(home, 'with-key.tar');
    await writeBackup(places(), file, { withKey: true });
    const whole = await freshDatabase();
    await restoreBackup({ ownerUrl: whole.ownerUrl, seals: join(home, 'whole') }, file);
    expect(readdirSync(join(home, 'whole'))).toContain('seal-key.pem');
    const keyless = join(home, 'keyless-again.tar');
    await writeBackup(places(), keyless);
    const { ownerUrl } = await freshDatabase();
    const seals = join(home, 'put-back');
    mkdirSync(seals);
    copyFileSync(join(home, 'seals', 'seal-key.pem'), join(seals, 'seal-key.pem'));
    await restoreBackup({ ownerUrl, seals }, keyless);
    const db = connectDatabase(ownerUrl);
    expect(await verifyRecord(db, seals)).toMatchObject({ ok: true });
    await db.sequelize.close();
    await expect(
      restoreBackup({ ownerUrl: (await freshDatabase()).ownerUrl, seals }, keyless),
    ).rejects.toThrow(/There are seals in/);
  });

  it('is locked by a passphrase and opened by no other; one that was changed anywhere is not restored', async () => {
    const folder = join(home, 'locked');
    const passphrase = 'seven quiet herons on a slipway';
    const file = await nextBackup(places(), { folder, kept: 3, passphrase });
    expect((await backupsIn(folder)).map((b) => join(folder, b.file))).toEqual([file]);
    expect(file).toMatch(/\.tar\.age$/);
    const bytes = readFileSync(file);
    expect(bytes.subarray(0, 22).toString()).toBe('age-encryption.org/v1\n');
    for (const word of ['manifest.json', 'PGDMP', 'okonedo']) expect(bytes.includes(word)).toBe(false);
    const { ownerUrl } = await freshDatabase();
    const target = { ownerUrl, seals: join(home, 'unlocked') };
    await expect(restoreBackup(target, file)).rejects.toThrow(/is locked: set BACKUP_PASSPHRASE/);
    await expect(restoreBackup(target, file, 'six quiet herons on a slipway')).rejects.toThrow(/passphrase/);
    bytes[bytes.length - 100]! ^= 1;
    writeFileSync(join(folder, 'changed.tar.age'), bytes);
    await expect(restoreBackup(target, join(folder, 'changed.tar.age'), passphrase)).rejects.toThrow(
      /damaged/,
    );
    expect(existsSync(target.seals)).toBe(false);
    await restoreBackup(target, file, passphrase);
    const db = connectDatabase(ownerUrl);
    expect(await verifyRecord(db, target.seals)).toMatchObject({ ok: true });
    await db.sequelize.close();
    expect(
      readConfig({ DATABASE_URL: 'postgres://x', SESSION_SECRET: 'x'.repeat(20), BACKUPS: folder }).backups,
    ).toMatchObject({ passphrase: null });
    expect(() =>
      readConfig({
        DATABASE_URL: 'postgres://x',
        SESSION_SECRET: 'x'.repeat(20),
        BACKUP_PASSPHRASE: 'short',
      }),
    ).toThrow();
    // What makes a key of the passphrase is slow on purpose.
  }, 180_000);

  it('of the version before restores into this one', async () => {
    const before = await freshDatabase();
    const old = connectDatabase(before.ownerUrl);
    const hashes = await oldDatabase(old);
    await old.sequelize.close();
    const file = join(home, 'old.tar');
    const { migrations } = await writeBackup({ ownerUrl: before.ownerUrl, seals: null }, file);
    expect(migrations.at(-1)).toBe('0009-doors');
    const { ownerUrl } = await freshDatabase();
    await restoreBackup({ ownerUrl, seals: null }, file);
    const db = connectDatabase(ownerUrl);
    await migrate(db);
    // The photos of these jobs were never kept with them; all else holds.
    expect(await verifyChain(db)).toMatchObject({ ok: true });
    expect(await compareProjections(db)).toMatchObject({ differs: null, aside: [] });
    const kept = await db.entry.findAll({ where: { stream: 'job' } });
    expect(new Map(kept.map((e) => [e.id, e.hash]))).toEqual(hashes);
    await db.sequelize.close();
  });

  it('keeps as many as are wanted, the newest; a file that is none is refused and leaves nothing', async () => {
    const folder = join(home, 'kept');
    for (const day of ['01', '02', '03'])
      writeFileSync(join(home, `lanternwright-2020-01-${day}T02-30-00Z.tar`), '');
    await nextBackup(places(), { folder: home, kept: 2, passphrase: null });
    const there = await backupsIn(home);
    expect(there.map((b) => b.made.slice(0, 10))).toEqual([
      new Date().toISOString().slice(0, 10),
      '2020-01-03',
    ]);
    expect(await backupsIn(folder)).toEqual([]);

    const { ownerUrl } = await freshDatabase();
    const nonsense = join(home, 'nonsense.tar');
    writeFileSync(nonsense, 'no tar at all');
    await expect(restoreBackup({ ownerUrl, seals: folder }, nonsense)).rejects.toThrow();
    expect(existsSync(folder) ? readdirSync(folder) : []).toEqual([]);
  });
});
