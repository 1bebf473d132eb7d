import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { copyFile, mkdir, mkdtemp, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import * as tar from 'tar';
import { z } from 'zod';
import { ensureExtensions } from '../database/extensions.ts';
import { connectDatabase } from '../database/connect.ts';
import { SECRET_KEY } from '../record/seals.ts';
import { isLocked, lockFileAside, unlockFile } from './locked.ts';

const DEBIAN = '/usr/lib/postgresql';
const DUMP = 'database.dump';
const MANIFEST = 'manifest.json';
const SEALS = 'seals';

/** What a backup says of itself. */
const manifestSchema = z.object({
  made: z.iso.datetime(),
  program: z.literal('lanternwright'),
  format: z.literal(1),
  /** Steps of the schema, oldest first. */
  migrations: z.array(z.string()),
  entries: z.int(),
});
export type Manifest = z.output<typeof manifestSchema>;

/** A program of PostgreSQL, of the newest version that Debian's packages put there; else whatever the path has. */
function programOf(name: string): string {
  const versions = existsSync(DEBIAN) ? readdirSync(DEBIAN).map(Number).filter(Boolean) : [];
  const found = versions
    .sort((a, b) => b - a)
    .map((v) => join(DEBIAN, String(v), 'bin', name))
    .find((path) => existsSync(path));
  return found ?? name;
}

/** @throws Error with what the program said */
function run(name: string, url: string, args: readonly string[]): Promise<string> {
  const { username, password, hostname, port, pathname } = new URL(url);
  const env = {
    ...process.env,
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGHOST: hostname,
    PGPORT: port || '5432',
    PGDATABASE: pathname.slice(1),
    // For row-level security: everything is read.
    PGOPTIONS: '-c lanternwright.owners=all',
  };
  return new Promise((resolve, reject) => {
    const child = spawn(programOf(name), args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    let complaint = '';
    child.stdout.on('data', (text) => (said += text));
    child.stderr.on('data', (text) => (complaint = (complaint + text).slice(-2_000)));
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0 ? resolve(said) : reject(new Error(`${name} failed: ${complaint.trim() || `code ${code}`}`)),
    );
  });
}

async function manifestOf(url: string): Promise<Manifest> {
  const db = connectDatabase(url, { pool: 1 });
  try {
    const [steps] = await db.sequelize.query('select name from migration order by name');
    const migrations = (steps as { name: string }[]).map((s) => s.name);
    const table = migrations.includes('0010-record') ? 'entry' : 'job_event';
    const [[count]] = await db.sequelize.query(`select count(*)::int as count from ${table}`);
    const { count: entries } = count as { count: number };
    return { made: new Date().toISOString(), program: 'lanternwright', format: 1, migrations, entries };
  } finally {
    await db.sequelize.close();
  }
}

interface Places {
  /** The role that owns the tables. */
  ownerUrl: string;
  /** Folder of the seals; null where the record is not sealed. */
  seals: string | null;
}

/**
 * Writes a backup, one file, while the shop goes on: the database as it stands at one moment with its photos, and the
 * seals. Who is signed in is not in it. It holds passwords as hashes: keep it as you keep the shop's own data.
 * @param withKey whether the key that seals goes along; whoever has both can write another record and seal it
 * @param passphrase what locks the file; null leaves it open to whoever can read it
 */
export async function writeBackup(
  { ownerUrl, seals }: Places,
  file: string,
  { withKey = false, passphrase = null }: { withKey?: boolean; passphrase?: string | null } = {},
): Promise<Manifest> {
  const work = await mkdtemp(join(tmpdir(), 'lanternwright-backup-'));
  try {
    // The seals first: every record they seal is in what is read of the database after.
    await mkdir(join(work, SEALS));
    if (seals !== null && existsSync(seals))
      for (const name of await readdir(seals))
        if (withKey || name !== SECRET_KEY) await copyFile(join(seals, name), join(work, SEALS, name));
    const manifest = await manifestOf(ownerUrl);
    await run('pg_dump', ownerUrl, [
      ...['--format=custom', '--schema=public', '--enable-row-security', '--no-owner', '--no-privileges'],
      ...['--exclude-table-data=session', '--exclude-table-data=try_counter'],
      `--file=${join(work, DUMP)}`,
    ]);
    await writeFile(join(work, MANIFEST), `${JSON.stringify(manifest, null, 2)}\n`);
    await mkdir(dirname(file), { recursive: true });
    // Whole or not there: what is half written has another name.
    const open = passphrase === null ? `${file}.part` : join(work, 'open.tar');
    await tar.create({ cwd: work, file: open }, [MANIFEST, SEALS, DUMP]);
    if (passphrase !== null) await lockFileAside(open, `${file}.part`, passphrase);
    await rename(`${file}.part`, file);
    return manifest;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** Takes the schema itself off the list of what a dump restores: it is there. */
const withoutSchema = (list: string) =>
  list
    .split('\n')
    .filter((line) => !/ SCHEMA - public | COMMENT - SCHEMA public /.test(line))
    .join('\n');

/** Nothing is restored over anything; what a dump does not hold of the database is put there. */
async function prepareEmpty(url: string, seals: string | null): Promise<void> {
  const db = connectDatabase(url, { pool: 1 });
  try {
    const [found] = await db.sequelize.query(`select 1 from pg_tables where schemaname = 'public' limit 1`);
    if (found.length > 0)
      throw new Error('There is a shop in this database already: restore into an empty one');
    await ensureExtensions(db);
  } finally {
    await db.sequelize.close();
  }
  // The key may lie there: it is kept apart from the backups, and put back first.
  const there = seals !== null && existsSync(seals) ? await readdir(seals) : [];
  if (there.some((name) => name !== SECRET_KEY))
    throw new Error(`There are seals in ${seals} already: move them away first`);
}

/**
 * Restores a backup into an empty database, and its seals into an empty folder. The next start of the server brings an
 * older schema up to date.
 * @param passphrase opens a locked file; not asked for where it is open
 * @throws Error where there is a shop already, the file is no backup, or the passphrase is another one
 */
export async function restoreBackup(
  { ownerUrl, seals }: Places,
  file: string,
  passphrase: string | null = null,
): Promise<Manifest> {
  const locked = await isLocked(file);
  if (locked && passphrase === null)
    throw new Error(`${basename(file)} is locked: set BACKUP_PASSPHRASE to its passphrase`);
  await prepareEmpty(ownerUrl, seals);
  const work = await mkdtemp(join(tmpdir(), 'lanternwright-restore-'));
  try {
    const open = locked ? join(work, 'open.tar') : file;
    if (locked) await unlockFile(file, open, passphrase!);
    await tar.extract({ cwd: work, file: open });
    const read = await readFile(join(work, MANIFEST), 'utf8').catch(() => null);
    const manifest = manifestSchema.safeParse(read === null ? null : JSON.parse(read));
    if (!manifest.success) throw new Error(`${basename(file)} is no backup of a shop`);
    await writeFile(
      join(work, 'list'),
      withoutSchema(await run('pg_restore', ownerUrl, ['--list', join(work, DUMP)])),
    );
    await run('pg_restore', ownerUrl, [
      ...['--single-transaction', '--exit-on-error', '--no-owner', '--no-privileges'],
      ...[
        `--use-list=${join(work, 'list')}`,
        `--dbname=${new URL(ownerUrl).pathname.slice(1)}`,
        join(work, DUMP),
      ],
    ]);
    if (seals !== null) {
      await mkdir(seals, { recursive: true, mode: 0o700 });
      for (const name of await readdir(join(work, SEALS)))
        await copyFile(join(work, SEALS, name), join(seals, name));
    }
    return manifest.data;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

const NAME = /^lanternwright-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})Z\.tar(?:\.age)?$/;

/** When each backup of a folder was made, newest first. */
export async function backupsIn(folder: string): Promise<{ file: string; made: string }[]> {
  if (!existsSync(folder)) return [];
  return (await readdir(folder))
    .flatMap((file) => {
      const [, at] = NAME.exec(file) ?? [];
      return at ? [{ file, made: `${at.replace(/T(\d\d)-(\d\d)-/, 'T$1:$2:')}.000Z` }] : [];
    })
    .sort((a, b) => (a.made > b.made ? -1 : 1));
}

/** Writes the next backup of a folder and takes the oldest away where there are more than are kept. */
export async function nextBackup(
  places: Places,
  { folder, kept, passphrase }: { folder: string; kept: number; passphrase: string | null },
): Promise<string> {
  const at = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  const file = join(folder, `lanternwright-${at}Z.tar${passphrase === null ? '' : '.age'}`);
  await writeBackup(places, file, { passphrase });
  for (const { file: old } of (await backupsIn(folder)).slice(kept)) await rm(join(folder, old));
  return file;
}
