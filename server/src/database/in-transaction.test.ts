import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '../testing/shop.ts';
import { connectDatabase, type Database } from './connect.ts';
import { inTransaction } from './in-transaction.ts';

let db: Database;
beforeAll(async () => {
  const { ownerUrl: url } = await freshDatabase();
  db = connectDatabase(url, { pool: 2 });
  await db.sequelize.query('create table pot (name text primary key, spoons integer not null)');
  await db.sequelize.query(`insert into pot values ('left', 0), ('right', 0)`);
});
afterAll(() => db.sequelize.close());

const add = (name: string) => db.sequelize.query(`update pot set spoons = spoons + 1 where name = '${name}'`);
const backend = async () => {
  const [rows] = await db.sequelize.query('select pg_backend_pid() as pid');
  return (rows[0] as { pid: number }).pid;
};

describe('a transaction', () => {
  it('that meets another in a deadlock is run again, and both are kept', async () => {
    let runs = 0;
    const both = (first: string, second: string) =>
      inTransaction(db, async () => {
        runs += 1;
        await add(first);
        // Long enough that each holds what the other wants.
        await db.sequelize.query('select pg_sleep(0.3)');
        await add(second);
      });
    await Promise.all([both('left', 'right'), both('right', 'left')]);
    expect(runs).toBeGreaterThan(2);
    const [rows] = await db.sequelize.query('select spoons from pot');
    expect(rows).toEqual([{ spoons: 2 }, { spoons: 2 }]);
  });

  it('joins the one it is in, on the one connection that has, and goes with it', async () => {
    const before = (await db.sequelize.query('select sum(spoons)::int as n from pot'))[0];
    const work = inTransaction(db, async () => {
      const outer = await backend();
      await inTransaction(db, async () => {
        expect(await backend()).toBe(outer);
        await add('left');
      });
      throw new Error('not after all');
    });
    await expect(work).rejects.toThrow('not after all');
    expect((await db.sequelize.query('select sum(spoons)::int as n from pot'))[0]).toEqual(before);
  });

  it('is not run again for what is wrong with the work itself', async () => {
    let runs = 0;
    const work = inTransaction(db, () => {
      runs += 1;
      return db.sequelize.query(`insert into pot values ('left', 1)`);
    });
    await expect(work).rejects.toThrow(/Validation error|unique/i);
    expect(runs).toBe(1);
  });
});
