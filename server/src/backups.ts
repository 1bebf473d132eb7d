import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { restoreBackup, writeBackup } from './backup/backup.ts';
import { passphraseSchema } from './config.ts';
import { migrateAndGrant, withOwner } from './database/owner.ts';
import { SECRET_KEY } from './record/seals.ts';

// Whatever this program writes into files is for its own account to read.
process.umask(0o077);

/** Writes a backup of the shop into a file, or restores one into an empty database. */
const [, , task, file, option] = process.argv;
const withKey = option === '--with-key';
const ownerUrl = process.env['DATABASE_OWNER_URL'];
if (!ownerUrl) throw new Error('DATABASE_OWNER_URL is not set');
const passphrase = passphraseSchema.nullable().safeParse(process.env['BACKUP_PASSPHRASE'] ?? null);
const places = { ownerUrl, seals: process.env['SEALS'] ?? null };

try {
  if (!passphrase.success) throw new Error(`BACKUP_PASSPHRASE ${passphrase.error.issues[0]!.message}`);
  if (!file || (task !== 'backup' && task !== 'restore') || (option !== undefined && !withKey)) {
    console.error('Name backup or restore, and the file. For a backup, --with-key adds the key.');
    process.exitCode = 2;
  } else if (task === 'backup') {
    const { entries } = await writeBackup(places, file, { withKey, passphrase: passphrase.data });
    console.log(
      `${entries} records with their photos and seals are in ${file}${passphrase.data === null ? '' : ', locked with BACKUP_PASSPHRASE'}. Copy it to another machine.`,
    );
    if (places.seals !== null && !withKey)
      console.log(
        `The key that seals is not in it: keep a copy of ${join(places.seals, SECRET_KEY)} elsewhere.`,
      );
  } else {
    const { entries, made } = await restoreBackup(places, file, passphrase.data);
    // Brought up to date, and the server's role let in, so that what is restored can be proved at once.
    await withOwner(places, migrateAndGrant(process.env['DATABASE_URL'] ?? ownerUrl));
    console.log(`${entries} records as of ${made} are restored. Prove them: npm run verify-records.`);
    if (places.seals !== null && !existsSync(join(places.seals, SECRET_KEY)))
      console.log(
        `The key that seals was not in it. Put ${SECRET_KEY} back into ${places.seals} before the next start; without it a new one is made, and what the old one sealed is still proved.`,
      );
  }
} catch (error) {
  if (!(error instanceof Error)) throw error;
  console.error(`${error.message}.`);
  process.exitCode = 1;
}
