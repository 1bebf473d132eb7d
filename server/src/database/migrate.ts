import { readdir, readFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { QueryTypes } from 'sequelize';
import { Umzug } from 'umzug';
import { rebuildProjections } from '../record/rebuild.ts';
import { takeOver } from '../record/take-over.ts';
import type { Database } from './connect.ts';
import { ensureExtensions } from './extensions.ts';
import { inTransaction } from './in-transaction.ts';

const folder = join(dirname(fileURLToPath(import.meta.url)), '../../migrations');
/** Any number that nothing else in this database locks. */
const MIGRATION_LOCK = 618_001;

interface Step {
  name: string;
  up: () => Promise<unknown>;
  down: () => Promise<unknown>;
}

/** Steps in SQL, and the one that is code: it hashes what it records. */
async function stepsOf(db: Database): Promise<Step[]> {
  const run = async (path: string) => db.sequelize.query(await readFile(join(folder, path), 'utf8'));
  const names = (await readdir(folder))
    .filter((f) => f.endsWith('.up.sql'))
    .map((f) => basename(f, '.up.sql'));
  const inSql = names.map((name) => ({
    name,
    up: () => run(`${name}.up.sql`),
    down: () => run(`${name}.down.sql`),
  }));
  const inCode = { name: '0011-taken-over', up: () => takeOver(db), down: () => mustBeEmpty(db) };
  return [...inSql, inCode].sort((a, b) => (a.name < b.name ? -1 : 1));
}

async function executed({ sequelize }: Database): Promise<string[]> {
  await sequelize.query(
    'create table if not exists migration (name text primary key, at timestamptz not null default now())',
  );
  const rows = await sequelize.query<{ name: string }>('select name from migration order by name', {
    type: QueryTypes.SELECT,
  });
  return rows.map((r) => r.name);
}

async function migrator(db: Database) {
  const { sequelize } = db;
  return new Umzug({
    migrations: await stepsOf(db),
    storage: {
      executed: () => executed(db),
      async logMigration({ name }) {
        await sequelize.query('insert into migration (name) values (:name)', { replacements: { name } });
      },
      async unlogMigration({ name }) {
        await sequelize.query('delete from migration where name = :name', { replacements: { name } });
      },
    },
    logger: undefined,
  });
}

/** Runs work in one transaction that no other migration runs beside. */
export async function underMigrationLock<T>(db: Database, work: () => Promise<T>): Promise<T> {
  return inTransaction(db, async () => {
    await db.sequelize.query(`select pg_advisory_xact_lock(${MIGRATION_LOCK})`);
    return work();
  });
}

/** @throws Error when a newer program has changed the schema: this one would misread it */
async function mustKnowAll(db: Database): Promise<void> {
  const known = new Set((await stepsOf(db)).map((s) => s.name));
  const newer = (await executed(db)).filter((name) => !known.has(name));
  if (newer.length > 0)
    throw new Error(
      `A newer version of the program has changed this database (${newer.join(', ')}): start that version, or restore a backup`,
    );
}

/** @throws Error when there are records: going back would drop them */
async function mustBeEmpty(db: Database): Promise<void> {
  const count = await db.entry.count();
  if (count > 0)
    throw new Error(`Going back would drop ${count} records: it is refused. Restore a backup instead.`);
}

/** Brings the schema up to date inside a transaction that has the lock; then every row is what the record comes to. */
export async function migrateIn(db: Database): Promise<string[]> {
  await mustKnowAll(db);
  await ensureExtensions(db);
  const done = (await (await migrator(db)).up()).map((step) => step.name);
  if (done.length > 0) await rebuildProjections(db);
  return done;
}

/**
 * Brings the schema up to date, all or nothing. Several servers may start at once.
 * @throws Error when the schema is newer than this program
 */
export async function migrate(db: Database): Promise<string[]> {
  return underMigrationLock(db, () => migrateIn(db));
}

/** Takes the schema all the way back. @throws Error when there are records */
export async function migrateBack(db: Database): Promise<string[]> {
  return underMigrationLock(db, async () =>
    (await (await migrator(db)).down({ to: 0 })).map((step) => step.name),
  );
}
