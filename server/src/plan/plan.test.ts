import { randomUUID } from 'node:crypto';
import { quantity } from '@lanternwright/core/quantity';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Floor } from '@lanternwright/contract/plan';
import { compareProjections } from '../record/rebuild.ts';
import { verifyRecord } from '../record/verify.ts';
import { addUnit, openJobOn, openShop, setBays, type Shop } from '../testing/shop.ts';

let shop: Shop;
let units: string[];
const at = (hour: number, day = 1) => `2027-03-0${day}T${String(hour).padStart(2, '0')}:00:00.000Z`;
const bays = ['Bay 1', 'Bay 2', 'Yard'].map((name, i) => ({ id: `bay-${i + 1}`, name }));
const booking = (more: object = {}) => ({
  ...{ unitId: units[0]!, jobId: null, bayId: 'bay-1', people: [], from: at(8), until: at(12), note: '' },
  ...more,
});
const book = (more: object = {}) => shop.technician.call.post('/api/plan/bookings').send(booking(more));

const say = (id: string, seenVersion: number, what: string) =>
  shop.technician.call.post(`/api/plan/bookings/${id}/where`).send({ seenVersion, what });
const theFloor = async () => (await shop.supervisor.call.get('/api/plan/floor').expect(200)).body as Floor;

beforeAll(async () => {
  shop = await openShop();
  units = [];
  for (let i = 0; i < 4; i++) units.push(await addUnit(shop, `Tern ${40 + i}`));
  await setBays(shop, bays);
}, 60_000);
afterAll(() => shop.close());

describe('bookings', () => {
  it('are made, moved, ended and cancelled; each stands in the record', async () => {
    const { id } = (await book().expect(200)).body;
    const list = async () =>
      (await shop.technician.call.get(`/api/plan/bookings?from=${at(0)}&until=${at(0, 3)}`).expect(200)).body;
    expect(await list()).toMatchObject([{ id, version: 1, bayId: 'bay-1', from: at(8), until: at(12) }]);
    const to = { bayId: 'bay-2', people: [shop.technician.viewer.person.id], from: at(9), until: at(10) };
    const move = (seenVersion: number) =>
      shop.technician.call.put(`/api/plan/bookings/${id}`).send({ ...to, seenVersion });
    await move(1).expect(200);
    await move(1).expect(409);
    expect(await list()).toMatchObject([{ version: 2, names: [shop.technician.viewer.person.name] }]);
    const early = await say(id, 2, 'miss').expect(422);
    expect(early.body.detail).toMatch(/has not come yet/);
    await shop.technician.call
      .post(`/api/plan/bookings/${id}/cancel`)
      .send({ seenVersion: 2, reason: 'The owner keeps it' })
      .expect(200);
    expect(await list()).toEqual([]);
    // What it held is free again.
    await book({ ...to }).expect(200);
    expect((await compareProjections(shop.db)).differs).toBeNull();
    expect(await verifyRecord(shop.db, null)).toMatchObject({ ok: true });
  });

  it('a clash is told in words: the bay, the unit, the person', async () => {
    const day = { from: at(8, 4), until: at(12, 4), people: [shop.supervisor.viewer.person.id] };
    await book(day).expect(200);
    const clash = async (more: object) => (await book({ ...day, ...more }).expect(409)).body.detail as string;
    expect(await clash({ unitId: units[1] })).toMatch(/^Bay 1 has Tern 40 from .* to /);
    expect(await clash({ bayId: 'bay-2' })).toMatch(/^Tern 40 stands in Bay 1 from /);
    expect(await clash({ bayId: 'bay-2', unitId: units[1] })).toMatch(/ is on Tern 40 in Bay 1 from /);
    // One ends where the next begins.
    await book({ ...day, unitId: units[1], from: at(12, 4), until: at(13, 4) }).expect(200);
  });

  it('of fifty at one moment one has the bay, the unit, the person, the tool', async () => {
    const person = shop.technician.viewer.person.id;
    const wins = async (more: (i: number) => object) => {
      const answers = await Promise.all(Array.from({ length: 50 }, (_, i) => book(more(i))));
      expect(new Set(answers.map((a) => a.status))).toEqual(new Set([200, 409]));
      return answers.filter((a) => a.status === 200).length;
    };
    const on = (day: number) => ({ from: at(8, day), until: at(12, day) });
    expect(await wins((i) => ({ ...on(5), unitId: units[i % 4] }))).toBe(1);
    expect(await wins((i) => ({ ...on(6), bayId: bays[i % 3]!.id }))).toBe(1);
    expect(
      await wins((i) => ({ ...on(7), people: [person], bayId: bays[i % 3]!.id, unitId: units[i % 4] })),
    ).toBe(1);
    const press = {
      ...{ id: randomUUID(), kind: 'torque-wrench', code: 'TW-50', title: 'The long wrench' },
      ...{ calibratedUntil: '2099-01-31', min: quantity(100, 'lbf-ft'), max: quantity(600, 'lbf-ft') },
    };
    await shop.supervisor.call.put('/api/tools').send({ seenVersion: 0, tool: press }).expect(200);
    const withPress = (i: number) => ({
      ...{ ...on(8), bayId: bays[i % 3]!.id, unitId: units[i % 4], tools: [press.id] },
    });
    expect(await wins(withPress)).toBe(1);
    const taken = await book({ ...on(8), ...{ bayId: 'bay-9', tools: [press.id] } }).expect(422);
    expect(taken.body.issues).toMatchObject([{ path: 'bayId' }]);
    const clashes = await Promise.all(
      bays.map((b, i) => book({ ...withPress(i), bayId: b.id, unitId: units[i + 1] })),
    );
    expect(clashes.some((c) => /^The long wrench is on Tern 4\d in /.test(c.body.detail as string))).toBe(
      true,
    );
    await book({ ...on(9), tools: [randomUUID()] }).expect(422);
  }, 60_000);

  it('what is not there, or does not fit, is refused by its field', async () => {
    const refusedAs = async (more: object) =>
      ((await book(more).expect(422)).body.issues as { path: string }[]).map((i) => i.path);
    const nobody = '018f0000-0000-7000-8000-000000000000';
    expect(await refusedAs({ bayId: 'bay-9' })).toEqual(['bayId']);
    expect(await refusedAs({ unitId: nobody })).toEqual(['unitId']);
    expect(await refusedAs({ people: [nobody] })).toEqual(['people']);
    expect(await refusedAs({ until: at(7) })).toEqual(['until']);
    expect(await refusedAs({ from: 'tomorrow' })).toEqual(['from']);
    const job = await openJobOn(shop, units[1]!);
    expect(await refusedAs({ jobId: job })).toEqual(['jobId']);
  });
});

describe('the floor', () => {
  it('shows what stands in the bays now, the open jobs, and meters that do not fit', async () => {
    const now = Date.now();
    const job = await openJobOn(shop, units[2]!);
    await book({
      ...{ unitId: units[2], jobId: job, bayId: 'bay-3' },
      from: new Date(now - 3_600_000).toISOString(),
      until: new Date(now + 3_600_000).toISOString(),
    }).expect(200);
    await shop.technician.call
      .post(`/api/fleet/units/${units[3]}/meters`)
      .send({ date: '2026-11-25', distance: { value: 900_000, unit: 'km', si: 9e8 }, sure: true })
      .expect(200);
    const floor = (await shop.supervisor.call.get('/api/plan/floor').expect(200)).body as Floor;
    expect(floor.bookings).toMatchObject([{ bayId: 'bay-3', job: { id: job }, cameAt: null }]);
    expect(floor.jobs.map((j) => j.id)).toContain(job);
    expect(floor.units.map((u) => u.id)).toContain(units[2]);
    expect(floor.doubted).toMatchObject([{ unit: { id: units[3] } }]);
    expect(floor.people.length).toBeGreaterThan(1);
    const { id, version } = floor.bookings[0]!;
    expect((await say(id, version, 'end').expect(422)).body.detail).toMatch(/Mark it as arrived first/);
    await say(id, version, 'come').expect(200);
    await say(id, version, 'come').expect(409);
    expect((await theFloor()).bookings).toMatchObject([{ id, cameAt: expect.any(String) as string }]);
    await say(id, version + 1, 'end').expect(200);
    expect((await theFloor()).bookings).toEqual([]);
  });

  it('what did not come frees its bay and is asked about, until it is booked again', async () => {
    const now = shop.clock.now().getTime();
    const hour = (h: number) => new Date(now + h * 3_600_000).toISOString();
    const unitId = await addUnit(shop, 'Tern 60');
    const [from, until] = [hour(-30), hour(-26)];
    const works = [{ position: '1L', work: 'check' }];
    const { id } = (await book({ unitId, bayId: 'bay-2', from, until, works }).expect(200)).body;
    expect((await theFloor()).bookings).toMatchObject([{ id, cameAt: null, works }]);
    await say(id, 1, 'miss').expect(200);
    const floor = await theFloor();
    expect(floor.bookings).toEqual([]);
    expect(floor.missed).toMatchObject([{ id, unit: { name: 'Tern 60' }, works }]);
    await book({ unitId, bayId: 'bay-2', from: hour(-27), until: hour(2) }).expect(200);
    expect((await theFloor()).missed).toEqual([]);
    const again = (await theFloor()).bookings[0]!;
    await say(again.id, 1, 'come').expect(200);
    await say(again.id, 2, 'end').expect(200);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('what is here and has not left stands in its bay, however late it is', async () => {
    const now = shop.clock.now().getTime();
    const unitId = await addUnit(shop, 'Tern 61');
    const until = new Date(now - 3 * 86_400_000).toISOString();
    const from = new Date(now - 4 * 86_400_000).toISOString();
    const { id } = (await book({ unitId, bayId: 'bay-1', from, until }).expect(200)).body;
    expect((await theFloor()).bookings).toEqual([]);
    await say(id, 1, 'come').expect(200);
    expect((await theFloor()).bookings).toMatchObject([{ id, leftAt: null }]);
    // It is nowhere else until somebody says that it left.
    const next = { unitId, bayId: 'bay-3', from: at(20, 6), until: at(21, 6) };
    const { id: second } = (await book(next).expect(200)).body;
    expect((await say(second, 1, 'come').expect(422)).body.detail).toMatch(
      /^It is in Bay 1 since .*left there/,
    );
    await say(id, 2, 'end').expect(200);
    expect((await theFloor()).bookings).toEqual([]);
    await say(second, 1, 'come').expect(200);
  });

  it('a job is opened for a booking once; the two are one from then on', async () => {
    const unitId = await addUnit(shop, 'Tern 62');
    const { id } = (await book({ unitId, bayId: 'bay-2', from: at(8, 9), until: at(9, 9) }).expect(200)).body;
    const open = (more: object) =>
      shop.technician.call.post('/api/jobs').send({
        ...{ unitId, title: 'Check', complaint: '', reportedBy: '', symptoms: [], meter: {} },
        wheelEnds: [{ position: '1L', works: ['check'] }],
        bookingId: id,
        ...more,
      });
    const other = await open({ unitId: units[0] }).expect(422);
    expect(other.body.detail).toMatch(/of another unit/);
    const job = (await open({}).expect(200)).body as { id: string };
    const list = `/api/plan/bookings?from=${at(0, 9)}&until=${at(23, 9)}`;
    expect((await shop.technician.call.get(list)).body).toMatchObject([{ jobId: job.id, version: 2 }]);
    const twice = await open({ wheelEnds: [{ position: '2L', works: ['check'] }] }).expect(422);
    expect(twice.body.detail).toMatch(/open for it already/);
    const jobs = (await shop.technician.call.get('/api/jobs?status=open').expect(200)).body as object[];
    expect(jobs.filter((j) => 'unit' in j && (j.unit as { id: string }).id === unitId)).toHaveLength(1);
  });

  it('is for the shop: an owner’s contact sees nothing of it', async () => {
    const owners = (await shop.supervisor.call.get('/api/fleet/owners')).body as { id: string }[];
    const contact = await shop.signedIn({
      ...{ name: 'O. Contact', login: 'contact', role: 'owner-contact', password: 'correct horse battery' },
      owners: [owners[0]!.id],
    });
    for (const path of [
      '/api/plan/floor',
      '/api/plan/due',
      `/api/plan/bookings?from=${at(1)}&until=${at(2)}`,
    ])
      await contact.call.get(path).expect(403);
  });
});

describe('what is due', () => {
  it('groups a unit’s works into one visit; unknown ones are told apart, and known once somebody says', async () => {
    const unit = units[0]!;
    const page = async (state: string) =>
      (await shop.supervisor.call.get(`/api/plan/due?state=${state}`).expect(200)).body;
    const { axles, version } = (await shop.supervisor.call.get(`/api/fleet/units/${unit}`)).body;
    const shopOwn = { mark: 'shop', source: 'Ours', distance: null, hours: null };
    const intervals = [
      { work: 'seal', months: 12, ...shopOwn },
      { work: 'brakes', months: 13, ...shopOwn },
    ];
    const changed = axles.map((a: { sheet: object }) => ({ ...a, sheet: { ...a.sheet, intervals } }));
    await shop.supervisor.call
      .put(`/api/fleet/units/${unit}/axles`)
      .send({ seenVersion: version, axles: changed })
      .expect(200);
    expect((await page('unknown')).rows).toMatchObject([{ unit: { id: unit } }]);
    expect((await page('known')).total).toBe(0);
    const tell = (body: object) => shop.technician.call.post(`/api/fleet/units/${unit}/services`).send(body);
    await tell({ position: '9L', date: '2026-01-10', works: ['seal'] }).expect(422);
    await tell({ position: '2L', date: '2099-01-10', works: ['seal'] }).expect(422);
    await tell({ position: '2L', date: '2025-01-10', works: ['seal', 'brakes'] }).expect(200);
    const known = await page('known');
    expect(known).toMatchObject({ total: 1, overdue: 1 });
    expect(known.rows[0]).toMatchObject({ dueOn: '2026-01-10', bookedFrom: expect.any(String) as string });
    expect(known.rows[0].due.map((d: { work: string; dueOn: string }) => `${d.work} ${d.dueOn}`)).toEqual([
      'seal 2026-01-10',
      'brakes 2026-02-10',
    ]);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });
});
