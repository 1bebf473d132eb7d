import { AsyncLocalStorage } from 'node:async_hooks';
import { Sequelize, type Transaction } from 'sequelize';

const TRANSACTION = 'transaction';

/**
 * Hands every query the transaction it runs inside of, so that none takes a second connection because somebody forgot
 * to pass it on. Sequelize calls this a continuation-local storage; Node's own does it.
 */
const storage = new AsyncLocalStorage<Map<string, unknown>>();

Sequelize.useCLS({
  bind: () => undefined,
  run: (work: (context: unknown) => void) => storage.run(new Map(storage.getStore()), () => work(undefined)),
  get: (key: string) => storage.getStore()?.get(key),
  set: (key: string, value: unknown) => storage.getStore()?.set(key, value),
});

/** The transaction of this database that the caller runs inside of. */
export function currentTransaction(sequelize: Sequelize): Transaction | null {
  const transaction = storage.getStore()?.get(TRANSACTION) as
    (Transaction & { sequelize: Sequelize }) | undefined;
  return transaction?.sequelize === sequelize ? transaction : null;
}

/** Begins work that outlives the caller's transaction, and so is no part of it. */
export const outsideTransactions = <T>(work: () => T): T => storage.exit(work);
