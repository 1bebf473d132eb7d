import { connectDatabase } from './database/connect.ts';
import { rebuildProjections, verifyChain } from './jobs/record.ts';

/** `verify` proves that no record was altered; `rebuild` writes the projections again from the events. */
const [, , task] = process.argv;
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is not set');
const db = connectDatabase(url);

if (task === 'verify') {
  const report = await verifyChain(db);
  if (report.ok) {
    console.log(`${report.events} records, each follows the one before. Last hash ${report.lastHash}.`);
  } else {
    console.error(`${report.reason}.`);
    process.exitCode = 1;
  }
} else if (task === 'rebuild') {
  console.log(`${await rebuildProjections(db)} jobs folded, projections written.`);
} else {
  console.error('Say verify or rebuild.');
  process.exitCode = 2;
}
await db.sequelize.close();
