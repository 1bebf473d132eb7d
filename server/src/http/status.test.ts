import pg from 'pg';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addUnit, axlesOf, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
  await shop.live.start();
});
afterAll(() => shop.close());

/** From now on the database lets our server read and nothing else, as one whose copy has taken over elsewhere. */
async function onlyRead(so: 'on' | 'off'): Promise<void> {
  const client = new pg.Client({ connectionString: shop.databaseUrl });
  await client.connect();
  await client.query('set default_transaction_read_only = off');
  await client.query(
    `alter role current_user in database "${shop.databaseName}" set default_transaction_read_only = ${so}`,
  );
  // Connections that are open stay as they are.
  await client.query(
    `select pg_terminate_backend(pid) from pg_stat_activity
     where datname = current_database() and usename = current_user and pid <> pg_backend_pid()`,
  );
  await client.end();
}

const ready = () => shop.anyone().get('/api/ready');
const newUnit = (name: string) =>
  shop.technician.call
    .post('/api/fleet/units')
    .send({ owner: 'Tern & Hollow Haulage', name, kind: 'tractor', axles: axlesOf('tractor-3') });

it('a database that takes nothing is not ready, and whoever records is told so and why', async () => {
  const unitId = await addUnit(shop);
  await onlyRead('on');
  expect((await ready().expect(503)).body).toMatchObject({ ok: false, database: true, writes: false });
  const { body } = await newUnit('Tern 51').expect(503);
  expect(body).toMatchObject({ code: 'not-recording', title: 'Nothing can be recorded just now' });
  expect(body.detail).toMatch(/it may only be read.*Nothing of this was kept here\. A tablet keeps/);
  // What is there is still shown.
  await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200);
  await onlyRead('off');
  await expect
    .poll(async () => (await ready()).body as object, { timeout: 20_000 })
    .toEqual({ ok: true, database: true, writes: true, live: true });
  await newUnit('Tern 51').expect(200);
});
