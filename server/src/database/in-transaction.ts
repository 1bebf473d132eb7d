import { DatabaseError, type Sequelize, type Transaction } from 'sequelize';
import { currentTransaction } from './transaction-context.ts';

const TRIES = 4;
/** PostgreSQL: deadlock detected, could not serialize. */
const AGAIN = new Set(['40P01', '40001']);

/**
 * Runs work in one transaction: the one that is open already, or a new one, which is tried again where another was in
 * its way. Work that may be run again must not have changed anything outside the database.
 */
export async function inTransaction<T>(
  { sequelize }: { sequelize: Sequelize },
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  const open = currentTransaction(sequelize);
  if (open) return work(open);
  for (let tries = 1; ; tries++) {
    try {
      return await sequelize.transaction(work);
    } catch (error) {
      const { code } = error instanceof DatabaseError ? (error.original as { code?: string }) : {};
      if (!code || !AGAIN.has(code) || tries === TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, 20 * tries + Math.random() * 30));
    }
  }
}
