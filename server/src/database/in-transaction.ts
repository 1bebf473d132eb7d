import { DatabaseError, type Transaction } from 'sequelize';
import type { Database } from './connect.ts';

const TRIES = 4;
/** PostgreSQL: deadlock detected, could not serialize. */
const AGAIN = new Set(['40P01', '40001']);

/**
 * Runs work in one transaction, and again where another one was in its way. Work that is run again must not have
 * changed anything outside the database.
 */
export async function inTransaction<T>(
  { sequelize }: Database,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
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
