import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { partSchema } from '@lanternwright/core/part';
import { quantity } from '@lanternwright/core/quantity';
import { intervalFigureSchema } from '@lanternwright/core/procedure';
import type { JobParts, Shortage } from '@lanternwright/contract/stores';
import { lackedLines, linesToAnswer, wheelEndAt } from '@lanternwright/core/traveller';
import { keptWhereSlow } from './shortages.ts';
import { addUnit, axlesOf, fetchJob, mirrored, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
let today: string;
const part = (number: string, more: object) =>
  partSchema.parse({ id: randomUUID(), kind: 'seal', title: 'Hub seal', number, leadDays: 5, ...more });

const wide = (mm: number) => ({ width: quantity(mm, 'mm') });

async function list(wanted: ReturnType<typeof part>, here: number) {
  const call = shop.supervisor.call;
  await call.put('/api/stores/parts').send({ seenVersion: 0, part: wanted }).expect(200);
  if (here === 0) return;
  const movement = { what: 'received', quantity: here, place: 'A3' };
  await call
    .post(`/api/stores/parts/${wanted.id}/movements`)
    .send({ recordId: randomUUID(), movement })
    .expect(200);
}
const shortages = async () =>
  (await shop.technician.call.get('/api/stores/shortages').expect(200)).body as Shortage[];
const short = async (number: string) => (await shortages()).find((s) => s.part.number === number);
const partsOf = async (jobId: string) =>
  (await shop.technician.call.get(`/api/stores/jobs/${jobId}`).expect(200)).body as JobParts[];

let sheetId: string;
let unitId: string;
let jobId: string;
beforeAll(async () => {
  shop = await openShop();
  const bays = [{ id: 'bay-1', name: 'Bay 1' }];
  await shop.supervisor.call
    .put('/api/shop/settings')
    .send({ ...shop.settings.current(), bays })
    .expect(200);
  today = shop.clock.today();
  unitId = await addUnit(shop, 'Tern 660');
  jobId = await openJobOn(shop, unitId, ['2L', '2R']);
  sheetId = (await fetchJob(shop.technician.call, jobId)).wheelEnds[0]!.sheet.sheetId;
}, 60_000);
afterAll(() => shop.close());

describe('a shortage', () => {
  it('is seen nine days ahead, with what it is for and until when to order: worked by hand', async () => {
    const from = `${addDays(today, 9)}T08:00:00.000Z`;
    const booking = {
      unitId,
      jobId,
      bayId: 'bay-1',
      people: [],
      from,
      until: from.replace('T08', 'T12'),
      note: '',
    };
    await shop.technician.call.post('/api/plan/bookings').send(booking).expect(200);
    const fits = [{ sheetId, line: 'part:hub-seal' }];
    await list(part('80-1', { fits, dims: wide(22) }), 1);
    // Two wheel ends want one each on day nine, one lies here: one is missing; five days to come are day four.
    expect(await short('80-1')).toMatchObject({
      ...{
        shortOn: addDays(today, 9),
        missing: 1,
        orderBy: addDays(today, 4),
        late: false,
        first: 'Tern 660',
      },
      demands: [{ date: addDays(today, 9), quantity: 2, what: 'Tern 660' }],
    });
    // Another of the same size would do: the one of which more are free is taken.
    await list(part('80-2', { fits, dims: wide(22), title: 'Another' }), 0);
    expect(await short('80-2')).toBeUndefined();
  });

  it('is gone once somebody has the parts at hand, and back when fewer lie here', async () => {
    const { t, flush } = mirrored(shop, jobId, ['2L', '2R']);
    t.workTo('2L', 'chocks');
    t.workTo('2R', 'chocks');
    await flush();
    expect(await short('80-1')).toBeUndefined();
  });

  it('counts what is kept for a job, once, and not what was used', async () => {
    const other = await openJobOn(shop, await addUnit(shop, 'Tern 661'), ['2L']);
    const fits = [{ sheetId, line: 'part:flange-gasket' }];
    const gasket = part('81-1', { fits, kind: 'gasket', leadDays: null });
    await list(gasket, 1);
    const wanted = async () => (await short('81-1'))?.demands[0]?.quantity ?? 0;
    expect(await wanted()).toBe(0);
    const reservation = {
      id: randomUUID(),
      jobId: other,
      position: '2L',
      line: 'part:flange-gasket',
      quantity: 2,
    };
    for (let i = 0; i < 2; i++)
      await shop.technician.call
        .post(`/api/stores/parts/${gasket.id}/reservations`)
        .send({ reservation })
        .expect(200);
    expect(await short('81-1')).toMatchObject({ missing: 1, shortOn: today, orderBy: null, late: false });
    expect(await wanted()).toBe(2);
    const line = (await partsOf(other)).find((l) => l.line === 'part:flange-gasket');
    expect(line).toMatchObject({ kept: [{ id: reservation.id, quantity: 2 }], used: [] });
    const use = {
      what: 'used',
      quantity: 1,
      place: 'A3',
      jobId: other,
      position: '2L',
      line: 'part:flange-gasket',
    };
    await shop.technician.call
      .post(`/api/stores/parts/${gasket.id}/uses`)
      .send({ recordId: randomUUID(), movement: use })
      .expect(200);
    expect((await partsOf(other)).find((l) => l.line === 'part:flange-gasket')).toMatchObject({
      kept: [{ quantity: 1 }],
      used: [{ quantity: 1, number: '81-1', price: null }],
    });
    await shop.technician.call
      .delete(`/api/stores/parts/${gasket.id}/reservations/${reservation.id}`)
      .expect(200);
    expect((await partsOf(other)).find((l) => l.line === 'part:flange-gasket')!.kept).toEqual([]);
  });

  it('counts what is due and in no job, on its day; what is overdue counts today', async () => {
    const seals = intervalFigureSchema.parse({ work: 'seal', months: 12, mark: 'shop', source: 'ours' });
    const axles = axlesOf('tractor-3').map((a) => ({ ...a, sheet: { ...a.sheet, intervals: [seals] } }));
    const unit = { owner: 'Tern & Hollow Haulage', name: 'Tern 662', kind: 'tractor', plate: '', axles };
    const meter = { distance: { value: 81_000, unit: 'km' } };
    const added = await shop.supervisor.call
      .post('/api/fleet/units')
      .send({ ...unit, meter })
      .expect(200);
    const due = (added.body as { id: string }).id;
    await list(part('82-1', { fits: [{ sheetId, line: 'part:hub-seal' }], title: 'Due', dims: wide(30) }), 0);
    const before = (await short('82-1'))?.demands[0]?.quantity ?? 0;
    const told = { position: '2L', date: '2012-03-01', works: ['seal'] };
    await shop.supervisor.call.post(`/api/fleet/units/${due}/services`).send(told).expect(200);
    const after = (await short('82-1'))!;
    expect(after.demands[0]!.date).toBe(today);
    expect(after.demands[0]!.quantity).toBe(before + 1);
    expect(after.demands[0]!.what).toContain('Tern 662');
  });
});

describe('a job that waits for a part', () => {
  it('is held up by a late order, says so line by line, and waits no more once one is taken for it', async () => {
    const call = shop.supervisor.call;
    const waiting = await openJobOn(shop, await addUnit(shop, 'Tern 663'), ['2L']);
    const line = 'part:flange-gasket';
    const gasket = part('83-1', { kind: 'gasket', fits: [{ sheetId, line }], supplier: 'Quayside' });
    await list(gasket, 0);
    const reservation = { id: randomUUID(), jobId: waiting, position: '2L', line, quantity: 1 };
    await call.post(`/api/stores/parts/${gasket.id}/reservations`).send({ reservation }).expect(200);
    const standOf = async () => (await partsOf(waiting)).find((l) => l.line === line)!.stand;
    expect(await standOf()).toEqual({ state: 'none' });
    const lines = [{ partId: gasket.id, quantity: 2 }];
    const draft = { id: randomUUID(), seenVersion: 0, supplier: 'Quayside', lines };
    await call.put('/api/stores/orders').send(draft).expect(200);
    const order = `/api/stores/orders/${draft.id}`;
    await call
      .post(`${order}/sent`)
      .send({ seenVersion: 1, expected: addDays(today, 2) })
      .expect(200);
    expect(await standOf()).toMatchObject({ state: 'ordered', coming: { expected: addDays(today, 2) } });
    await call
      .post(`${order}/promised`)
      .send({ seenVersion: 2, expected: addDays(today, -1) })
      .expect(200);
    expect(await standOf()).toMatchObject({ state: 'late', number: '83-1', coming: { orderId: draft.id } });
    expect((await short('83-1'))!.holdsUp).toEqual([{ jobId: waiting, unit: 'Tern 663', date: today }]);
    await call
      .post(`${order}/delivered`)
      .send({ seenVersion: 3, lines: [{ partId: gasket.id, quantity: 1, place: 'C3' }] })
      .expect(200);
    expect(await standOf()).toEqual({ state: 'here', parts: [{ number: '83-1', place: 'C3' }] });
    expect(await short('83-1')).toBeUndefined();
  });

  it('keeps with one request what is here for it, once, however often it is asked', async () => {
    const keeps = await openJobOn(shop, await addUnit(shop, 'Tern 665'), ['2L', '2R']);
    const line = 'part:flange-gasket';
    await list(part('85-1', { kind: 'gasket', fits: [{ sheetId, line }], dims: wide(2) }), 1);
    const ask = () => shop.technician.call.post(`/api/stores/jobs/${keeps}/reservations`).expect(200);
    await Promise.all([ask(), ask()]);
    const kept = (await partsOf(keeps))
      .filter((l) => l.line === line)
      .map((l) => l.kept.map((k) => [k.number, k.quantity]));
    // There is one: it is kept for the first of them, and nothing for the second.
    expect(kept[0]).toEqual([['85-1', 1]]);
    expect(kept[1]).toEqual([]);
  });

  it('says with the part that is taken for a line that it has come, once', async () => {
    const waiting = await openJobOn(shop, await addUnit(shop, 'Tern 664'), ['2L']);
    const { t, flush } = mirrored(shop, waiting, ['2L']);
    const line = 'part:hub-seal';
    t.workTo('2L', 'readiness');
    const refused = t.recordStep('2L', {
      kind: 'ready',
      lines: linesToAnswer(t.at('2L')).map(({ what }) =>
        what === line ? { what, state: 'ordered', by: addDays(today, 3) } : { what, state: 'have' },
      ),
      note: 'The hub can come off meanwhile',
    });
    expect(refused).toBeNull();
    await flush();
    const lacked = async () => {
      const job = await fetchJob(shop.technician.call, waiting);
      return lackedLines(wheelEndAt(job, '2L')!).map((l) => l.what);
    };
    expect(await lacked()).toEqual([line]);
    const seal = part('84-1', {});
    await list(seal, 2);
    const body = {
      recordId: randomUUID(),
      movement: { what: 'used', quantity: 1, place: 'A3', jobId: waiting, position: '2L', line },
    };
    const use = () => shop.technician.call.post(`/api/stores/parts/${seal.id}/uses`).send(body).expect(200);
    await use();
    expect(await lacked()).toEqual([]);
    const { version } = await fetchJob(shop.technician.call, waiting);
    await use();
    expect((await fetchJob(shop.technician.call, waiting)).version).toBe(version);
  });
});

describe('an answer that many wait for', () => {
  /** Work that takes as long as it is told to. */
  const timed = (ms: number) => {
    let [at, done] = [0, 0];
    const ask = keptWhereSlow(
      () => {
        at += ms;
        return Promise.resolve((done += 1));
      },
      () => at,
    );
    return ask;
  };

  it('is worked out once for all who ask at once, and anew for whoever comes after', async () => {
    const ask = timed(20);
    expect(await Promise.all([ask(), ask(), ask()])).toEqual([1, 1, 1]);
    expect(await ask()).toBe(2);
  });

  it('is kept for a while where it took long, and never where it failed', async () => {
    const slow = timed(900);
    expect([await slow(), await slow()]).toEqual([1, 1]);
    let tries = 0;
    const broken = keptWhereSlow(() => Promise.reject(new Error(`try ${(tries += 1)}`)));
    await expect(broken()).rejects.toThrow('try 1');
    await expect(broken()).rejects.toThrow('try 2');
  });
});
