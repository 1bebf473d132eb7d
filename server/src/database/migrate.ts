import { readFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { Umzug } from 'umzug';
import { inTransaction } from './in-transaction.ts';

const folder = join(dirname(fileURLToPath(import.meta.url)), '../../migrations');
/** Any number that nothing else in this database locks. */
const MIGRATION_LOCK = 618_001;

function migrator(sequelize: Sequelize, transaction: Transaction) {
  const run = async (path: string) => sequelize.query(await readFile(path, 'utf8'), { transaction });
  return new Umzug({
    migrations: {
      glob: join(folder, '*.up.sql'),
      resolve: ({ path = '' }) => ({
        name: basename(path, '.up.sql'),
        up: () => run(path),
        down: () => run(path.replace(/\.up\.sql$/, '.down.sql')),
      }),
    },
    storage: {
      async executed() {
        await sequelize.query(
          'create table if not exists migration (name text primary key, at timestamptz not null default now())',
          {
            transaction,
          },
        );
        const rows = await sequelize.query<{ name: string }>('select name from migration order by name', {
          type: QueryTypes.SELECT,
          transaction,
        });
        return rows.map((r) => r.name);
      },
      async logMigration({ name }) {
        await sequelize.query('insert into migration (name) values (:name)', {
          replacements: { name },
          transaction,
        });
      },
      async unlogMigration({ name }) {
        await sequelize.query('delete from migration where name = :name', {
          replacements: { name },
          transaction,
        });
      },
    },
    logger: undefined,
  });
}

/** Runs work in one transaction that no other migration runs beside. */
export async function underMigrationLock<T>(
  sequelize: Sequelize,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  return inTransaction({ sequelize }, async (transaction) => {
    await sequelize.query(`select pg_advisory_xact_lock(${MIGRATION_LOCK})`, { transaction });
    return work(transaction);
  });
}

/** Brings the schema up to date inside a transaction that has the lock. */
export async function migrateIn(sequelize: Sequelize, transaction: Transaction): Promise<string[]> {
  return (await migrator(sequelize, transaction).up()).map((step) => step.name);
}

/** Brings the schema up to date, all or nothing. Several servers may start at once. */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  return underMigrationLock(sequelize, (transaction) => migrateIn(sequelize, transaction));
}

/** Takes the schema all the way back. */
export async function migrateBack(sequelize: Sequelize): Promise<string[]> {
  return underMigrationLock(sequelize, async (transaction) =>
    (await migrator(sequelize, transaction).down({ to: 0 })).map((step) => step.name),
  );
}
