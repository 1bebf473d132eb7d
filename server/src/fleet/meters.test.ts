import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import type { ShopFollowUps } from '@lanternwright/contract/jobs';
import { quantity } from '@lanternwright/core/quantity';
import { compareProjections } from '../record/rebuild.ts';
import { axlesOf, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
let unit = '';
const km = (value: number) => quantity(value, 'km');
const post = (path: string, body: object, by: 'supervisor' | 'technician' = 'technician') =>
  shop[by].call.post(`/api/fleet/units/${unit}/meters${path}`).send(body);
const page = async () => (await shop.technician.call.get(`/api/fleet/units/${unit}/meters`).expect(200)).body;
const kmShown = async () =>
  (await shop.technician.call.get(`/api/fleet/units/${unit}`).expect(200)).body.meterKm as number;

/** A unit whose meters nobody has read yet. */
async function newUnit(name: string): Promise<string> {
  const body = { owner: 'Tern & Hollow Haulage', name, kind: 'tractor', axles: axlesOf('tractor-3') };
  return (await shop.technician.call.post('/api/fleet/units').send(body).expect(200)).body.id as string;
}

beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

describe('meters of a unit', () => {
  it('are read by hand, changed and put right; each is in the record and counted across the change', async () => {
    unit = await newUnit('Tern 31');
    await post('', { date: '2026-01-05', distance: km(600_000), hours: quantity(9_000, 'h') }).expect(200);
    await post('', { date: '2026-02-05', distance: quantity(378_000, 'mi') }).expect(200);
    const less = await post('', { date: '2026-02-20', distance: km(12) }).expect(422);
    expect(less.body.issues).toEqual([
      { path: 'distance', message: expect.stringMatching(/read 608,332 km on 2026-02-05 already/) as string },
    ]);
    await post('/swaps', {
      date: '2026-02-18',
      of: 'distance',
      why: 'swapped',
      last: 612_000,
      first: 0,
    }).expect(200);
    await post('', { date: '2026-02-20', distance: km(412) }).expect(200);
    const { version, total, rows, swaps } = await page();
    expect({ version, total, swaps: swaps.length }).toEqual({ version: 4, total: 3, swaps: 1 });
    expect(rows[0]).toMatchObject({ date: '2026-02-20', km: 412, totalKm: 612_412, source: 'by-hand' });
    expect(await kmShown()).toBe(412);

    await post('/corrections', { seenVersion: 3, nth: 2, right: null }, 'supervisor').expect(409);
    const right = { date: '2026-02-20', distance: km(420) };
    await post('/corrections', { seenVersion: 4, nth: 2, right }, 'supervisor').expect(200);
    expect(await kmShown()).toBe(420);
    await post('/corrections', { seenVersion: 5, nth: 2, right: null }, 'supervisor').expect(200);
    expect((await page()).total).toBe(2);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('two who read at once are both kept', async () => {
    unit = await newUnit('Tern 32');
    const answers = await Promise.all(
      [1, 2, 3, 4].map((n) => post('', { date: '2026-03-01', distance: km(1_000 + n) })),
    );
    const kept = answers.filter((a) => a.status === 200).length;
    // One that came after a higher one is told so; none is lost without a word.
    expect(answers.every((a) => a.status === 200 || a.status === 422)).toBe(true);
    expect((await page()).total).toBe(kept);
    expect((await page()).version).toBe(kept);
  });

  it('a day to come, neither meter and a strange hand are refused', async () => {
    unit = await newUnit('Tern 33');
    await post('', { date: '2099-01-01', distance: km(5) }).expect(422);
    await post('', { date: '2026-01-01' }).expect(422);
    await post('/corrections', { seenVersion: 0, nth: 0, right: null }).expect(403);
    await shop.supervisor.call
      .post('/api/fleet/units/018f0000-0000-7000-8000-000000000000/meters')
      .send({
        date: '2026-01-01',
        distance: km(5),
      })
      .expect(404);
  });

  it('a retorque is due by the distance run, whichever odometer counts it', async () => {
    unit = await newUnit('Tern 34');
    await post('', { date: '2026-01-01', distance: km(100_000) }).expect(200);
    const job = await openJobOn(shop, unit);
    const { opened } = await fetchJob(shop.technician.call, job);
    await shop.db.followUp.create({
      ...{ jobId: job, position: '1L', unitId: unit, kind: 'retorque', nth: 0, what: '', doneAt: null },
      axleId: (await shop.db.axle.findOne({ where: { unitId: unit, number: 1 } }))!.id,
      ...{ fromKm: 611_380, byKm: 611_460, byDate: '2099-01-01' },
    });
    const state = async () =>
      (await shop.technician.call.get(`/api/fleet/units/${unit}`).expect(200)).body.followUps[0]
        .state as string;
    const inList = async () =>
      (await shop.supervisor.call.get('/api/jobs/follow-ups').expect(200)).body.rows.find(
        (r: { jobId: string }) => r.jobId === job,
      ).state as string;
    expect(await state()).toBe('early');
    const today = opened.at.slice(0, 10);
    await post('/swaps', { date: today, of: 'distance', why: 'swapped', last: 611_300, first: 0 }).expect(
      200,
    );
    await post('', { date: today, distance: km(90), sure: true }).expect(200);
    expect([await state(), await inList()]).toEqual(['due', 'due']);
    await post('', { date: today, distance: km(200), sure: true }).expect(200);
    expect([await state(), await inList()]).toEqual(['overdue', 'overdue']);
  });

  it('a unit without an odometer is torqued again by its hour meter, also after that was changed', async () => {
    unit = await newUnit('Tern 35');
    const opening = {
      unitId: unit,
      title: 'Sprocket off',
      complaint: '',
      reportedBy: '',
      meter: { hours: quantity(4_820, 'h') },
      wheelEnds: [{ position: '1L', works: ['seal'] }],
    };
    const job = (await shop.technician.call.post('/api/jobs').send(opening).expect(200)).body.id as string;
    const { opened } = await fetchJob(shop.technician.call, job);
    await shop.db.followUp.create({
      ...{ jobId: job, position: '1L', unitId: unit, kind: 'retorque', nth: 0, what: '', doneAt: null },
      axleId: (await shop.db.axle.findOne({ where: { unitId: unit, number: 1 } }))!.id,
      ...{ fromKm: null, byKm: null, byHours: 4_830, byDate: '2099-01-01' },
    });
    const states = async () => {
      const onUnit = await shop.technician.call.get(`/api/fleet/units/${unit}`).expect(200);
      const list = await shop.supervisor.call.get('/api/jobs/follow-ups').expect(200);
      const listed = (list.body as ShopFollowUps).rows.find((r) => r.jobId === job)!;
      const { followUps } = onUnit.body as UnitDetail;
      return [followUps[0]!.byHours, followUps[0]!.state, listed.state, listed.meterHours];
    };
    const today = opened.at.slice(0, 10);
    expect(await states()).toEqual([4_830, 'early', 'early', 4_820]);
    await post('/swaps', { date: today, of: 'hours', why: 'swapped', last: 4_825, first: 0 }).expect(200);
    await post('', { date: today, hours: quantity(5, 'h'), sure: true }).expect(200);
    expect(await states()).toEqual([4_830, 'due', 'due', 4_830]);
    await post('', { date: today, hours: quantity(6, 'h'), sure: true }).expect(200);
    expect(await states()).toEqual([4_830, 'overdue', 'overdue', 4_831]);
  });
});
