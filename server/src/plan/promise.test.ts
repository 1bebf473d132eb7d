import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { dayBegins } from '@lanternwright/core/work-plan';
import type { Booked, Proposal } from '@lanternwright/contract/plan';
import { prepareQueue } from '../queue/queue.ts';
import { compareProjections } from '../record/rebuild.ts';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';

const HOUR_MS = 3_600_000;
const QUARTER_MS = 900_000;
let shop: Shop;
let unit = '';
const supervisor = () => shop.supervisor.call;
const works = ['2L', '2R'].map((position) => ({ position, work: 'seal' }));
/** The seals of both sides take four hours here, where nothing was measured. */
const TAKES_MS = 4 * HOUR_MS;
const soon = () => Math.ceil(Date.now() / QUARTER_MS) * QUARTER_MS;
const iso = (ms: number) => new Date(ms).toISOString();

beforeAll(async () => {
  shop = await openShop();
  await prepareQueue({ ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl }, pino({ level: 'silent' }));
  const bays = ['Bay 1', 'Bay 2'].map((name, i) => ({ id: `bay-${i + 1}`, name }));
  const day = [{ from: '00:00', until: '24:00' }];
  const week = [day, day, day, day, day, day, day];
  await supervisor()
    .put('/api/shop/settings')
    .send({ ...shop.settings.current(), bays, week, holidays: [] })
    .expect(200);
});
afterAll(() => shop.close());
beforeEach(async () => {
  unit = await addUnit(shop);
  for (const { id, version } of await listed())
    await supervisor().post(`/api/plan/bookings/${id}/cancel`).send({ seenVersion: version, reason: 'Test' });
});

async function listed(): Promise<Booked[]> {
  const [from, until] = [iso(Date.now() - HOUR_MS), iso(Date.now() + 40 * 24 * HOUR_MS)];
  const { body } = await supervisor().get(`/api/plan/bookings?from=${from}&until=${until}`).expect(200);
  return body as Booked[];
}

/** Asks, and does the queue’s work here. */
async function promised(by: string | null, wanted = works): Promise<Proposal> {
  const asked = { kind: 'promise', promise: { unitId: unit, works: wanted, by } };
  const { body } = await supervisor().post('/api/plan/proposals').send(asked).expect(200);
  const { id } = body as { id: string };
  await shop.proposals.run(id);
  return (await supervisor().get(`/api/plan/proposals/${id}`).expect(200)).body as Proposal;
}

/** Books the one technician for hours on end, from now on. */
async function fill(count: number, hours: number): Promise<string[]> {
  const ids = [];
  const people = [shop.technician.viewer.person.id];
  for (let i = 0, from = soon(); i < count; i++, from += hours * HOUR_MS) {
    const booking = {
      unitId: await addUnit(shop),
      jobId: null,
      bayId: `bay-${(i % 2) + 1}`,
      people,
      note: '',
    };
    const { body } = await supervisor()
      .post('/api/plan/bookings')
      .send({ ...booking, from: iso(from), until: iso(from + hours * HOUR_MS) })
      .expect(200);
    ids.push((body as { id: string }).id);
  }
  return ids;
}

const accept = (id: string, units: string[]) =>
  supervisor().post(`/api/plan/proposals/${id}/accept`).send({ units });
const keys = ({ result }: Proposal) => result!.rows.map((r) => r.bookingId ?? r.unit.id);
const dayOf = (ms: number) => shop.clock.dayOf(iso(ms));

describe('a time that can be promised', () => {
  it('is the earliest with a bay and a technician, and is booked with its works', async () => {
    const found = await promised(null);
    expect(found.result).toMatchObject({ promise: { by: null, holds: 'free', parts: [] }, unplaced: [] });
    const [own, ...others] = found.result!.rows;
    expect(others).toEqual([]);
    expect(Date.parse(own!.to.until) - Date.parse(own!.to.from)).toBe(TAKES_MS);
    expect(Date.parse(own!.to.from) - Date.now()).toBeLessThan(2 * QUARTER_MS);
    await accept(found.id, [unit]).expect(200);
    expect(await listed()).toMatchObject([{ unitId: unit, works, people: own!.to.people }]);
    // Booked once: the same unit is not promised beside its own booking.
    const again = { kind: 'promise', promise: { unitId: unit, works, by: null } };
    const { body } = await supervisor().post('/api/plan/proposals').send(again).expect(422);
    expect(body).toMatchObject({ detail: expect.stringMatching(/booked already/) as string });
  });

  it('waits for what is booked where the day leaves time for that', async () => {
    await fill(2, 6);
    const found = await promised(addDays(dayOf(Date.now()), 3));
    expect(found.result!.promise!.holds).toBe('free');
    expect(Date.parse(found.result!.rows[0]!.to.from)).toBeGreaterThanOrEqual(
      soon() + 12 * HOUR_MS - QUARTER_MS,
    );
  });

  it('where the day is nearer, says which bookings would move, and moves all of them or none', async () => {
    await fill(9, 8);
    const by = addDays(dayOf(Date.now()), 1);
    const found = await promised(by);
    expect(found.result!.promise).toMatchObject({ by, holds: 'moving' });
    const [own, ...moved] = found.result!.rows;
    expect(own!.unit.id).toBe(unit);
    expect(Date.parse(own!.to.until)).toBeLessThanOrEqual(dayBegins(by, shop.clock.zone(), 1));
    expect(moved.length).toBeGreaterThan(0);
    expect(moved.every((r) => r.was !== null)).toBe(true);
    const alone = await accept(found.id, [unit]).expect(422);
    expect(alone.body).toMatchObject({ detail: expect.stringMatching(/as a whole/) as string });
    expect((await listed()).some((b) => b.unitId === unit)).toBe(false);
    await accept(found.id, keys(found)).expect(200);
    expect((await listed()).filter((b) => b.unitId === unit)).toHaveLength(1);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('moves nothing that is locked: then the day cannot be promised, and the earliest is told', async () => {
    for (const id of await fill(9, 8))
      await supervisor()
        .post(`/api/plan/bookings/${id}/lock`)
        .send({ seenVersion: 1, locked: true })
        .expect(200);
    const found = await promised(addDays(dayOf(Date.now()), 1));
    expect(found.result).toMatchObject({ promise: { holds: 'late' } });
    expect(found.result!.rows).toHaveLength(1);
    expect(found.result!.rows[0]!.lateDays).toBeGreaterThan(0);
    expect(Date.parse(found.result!.rows[0]!.to.from)).toBeGreaterThanOrEqual(soon() + 71 * HOUR_MS);
  });

  it('waits for a part that is not here, and says when it can be had', async () => {
    const part = {
      ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number: '47-2210', crossings: [] },
      ...{ dims: {}, lips: null, fits: [{ sheetId: 'a-drive-tang', line: 'part:hub-seal' }] },
      ...{ price: null, core: null, supplier: 'Quayside', leadDays: 5, reorderLevel: 0, supersededBy: null },
    };
    await supervisor().put('/api/stores/parts').send({ seenVersion: 0, part }).expect(200);
    const by = addDays(shop.clock.today(), 5);
    const late = await promised(addDays(shop.clock.today(), 2));
    expect(late.result!.promise).toEqual({
      ...{ by: addDays(shop.clock.today(), 2), holds: 'late' },
      parts: [{ title: 'Hub seal', quantity: 2, by, how: 'to-order' }],
    });
    const [own] = late.result!.rows;
    expect(Date.parse(own!.to.from)).toBe(dayBegins(by, shop.clock.zone(), 0));
    expect(own!.because).toMatch(/part/);
    // Enough on the shelf: nothing waits.
    await shop.db.sequelize.query('update part set on_hand = 2 where id = $1', { bind: [part.id] });
    expect((await promised(null)).result!.promise!.parts).toEqual([]);
  });

  it('refuses what is no work of the unit', async () => {
    const ask = (promise: object) =>
      supervisor().post('/api/plan/proposals').send({ kind: 'promise', promise }).expect(422);
    await ask({ unitId: unit, works: [{ position: '9L', work: 'seal' }], by: null });
    await ask({ unitId: unit, works: [], by: null });
    await supervisor().post('/api/plan/proposals').send({ kind: 'promise' }).expect(422);
    await supervisor()
      .post('/api/plan/proposals')
      .send({ kind: 'mend', promise: { unitId: unit, works, by: null } })
      .expect(422);
  });
});
