import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { billTotals, type Bill } from '@lanternwright/core/cost';
import { partSchema } from '@lanternwright/core/part';
import { linesOfWork } from '@lanternwright/core/traveller';
import type { OwnAhead, ShopRates } from '@lanternwright/contract/estimates';
import { addUnit, fetchJob, openJobOn, openShop, send, type Caller, type Shop } from '../testing/shop.ts';

const PASSWORD = 'correct horse battery';
const rates: ShopRates = {
  hour: { currency: 'USD', minor: 10_000 },
  suppliesPercent: 0,
  taxes: [],
  taxNumber: 'MSW 000',
  validDays: 30,
};
let shop: Shop;
let storekeeper: Caller;
/** Of Tern & Hollow Haulage, and of another owner. */
let contact: Caller;
let other: Caller;
let unitId: string;

async function contactOf(owner: string, login: string): Promise<Caller> {
  const owners = (await shop.supervisor.call.get('/api/fleet/owners').expect(200)).body as {
    id: string;
    name: string;
  }[];
  const { id } = owners.find((o) => o.name === owner)!;
  const of = { name: login, login, role: 'owner-contact', password: PASSWORD, owners: [id] } as const;
  return (await shop.signedIn({ ...of, owners: [id] })).call;
}
const ratesNow = async () =>
  (await shop.supervisor.call.get('/api/estimates/rates').expect(200)).body as ShopRates;
const putRates = (more: Partial<ShopRates>, seen: ShopRates) =>
  shop.supervisor.call.put('/api/estimates/rates').send({ ...rates, ...more, seen });
const setRates = async (more: Partial<ShopRates> = {}) => putRates(more, await ratesNow()).expect(200);
const draft = async (jobId: string): Promise<Bill> =>
  (await shop.supervisor.call.get(`/api/estimates/jobs/${jobId}`).expect(200)).body as Bill;
const ahead = async (call: Caller): Promise<OwnAhead> =>
  (await call.get('/api/estimates/ahead').expect(200)).body as OwnAhead;

async function addPart(sheetId: string, line: string, minor: number, more: object = {}): Promise<void> {
  const part = partSchema.parse({
    ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number: `9-${minor}` },
    ...{ fits: [{ sheetId, line }], price: { currency: 'USD', minor }, ...more },
  });
  await shop.supervisor.call.put('/api/stores/parts').send({ seenVersion: 0, part }).expect(200);
}

beforeAll(async () => {
  shop = await openShop();
  unitId = await addUnit(shop, 'Tern 900');
  await addUnit(shop, 'Hill 1', 'tractor-3', 'Overhill Growers');
  contact = await contactOf('Tern & Hollow Haulage', 'tern');
  other = await contactOf('Overhill Growers', 'hill');
  storekeeper = (
    await shop.signedIn({ name: 'Q. Farrow', login: 'farrow', role: 'storekeeper', password: PASSWORD })
  ).call;
}, 60_000);
afterAll(() => shop.close());

describe('what the shop charges', () => {
  it('is set by a supervisor, seen by whoever sees prices, and by nobody else', async () => {
    expect((await storekeeper.get('/api/estimates/rates').expect(200)).body).toMatchObject({ hour: null });
    await setRates();
    expect((await storekeeper.get('/api/estimates/rates').expect(200)).body).toEqual(rates);
    await storekeeper
      .put('/api/estimates/rates')
      .send({ ...rates, seen: rates })
      .expect(403);
    for (const call of [shop.technician.call, contact]) await call.get('/api/estimates/rates').expect(403);
    const tax = { name: '', percent: 120, on: [] };
    const refused = await putRates({ taxes: [tax], validDays: 0 }, rates).expect(422);
    const { issues } = refused.body as { issues: { path: string }[] };
    expect(issues.map((issue) => issue.path)).toEqual([
      'taxes.0.name',
      'taxes.0.percent',
      'taxes.0.on',
      'validDays',
    ]);
    expect((await storekeeper.get('/api/estimates/rates').expect(200)).body).toEqual(rates);
    // Of two who change them at once, the second is told.
    await putRates({ validDays: 14 }, rates).expect(200);
    await putRates({ validDays: 60 }, rates).expect(409);
    expect(await ratesNow()).toMatchObject({ validDays: 14 });
  });
});

describe('a first estimate of a job', () => {
  it('has its hours at the rate and its parts at the price of what fits, each tied to its work', async () => {
    await setRates();
    const jobId = await openJobOn(shop, unitId, ['2L'], ['seal']);
    const { sheetId } = (await fetchJob(shop.technician.call, jobId)).wheelEnds[0]!.sheet;
    await addPart(sheetId, 'part:hub-seal', 4_185);
    // Another that fits too and is dearer: one is charged.
    await addPart(sheetId, 'part:hub-seal', 9_999);
    const bill = await draft(jobId);
    const seal = { position: '2L', works: ['seal'] };
    expect(bill.lines.slice(0, 2)).toMatchObject([
      { group: 'labour', quantity: 0.5, unitMinor: 10_000 },
      { group: 'labour', quantity: 1.75, unitMinor: 10_000, at: seal },
    ]);
    expect(bill.lines.filter((l) => /seal/i.test(l.what) && l.group === 'parts')).toMatchObject([
      { quantity: 1, unitMinor: 4_185, at: seal },
    ]);
    // What the store has no part for is on it, without a price.
    expect(bill.lines.some((l) => l.group === 'parts' && l.unitMinor === 0)).toBe(true);
    await shop.technician.call.get(`/api/estimates/jobs/${jobId}`).expect(403);
    await shop.supervisor.call.get(`/api/estimates/jobs/${randomUUID()}`).expect(404);
  });

  it('has no price that is of another currency', async () => {
    await setRates({ hour: { currency: 'EUR', minor: 9_000 } });
    const jobId = await openJobOn(shop, await addUnit(shop, 'Tern 901'), ['2R'], ['seal']);
    const bill = await draft(jobId);
    expect(bill.currency).toBe('USD');
    for (const line of bill.lines.filter((l) => l.group === 'labour')) expect(line.unitMinor).toBe(0);
    await setRates();
  });
});

describe('what an owner finds first', () => {
  it('is what waits for their answer, until it is given; nobody else sees it', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop, 'Tern 902'), ['2L', '2R'], ['seal', 'bearings']);
    const bill = await draft(jobId);
    expect((await ahead(contact)).asks).toEqual([]);
    const { version } = await fetchJob(shop.supervisor.call, jobId);
    const sent = await send(shop.supervisor.call, jobId, version, {
      ...{ kind: 'bill-written', as: 'estimate', bill },
    }).expect(200);
    const [asked, ...more] = (await ahead(contact)).asks;
    expect(more).toEqual([]);
    const day = shop.clock.today();
    expect(asked).toMatchObject({
      jobId,
      unit: { name: 'Tern 902' },
      total: { currency: 'USD', minor: billTotals(bill).totalMinor },
      until: addDays(day, 30),
    });
    expect((await ahead(other)).asks).toEqual([]);
    expect((await ahead(other)).inShop).toEqual([]);
    for (const call of [shop.supervisor.call, shop.technician.call, storekeeper])
      await call.get('/api/estimates/ahead').expect(403);

    const { money } = await fetchJob(contact, jobId);
    await send(contact, jobId, (sent.body as { version?: number }).version ?? version + 1, {
      ...{ kind: 'owner-answered', answer: 'do-now', name: 'Tern', estimate: money.estimate!.eventId },
      message: 'Call before you go deeper',
    }).expect(200);
    expect((await ahead(contact)).asks).toEqual([]);
    expect((await ahead(contact)).inShop.map((j) => j.jobId)).toContain(jobId);
    const after = await fetchJob(contact, jobId);
    expect(after.money.answer).toMatchObject({ message: 'Call before you go deeper' });
  });

  it('is then what is due in half a year, in hours and money, with what has no price counted', async () => {
    const id = await addUnit(shop, 'Hill 2', 'tractor-3', 'Overhill Growers');
    const unit = (await shop.supervisor.call.get(`/api/fleet/units/${id}`).expect(200)).body as {
      version: number;
      axles: { number: number; sheet: { sheetId: string } }[];
    };
    const own = { mark: 'shop', source: 'Ours', distance: null, hours: null };
    const axles = unit.axles.map((a) => ({
      ...a,
      sheet: { ...a.sheet, intervals: [{ work: 'seal', months: 12, ...own }] },
    }));
    await shop.supervisor.call
      .put(`/api/fleet/units/${id}/axles`)
      .send({ seenVersion: unit.version, axles })
      .expect(200);
    const last = (position: string, date: string) =>
      shop.technician.call
        .post(`/api/fleet/units/${id}/services`)
        .send({ position, date, works: ['seal'] })
        .expect(200);
    const today = shop.clock.today();
    await last('2L', addDays(today, -300));
    // Due after half a year: not told yet.
    await last('2R', addDays(today, -30));
    const { due, dueUnits, until } = await ahead(other);
    expect(dueUnits).toBe(1);
    expect(due).toHaveLength(1);
    expect(due[0]!.unit.name).toBe('Hill 2');
    expect(due[0]!.due).toMatchObject([{ position: '2L', work: 'seal' }]);
    expect(due[0]!.dueOn <= until).toBe(true);
    expect(due[0]!.hours).toBe(2.25);
    const axle = (
      (await shop.supervisor.call.get(`/api/fleet/units/${id}`).expect(200)).body as {
        axles: Parameters<typeof linesOfWork>[0][];
      }
    ).axles.find((a) => a.number === 2)!;
    const lines = linesOfWork(axle, ['seal']).filter((l) => l.group === 'part');
    expect(lines.map((l) => l.what)).toContain('part:hub-seal');
    const same = axle.sheet.sheetId;
    const before = due[0]!;
    expect(before.total!.minor).toBe(22_500 + (before.unpriced === lines.length ? 0 : 4_185));
    for (const [i, line] of lines.entries()) await addPart(same, line.what, 100 + i, { title: line.what });
    const after = (await ahead(other)).due[0]!;
    expect(after.unpriced).toBe(0);
    expect(after.total!.minor).toBe(22_500 + lines.reduce((sum, _, i) => sum + 100 + i, 0));

    await setRates({ hour: null });
    expect((await ahead(other)).due[0]).toMatchObject({ hours: 2.25, total: null });
  });
});
