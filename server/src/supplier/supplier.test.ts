import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { partSchema, type Part } from '@lanternwright/core/part';
import type { Order, StorePart } from '@lanternwright/contract/stores';
import type { SupplierService } from '@lanternwright/contract/supplier';
import { program } from '@lanternwright/core/record';
import { compareProjections } from '../record/rebuild.ts';
import { addUnit, openJobOn, openShop, type Shop } from '../testing/shop.ts';
import { startSupplier } from './simulator.ts';

const NAME = 'Quayside';
const SECRET = 'known to both of them';
const price = { currency: 'USD', minor: 4185 };
const core = { currency: 'USD', minor: 6000 };
let shop: Shop;
let supplier: Awaited<ReturnType<typeof startSupplier>>;
let seal: Part;
let hubUnit: Part;
let today: string;
let port = 0;
let nth = 0;

const list = async (number: string, more: object = {}) => {
  const part = partSchema.parse({
    ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number, supplier: NAME, leadDays: 5, price },
    ...more,
  });
  await shop.supervisor.call.put('/api/stores/parts').send({ seenVersion: 0, part }).expect(200);
  return part;
};
const start = () =>
  startSupplier(
    port,
    [
      { number: '47 2210', price, core: null, days: 6 },
      { number: 'HU-3205', price: null, core, days: 14 },
    ],
    today,
    SECRET,
  );

beforeAll(async () => {
  const first = await startSupplier(0, [], '2026-01-01');
  port = first.port;
  await first.stop();
  shop = await openShop({
    SUPPLIER_URL: `http://127.0.0.1:${port}`,
    SUPPLIER_NAME: NAME,
    SUPPLIER_SECRET: SECRET,
  });
  today = shop.clock.today();
  seal = await list('47-2210');
  hubUnit = await list('HU 3205', { kind: 'hub-unit', core });
}, 60_000);
afterAll(() => shop.close());
beforeEach(async () => {
  await shop.db.sequelize.query("delete from feed where name = 'supplier'");
  supplier = await start();
});
afterEach(async () => {
  await supplier.stop();
  // What a test left open is no matter of the next.
  for (const { id, version, status } of (await shop.supervisor.call.get('/api/stores/orders').expect(200))
    .body as Order[])
    if (status === 'sent')
      await shop.supervisor.call
        .post(`/api/stores/orders/${id}/cancelled`)
        .send({ seenVersion: version, reason: 'The test is over' });
});

const call = () => shop.supervisor.call;
async function drafted(
  lines: { partId: string; quantity: number }[] = [{ partId: seal.id, quantity: 4 }],
  from = NAME,
) {
  const body = { id: randomUUID(), seenVersion: 0, supplier: from, lines };
  return (await call().put('/api/stores/orders').send(body).expect(200)).body as Order;
}
const send = ({ id, version }: Order) =>
  call().post(`/api/stores/orders/${id}/sent`).send({ seenVersion: version, expected: null, online: true });
const sent = async (order?: Order) => (await send(order ?? (await drafted())).expect(200)).body as Order;
const look = async ({ id }: Order) =>
  (await call().get(`/api/stores/orders/${id}`).expect(200)).body as Order;
const ask = async () => (await call().post('/api/supplier/ask').expect(200)).body as SupplierService;

describe('a supplier that takes orders online', () => {
  it('is sent one, says its number and the day, and what it dispatched; what came is counted by hand', async () => {
    const order = await sent();
    expect(order).toMatchObject({
      ...{ status: 'sent', online: true, reference: 'S-7001', expected: addDays(today, 6) },
      lines: [{ told: { dispatched: 0, price } }],
    });
    expect(supplier.orders()).toMatchObject([{ sent: { id: order.id, number: order.number } }]);
    supplier.breaks('partial');
    supplier.pass(6);
    expect(await ask()).toMatchObject({ name: NAME, trouble: null });
    expect(await look(order)).toMatchObject({
      expected: addDays(today, 13),
      lines: [{ told: { dispatched: 2 }, delivered: 0 }],
    });
    // Asked again, there is nothing new, and nothing is recorded.
    const entries = await shop.db.entry.count();
    await ask();
    expect(await shop.db.entry.count()).toBe(entries);
    const { body: part } = await call().get(`/api/stores/parts/${seal.id}`).expect(200);
    expect((part as StorePart).onHand).toBe(0);
  });

  it('says another price: what comes is paid at it; and which numbers it does not know', async () => {
    supplier.breaks('price');
    const strange = await list(`99-${(nth += 1)}`);
    const order = await sent(
      await drafted([
        { partId: seal.id, quantity: 2 },
        { partId: strange.id, quantity: 1 },
      ]),
    );
    expect(order.lines).toMatchObject([
      { price, told: { price: { currency: 'USD', minor: 4687 } } },
      { ended: 'the supplier knows no such number' },
    ]);
    const came = { lines: [{ partId: seal.id, quantity: 2, place: 'A3' }] };
    const { body: done } = await call()
      .post(`/api/stores/orders/${order.id}/delivered`)
      .send({ seenVersion: order.version, ...came })
      .expect(200);
    expect(done).toMatchObject({ status: 'done' });
    const { body: part } = await call().get(`/api/stores/parts/${seal.id}`).expect(200);
    expect((part as StorePart).movements[0]).toMatchObject({ what: 'received', price: { minor: 4687 } });
  });

  it('is late: the new day is the order’s', async () => {
    const order = await sent();
    supplier.breaks('delay');
    await ask();
    expect((await look(order)).expected).toBe(addDays(today, 13));
  });

  it('that does not answer gets the order when it does, once, however often it was sent', async () => {
    supplier.breaks('outage');
    const order = await sent();
    expect(order).toMatchObject({ status: 'sent', online: true, reference: '', expected: null });
    expect((await call().get('/api/supplier').expect(200)).body).toMatchObject({
      trouble: `Order ${order.number}: It answers with 503`,
    });
    supplier.breaks('lost-answer');
    expect(await ask()).toMatchObject({ trouble: `Order ${order.number}: Nobody answers there` });
    supplier.breaks('garbage');
    expect((await ask()).trouble).toMatch(/none that an order is told by/);
    supplier.breaks(null);
    // Two servers ask at once.
    await Promise.all([ask(), ask()]);
    expect(await look(order)).toMatchObject({ reference: 'S-7001' });
    expect(supplier.orders()).toHaveLength(1);
    expect((await ask()).trouble).toBeNull();
  });

  it('gets a core back, once, and what it credits stands beside it', async () => {
    const unitId = await addUnit(shop, `Core ${(nth += 1)}`);
    const jobId = await openJobOn(shop, unitId, ['2L']);
    const move = (way: 'movements' | 'uses', movement: object) =>
      call()
        .post(`/api/stores/parts/${hubUnit.id}/${way}`)
        .send({ recordId: randomUUID(), movement: { quantity: 1, place: 'D1', ...movement } })
        .expect(200);
    await move('movements', { what: 'received' });
    await move('uses', { what: 'used', jobId, position: '2L' });
    supplier.breaks('lost-answer');
    // What the browser says of a credit counts for nothing.
    await move('movements', { what: 'core-returned', online: false, reference: 'mine', returnOf: 1 });
    supplier.breaks(null);
    await Promise.all([ask(), ask()]);
    const { body } = await call().get(`/api/stores/parts/${hubUnit.id}`).expect(200);
    const { movements, cores } = body as StorePart;
    expect(cores).toBe(0);
    expect(movements.slice(0, 2)).toMatchObject([
      { what: 'core-credited', reference: 'C-301', price: core, byName: program.name },
      { what: 'core-returned', online: true, reference: null },
    ]);
    await call()
      .post(`/api/stores/parts/${hubUnit.id}/movements`)
      .send({ recordId: randomUUID(), movement: { what: 'core-credited', quantity: 1, place: 'D1' } })
      .expect(422);
    expect(await compareProjections(shop.db)).toMatchObject({ differs: null, aside: [] });
  });

  it('is for its own orders, and for those who keep the store', async () => {
    const other = await drafted(undefined, 'Marsh End');
    expect((await send(other).expect(422)).body.detail).toMatch(/Marsh End takes no orders online/);
    const order = await drafted();
    await shop.technician.call
      .post(`/api/stores/orders/${order.id}/sent`)
      .send({ seenVersion: order.version, expected: null, online: true })
      .expect(403);
    await shop.technician.call.post('/api/supplier/ask').expect(403);
    // Sent from a second tab that has not seen the last change: nothing goes out.
    await call()
      .post(`/api/stores/orders/${order.id}/sent`)
      .send({ seenVersion: order.version - 1, expected: null, online: true })
      .expect(409);
    expect(supplier.orders()).toEqual([]);
  });
});
