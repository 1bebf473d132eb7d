import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { partSchema } from '@lanternwright/core/part';
import type { Order, StoreDay } from '@lanternwright/contract/stores';
import { addUnit, fetchJob, openJobOn, openShop, setBays, type Shop } from '../testing/shop.ts';

let shop: Shop;
let today: string;
beforeAll(async () => {
  shop = await openShop();
  today = shop.clock.today();
  await setBays(shop);
}, 60_000);
afterAll(() => shop.close());

const call = () => shop.supervisor.call;
const day = async () => (await call().get('/api/stores/day').expect(200)).body as StoreDay;
async function listed(number: string, received: number): Promise<string> {
  const part = partSchema.parse({
    id: randomUUID(),
    kind: 'seal',
    title: 'Hub seal',
    number,
    supplier: 'Quayside',
  });
  await call().put('/api/stores/parts').send({ seenVersion: 0, part }).expect(200);
  if (received > 0)
    await call()
      .post(`/api/stores/parts/${part.id}/movements`)
      .send({ recordId: randomUUID(), movement: { what: 'received', quantity: received, place: 'A3' } })
      .expect(200);
  return part.id;
}
const ordered = async (partId: string, expected: string) => {
  const lines = [{ partId, quantity: 2 }];
  const { body } = await call()
    .put('/api/stores/orders')
    .send({ id: randomUUID(), seenVersion: 0, supplier: 'Quayside', lines })
    .expect(200);
  const { id, version } = body as Order;
  await call()
    .post(`/api/stores/orders/${id}/sent`)
    .send({ seenVersion: version, expected, reference: '' })
    .expect(200);
};
/** A booking of an hour at noon of a day, which no zone of a test moves to another. */
const bookedOn = (unitId: string, jobId: string | null, date: string, bayId: string) =>
  call()
    .post('/api/plan/bookings')
    .send({
      ...{ bayId, unitId, jobId, people: [], tools: [], note: '' },
      ...{ from: `${date}T12:00:00.000Z`, until: `${date}T13:00:00.000Z` },
    })
    .expect(200);

it('a day says what to lay out for whom, what comes and who waits for it, and what to count', async () => {
  expect(await day()).toEqual({ picks: [], comes: [], counts: [], toCount: 0 });
  const [here, away] = [await listed('90-1', 3), await listed('90-2', 0)];
  const unitId = await addUnit(shop, 'Tern 1', 'tractor-2');
  const jobId = await openJobOn(shop, unitId, ['2L', '2R']);
  const { number } = await fetchJob(call(), jobId);
  for (const [partId, position] of [
    [here, '2L'],
    [here, '2R'],
    [away, '2L'],
  ] as const)
    await call()
      .post(`/api/stores/parts/${partId}/reservations`)
      .send({ reservation: { id: randomUUID(), jobId, position, line: 'part:hub-seal', quantity: 1 } })
      .expect(200);
  const other = await addUnit(shop, 'Tern 2', 'tractor-2');
  await bookedOn(unitId, jobId, today, 'bay-1');
  await bookedOn(other, null, today, 'bay-2');
  await bookedOn(other, null, addDays(today, 2), 'bay-1');
  await ordered(away, addDays(today, -3));
  await ordered(here, addDays(today, 1));

  const { picks, comes, counts } = await day();
  expect(picks.map((p) => [p.unit, p.jobNumber])).toEqual([
    ['Tern 1', number],
    ['Tern 2', null],
  ]);
  expect(picks[0]!.lines).toMatchObject([
    {
      number: '90-1',
      quantity: 2,
      positions: ['2L', '2R'],
      onHand: 3,
      places: [{ place: 'A3', quantity: 3 }],
    },
    { number: '90-2', quantity: 1, onHand: 0, places: [] },
  ]);
  // What is promised for tomorrow is no work of today.
  expect(comes).toMatchObject([
    { late: true, lines: [{ number: '90-2', quantity: 2 }], waiting: [{ jobId, unit: 'Tern 1' }] },
  ]);
  expect(counts).toEqual([]);
  await shop.technician.call.get('/api/stores/day').expect(403);
});

it('what was not counted for half a year is to count, the longest ago first', async () => {
  const [older, newer] = [await listed('80-1', 1), await listed('80-2', 1)];
  await listed('80-3', 0);
  const back = (id: string, days: number) =>
    shop.db.sequelize.query(
      `update stock_movement set at = at - interval '${days} days' where part_id = '${id}'`,
    );
  await back(older, 400);
  await back(newer, 190);
  expect((await day()).counts.map((c) => c.number)).toEqual(['80-1', '80-2']);
  await call()
    .post(`/api/stores/parts/${older}/movements`)
    .send({
      recordId: randomUUID(),
      movement: { what: 'counted', quantity: 1, place: 'A3', reason: 'Half-year' },
    })
    .expect(200);
  expect(await day()).toMatchObject({ toCount: 1, counts: [{ number: '80-2', countedOn: null }] });
});
