import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { partSchema } from '@lanternwright/core/part';
import type { Order, Proposed, Shortage, StorePart } from '@lanternwright/contract/stores';
import { compareProjections } from '../record/rebuild.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { addUnit, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
let today: string;
const part = (number: string, more: object = {}) =>
  partSchema.parse({
    ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number, supplier: 'Quayside', leadDays: 5 },
    ...{ price: { currency: 'USD', minor: 4185 }, ...more },
  });
type Part = ReturnType<typeof part>;
const call = () => shop.supervisor.call;
const list = async (wanted: Part) => {
  await call().put('/api/stores/parts').send({ seenVersion: 0, part: wanted }).expect(200);
  return wanted;
};
const look = async ({ id }: Part) =>
  (await call().get(`/api/stores/parts/${id}`).expect(200)).body as StorePart;
const draft = async (
  lines: { partId: string; quantity: number }[],
  id: string = randomUUID(),
  seenVersion = 0,
) =>
  (await call().put('/api/stores/orders').send({ id, seenVersion, supplier: 'Quayside', lines }).expect(200))
    .body as Order;
const tell = ({ id, version }: Order, what: string, body: object) =>
  call()
    .post(`/api/stores/orders/${id}/${what}`)
    .send({ seenVersion: version, ...body });
const told = async (order: Order, what: string, body: object) =>
  (await tell(order, what, body).expect(200)).body as Order;

beforeAll(async () => {
  shop = await openShop();
  today = shop.clock.today();
}, 60_000);
afterAll(() => shop.close());

describe('an order', () => {
  it('comes in two parts, each on the shelf with it; what came twice is refused and changes nothing', async () => {
    const [seal, washer] = [await list(part('90-1')), await list(part('90-2', { kind: 'washer' }))];
    let order = await draft([
      { partId: seal.id, quantity: 4 },
      { partId: washer.id, quantity: 2 },
    ]);
    expect(order).toMatchObject({ status: 'draft', lines: [{ number: '90-1', price: { minor: 4185 } }, {}] });
    order = await told(order, 'sent', { expected: addDays(today, 6), reference: 'Q-88' });
    const first = order;
    const came = { lines: [{ partId: seal.id, quantity: 3, place: 'A3' }] };
    expect(
      (await tell(order, 'delivered', { lines: [{ partId: seal.id, quantity: 3 }] }).expect(422)).body.issues,
    ).toMatchObject([{ path: 'lines.0.place' }]);
    order = await told(order, 'delivered', came);
    expect(order).toMatchObject({ status: 'sent', lines: [{ delivered: 3 }, { delivered: 0 }] });
    expect(await look(seal)).toMatchObject({
      onHand: 3,
      movements: [{ what: 'received', quantity: 3, orderId: order.id, price: { minor: 4185 } }],
    });
    // From a second tab that has not seen it, and more than is still to come.
    await tell(first, 'delivered', came).expect(409);
    await tell(order, 'delivered', came).expect(422);
    expect((await look(seal)).onHand).toBe(3);
    order = await told(order, 'delivered', {
      lines: [
        { partId: washer.id, quantity: 2, place: 'B1' },
        { partId: seal.id, quantity: 1 },
      ],
    });
    // Where nobody says otherwise it goes to the rest of it.
    expect((await look(seal)).places).toEqual([{ place: 'A3', quantity: 4 }]);
    expect(order.status).toBe('done');
    expect((await look(washer)).places).toEqual([{ place: 'B1', quantity: 2 }]);
  });

  it('is numbered, also with several written at once; a technician writes none', async () => {
    const seal = await list(part('90-3'));
    const orders = await Promise.all(
      Array.from({ length: 6 }, () => draft([{ partId: seal.id, quantity: 1 }])),
    );
    expect(new Set(orders.map((o) => o.number)).size).toBe(6);
    await shop.technician.call.get('/api/stores/orders').expect(403);
    const body = {
      id: randomUUID(),
      seenVersion: 0,
      supplier: 'Quayside',
      lines: [{ partId: seal.id, quantity: 1 }],
    };
    await shop.technician.call.put('/api/stores/orders').send(body).expect(403);
    await call()
      .put('/api/stores/orders')
      .send({ ...body, lines: [{ partId: randomUUID(), quantity: 1 }] })
      .expect(422);
  });

  it('a part is low: it is proposed up to twice its level, and not again once it is ordered', async () => {
    const low = await list(part('90-4', { reorderLevel: 3 }));
    const proposed = async () =>
      ((await call().get('/api/stores/orders/proposed').expect(200)).body as Proposed[])
        .flatMap((p) => p.lines)
        .find((l) => l.partId === low.id);
    expect(await proposed()).toMatchObject({ quantity: 6, missing: 0, low: { free: 0, coming: 0 } });
    await draft([{ partId: low.id, quantity: 6 }]);
    expect(await proposed()).toBeUndefined();
  });

  it('that is late does not count as coming: what it holds is short again', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop, 'Tern 670'), ['2L']);
    const { sheetId } = (await fetchJob(shop.technician.call, jobId)).wheelEnds[0]!.sheet;
    const seal = await list(part('90-5', { fits: [{ sheetId, line: 'part:hub-seal' }] }));
    const short = async () =>
      ((await call().get('/api/stores/shortages').expect(200)).body as Shortage[]).find(
        (s) => s.part.id === seal.id,
      );
    expect(await short()).toMatchObject({ missing: 1, onOrder: [] });
    let order = await draft([{ partId: seal.id, quantity: 1 }]);
    order = await told(order, 'sent', { expected: today });
    expect(await short()).toBeUndefined();
    order = await told(order, 'promised', { expected: addDays(today, -1) });
    expect(order.late).toBe(true);
    expect(await short()).toMatchObject({
      missing: 1,
      first: 'Tern 670',
      onOrder: [{ quantity: 1, late: true }],
    });
    await told(order, 'ended', { partId: seal.id, reason: 'Not made any more' });
    expect(await short()).toMatchObject({ onOrder: [] });
  });

  it('goes out as CSV and on paper; a part has labels whose code is its number', async () => {
    const seal = await list(part('=90-6', { title: 'Hub seal; wide' }));
    const order = await draft([{ partId: seal.id, quantity: 2 }]);
    const csv = await call().get(`/api/stores/orders/${order.id}/order.csv`).expect(200);
    expect(csv.text).toBe(
      `order,number,what,quantity,price,currency\r\n${order.number},'=90-6,Hub seal; wide,2,41.85,USD\r\n`,
    );
    for (const path of [`orders/${order.id}/order.pdf`, `parts/${seal.id}/labels.pdf?copies=4`]) {
      const pdf = await call().get(`/api/stores/${path}`).buffer(true).expect(200);
      expect(pdf.headers['content-type']).toBe('application/pdf');
      expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    }
    await call().get(`/api/stores/parts/${seal.id}/labels.pdf?copies=900`).expect(422);
  });

  it('stands in the record: a rebuild finds the same', async () => {
    expect(await compareProjections(shop.db)).toMatchObject({ differs: null, aside: [] });
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
  });
});

describe('a delivery', () => {
  it('says what came damaged in the same act: it stays on order, and only sound ones lie on the shelf', async () => {
    const seal = await list(part('91-1'));
    let order = await draft([{ partId: seal.id, quantity: 4 }]);
    order = await told(order, 'sent', { expected: today, reference: '' });
    const came = { partId: seal.id, quantity: 2, damaged: 1, place: 'A3', batch: 'L 77' };
    order = await told(order, 'delivered', { note: 'DN 118', lines: [came] });
    expect(order).toMatchObject({ status: 'sent', lines: [{ quantity: 4, delivered: 2, damaged: 1 }] });
    const { onHand, movements } = await look(seal);
    expect(onHand).toBe(2);
    expect(movements[0]).toMatchObject({ what: 'received', quantity: 2, batch: 'L 77', reference: 'DN 118' });
    // Two are still to come, and no more.
    await tell(order, 'delivered', { lines: [{ partId: seal.id, quantity: 2, damaged: 1 }] }).expect(422);
    await tell(order, 'delivered', { lines: [{ partId: seal.id, quantity: 0 }] }).expect(422);
    order = await told(order, 'delivered', { lines: [{ partId: seal.id, quantity: 0, damaged: 2 }] });
    expect(order).toMatchObject({ status: 'sent', lines: [{ delivered: 2, damaged: 3 }] });
    expect((await look(seal)).onHand).toBe(2);
    order = await told(order, 'delivered', { lines: [{ partId: seal.id, quantity: 2 }] });
    expect(order.status).toBe('done');
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('of a part that lies nowhere may be damaged alone, and goes nowhere', async () => {
    const seal = await list(part('91-2'));
    let order = await draft([{ partId: seal.id, quantity: 1 }]);
    order = await told(order, 'sent', { expected: today, reference: '' });
    order = await told(order, 'delivered', { lines: [{ partId: seal.id, quantity: 0, damaged: 1 }] });
    expect(order.lines).toMatchObject([{ delivered: 0, damaged: 1 }]);
    expect((await look(seal)).movements).toEqual([]);
  });
});
