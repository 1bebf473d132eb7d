import type { Config } from '../config.ts';
import { connectDatabase, type Database } from './connect.ts';
import { migrateIn, underMigrationLock } from './migrate.ts';

/** Tables of which rows are added and read, and nothing else. */
const appendOnly = ['entry', 'batch_row', 'seal', 'chain_note'];

/** Works as the role that owns the tables, on a connection of its own that ends with the work. */
export async function withOwner<T>(
  { ownerUrl }: Pick<Config, 'ownerUrl'>,
  work: (db: Database) => Promise<T>,
): Promise<T> {
  const db = connectDatabase(ownerUrl, { pool: 1 });
  try {
    return await work(db);
  } finally {
    await db.sequelize.close();
  }
}

/** Lets the server's own role read and write, and of what must not change only add and read. */
async function grantServer({ sequelize }: Database, role: string): Promise<void> {
  const name = sequelize.escape(role).replace(/^'|'$/g, '"');
  await sequelize.query(
    `grant usage on schema public to ${name};
     grant select, insert, update, delete on all tables in schema public to ${name};
     grant usage, select, update on all sequences in schema public to ${name};
     revoke update, delete, truncate on ${appendOnly.join(', ')} from ${name};
     revoke update, truncate on photo from ${name};
     revoke update, delete, truncate on certificate from ${name};
     revoke insert, update, delete on migration from ${name}`,
  );
}

/**
 * Brings the schema up to date inside a transaction that has the lock of migrations, and gives the server's role what
 * it needs.
 * @param databaseUrl of the server, which names its role
 */
export async function migrateHere(db: Database, databaseUrl: string): Promise<void> {
  await migrateIn(db);
  const role = decodeURIComponent(new URL(databaseUrl).username);
  const [[row]] = await db.sequelize.query('select current_user as name');
  if ((row as { name: string }).name !== role) await grantServer(db, role);
}

/** The same in a transaction of its own. */
export const migrateAndGrant =
  (databaseUrl: string) =>
  async (db: Database): Promise<void> =>
    underMigrationLock(db, () => migrateHere(db, databaseUrl));
