import { restoreBackup, writeBackup } from './backup/backup.ts';
import { migrateAndGrant, withOwner } from './database/owner.ts';

// Whatever this program writes into files is for its own account to read.
process.umask(0o077);

/** Writes a backup of the shop into a file, or restores one into an empty database. */
const [, , task, file] = process.argv;
const ownerUrl = process.env['DATABASE_OWNER_URL'];
if (!ownerUrl) throw new Error('DATABASE_OWNER_URL is not set');
const places = { ownerUrl, seals: process.env['SEALS'] ?? null };

try {
  if (!file || (task !== 'backup' && task !== 'restore')) {
    console.error('Say backup or restore, and which file.');
    process.exitCode = 2;
  } else if (task === 'backup') {
    const { entries } = await writeBackup(places, file);
    console.log(`${entries} records with their photos and seals are in ${file}. Copy it to another machine.`);
  } else {
    const { entries, made } = await restoreBackup(places, file);
    // Brought up to date, and the server's role let in, so that what is restored can be proved at once.
    await withOwner(places, migrateAndGrant(process.env['DATABASE_URL'] ?? ownerUrl));
    console.log(`${entries} records as of ${made} are restored. Prove them: npm run verify-records.`);
  }
} catch (error) {
  if (!(error instanceof Error)) throw error;
  console.error(`${error.message}.`);
  process.exitCode = 1;
}
