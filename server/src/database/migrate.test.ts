import { expect, it } from 'vitest';
import { freshDatabase } from '../testing/shop.ts';
import { connectDatabase } from './connect.ts';
import { migrate, migrateBack } from './migrate.ts';

const all = [
  '0001-first',
  '0002-whole-job',
  '0003-sheets',
  '0004-photos',
  '0005-tools',
  '0006-routes',
  '0007-follow-ups',
  '0008-demo-people',
  '0009-doors',
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
];

it('goes forward, back and forward again, and two servers at once do it once', async () => {
  const { ownerUrl: url } = await freshDatabase();
  const a = connectDatabase(url);
  const b = connectDatabase(url);
  const done = await Promise.all([migrate(a), migrate(b)]);
  expect(done.flat()).toEqual(all);
  expect(await migrateBack(a)).toEqual([...all].reverse());
  const [tables] = await a.sequelize.query(`select tablename from pg_tables where schemaname = 'public'`);
  expect(tables).toEqual([{ tablename: 'migration' }]);
  expect(await migrate(b)).toEqual(all);
  await Promise.all([a.sequelize.close(), b.sequelize.close()]);
});
