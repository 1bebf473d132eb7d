import { afterAll, beforeAll, expect, it } from 'vitest';
import { axleNumber, firstAxleId } from '@lanternwright/core/axle-plan';
import { connectDatabase, type Database } from '../database/connect.ts';
import { migrate, migrateBack } from '../database/migrate.ts';
import { oldDatabase } from '../testing/old-database.ts';
import { freshDatabase } from '../testing/shop.ts';
import { compareProjections } from './rebuild.ts';
import { verifyChain } from './verify-chain.ts';

let db: Database;
beforeAll(async () => {
  db = connectDatabase((await freshDatabase()).ownerUrl);
});
afterAll(() => db.sequelize.close());

it('a database of the version before is brought up whole: no hash changes, everything has a record', async () => {
  const hashes = await oldDatabase(db);
  expect(await migrate(db)).toEqual([
    '0010-record',
    '0011-taken-over',
    '0012-meters',
    '0013-due',
    '0014-bookings',
    '0015-plan',
    '0016-calendars',
    '0017-fleet-pages',
    '0018-meter-files',
    '0019-duty',
    '0020-morning',
    '0021-units',
    '0022-stores',
    '0023-supplier',
    '0024-kept',
    '0025-newest-hours',
    '0026-assembly',
    '0027-left-apart',
    '0028-yard-only',
    '0029-retorque-by-hours',
    '0030-write-proof',
    '0031-closed-by-reading',
    '0032-arrivals',
    '0033-programs',
    '0034-promises',
    '0035-remarks',
    '0036-left-out',
    '0037-deferred',
  ]);
  const kept = await db.entry.findAll({ where: { stream: 'job' }, order: ['seq'] });
  expect(new Map(kept.map((e) => [e.id, e.hash]))).toEqual(hashes);
  const report = await verifyChain(db);
  expect(report).toMatchObject({ ok: true });
  const kinds = await db.entry.count({ group: ['stream'] });
  expect(new Set(kinds.map((k) => k['stream']))).toEqual(
    new Set(['job', 'meter', 'person', 'shop', 'tool', 'unit']),
  );
  const { differs, aside } = await compareProjections(db);
  expect({ differs, aside }).toEqual({ differs: null, aside: [] });
  // Old jobs name positions only: their readings belong to the axles that stood there.
  const readings = await db.reading.findAll();
  expect(readings.length).toBeGreaterThan(0);
  for (const { unitId, axleId, position } of readings)
    expect(axleId).toBe(firstAxleId(unitId, axleNumber(position)));
  expect(await migrate(db)).toEqual([]);
  await expect(migrateBack(db)).rejects.toThrow(/would drop \d+ records: it is refused/);
  await db.sequelize.query(`insert into migration (name) values ('0099-later')`);
  await expect(migrate(db)).rejects.toThrow(/A newer version of the program.*0099-later/);
});
