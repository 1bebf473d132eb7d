import { AsyncLocalStorage } from 'node:async_hooks';
import { Sequelize, type Transaction } from 'sequelize';

/**
 * Hands every query the transaction it runs inside of, so that none takes a second connection because somebody forgot
 * to pass it on. Sequelize calls this a continuation-local storage; Node's own does it.
 */
const storage = new AsyncLocalStorage<Map<string, unknown>>();

Sequelize.useCLS({
  bind: () => undefined,
  run: (work: (context: unknown) => void) => storage.run(new Map(storage.getStore()), () => work(undefined)),
  get: (key: string) => storage.getStore()?.get(key),
  set: (key: string, value: Transaction) => storage.getStore()?.set(key, value),
} as Parameters<typeof Sequelize.useCLS>[0]);
