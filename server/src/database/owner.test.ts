import { afterAll, beforeAll, expect, it } from 'vitest';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
  await addUnit(shop);
});
afterAll(() => shop.close());

it('the server’s role adds to the record and reads it, and can neither change it nor take its guards away', async () => {
  const run = (sql: string) => shop.db.sequelize.query(sql);
  for (const sql of [
    'update entry set body = body',
    'delete from entry',
    'truncate entry',
    'update seal set at = now()',
    'delete from batch_row',
    'delete from chain_note',
    'delete from migration',
    'update photo set sha256 = sha256',
    'alter table entry disable trigger all',
    'drop trigger entry_append_only on entry',
    'alter table entry disable row level security',
    'create or replace function refuse_change() returns trigger language plpgsql as $$ begin return new; end $$',
    'drop table entry',
    'create table public.more (id integer)',
    'alter schema public rename to gone',
  ])
    await expect(run(sql), sql).rejects.toThrow(/permission denied|must be owner/);
  const [rows] = await run('select count(*)::int as count from entry');
  expect((rows[0] as { count: number }).count).toBeGreaterThan(2);
});
