import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '@lanternwright/core/interval';
import { dayBegins } from '@lanternwright/core/work-plan';
import type { Proposal } from '@lanternwright/contract/plan';
import { prepareQueue, startQueue } from '../queue/queue.ts';
import { compareProjections } from '../record/rebuild.ts';
import { verifyRecord } from '../record/verify.ts';
import { linesToAnswer } from '@lanternwright/core/traveller';
import { leaveLoose, supervisor } from '../../../core/src/traveller/testing/work.ts';
import { addUnit, mirrored, openJobOn, openShop, type Shop } from '../testing/shop.ts';

const DAY_MS = 86_400_000;
let shop: Shop;
let units: string[];
let queue: { stop: () => Promise<void> };
const bays = ['Bay 1', 'Bay 2'].map((name, i) => ({ id: `bay-${i + 1}`, name }));
const allDay = [{ from: '00:00', until: '24:00' }];
const ahead = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString();
const technician = () => shop.technician.viewer.person.id;

/** A unit whose seal was due a year after a day. */
async function dueUnit(name: string, sealedOn: string): Promise<string> {
  const id = await addUnit(shop, name);
  const { axles, version } = (await shop.supervisor.call.get(`/api/fleet/units/${id}`)).body;
  const intervals = [{ work: 'seal', months: 12, mark: 'shop', source: 'Ours', distance: null, hours: null }];
  await shop.supervisor.call
    .put(`/api/fleet/units/${id}/axles`)
    .send({
      seenVersion: version,
      axles: axles.map((a: { sheet: object }) => ({ ...a, sheet: { ...a.sheet, intervals } })),
    })
    .expect(200);
  for (const position of ['2L', '2R'])
    await shop.technician.call
      .post(`/api/fleet/units/${id}/services`)
      .send({ position, date: sealedOn, works: ['seal'] })
      .expect(200);
  return id;
}

async function ready(id: string): Promise<Proposal> {
  for (let i = 0; i < 200; i++) {
    const { body } = await shop.technician.call.get(`/api/plan/proposals/${id}`).expect(200);
    if (body.state !== 'waiting' && body.state !== 'running') return body as Proposal;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('the plan did not get ready');
}
const ask = async (body: object) =>
  (
    await shop.supervisor.call
      .post('/api/plan/proposals')
      .send({ seconds: 2, ...body })
      .expect(200)
  ).body.id as string;
const accept = (id: string, list: string[]) =>
  shop.supervisor.call.post(`/api/plan/proposals/${id}/accept`).send({ units: list });
const listed = async () =>
  (await shop.technician.call.get(`/api/plan/bookings?from=${ahead(-1)}&until=${ahead(40)}`).expect(200))
    .body as {
    id: string;
    version: number;
    unitId: string;
    bayId: string;
    people: string[];
    from: string;
    until: string;
  }[];

beforeAll(async () => {
  shop = await openShop();
  const log = pino({ level: 'silent' });
  await prepareQueue({ ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl }, log);
  queue = await startQueue(
    shop.databaseUrl,
    {
      ...{ seal: () => shop.seals.sealEnd(), plan: (id) => shop.proposals.run(id) },
      ...{ backup: null, supplier: null, feed: null },
      'keep-parts': () => Promise.resolve(),
      'tell-programs': () => shop.webhooks.tell(),
      deliver: (id) => shop.webhooks.deliver(id),
      morning: () => shop.morning.run(),
      'meter-file': (id) => shop.meterFiles.run(id),
    },
    log,
  );
  units = [];
  for (const [name, sealedOn] of [
    ['Tern 40', '2024-11-10'],
    ['Tern 41', '2025-01-10'],
    ['Tern 42', '2025-02-10'],
  ] as const)
    units.push(await dueUnit(name, sealedOn));
}, 120_000);
afterAll(async () => {
  await queue.stop();
  await shop.close();
});

describe('a proposal', () => {
  it('is refused until the settings say which bays there are and when the shop works', async () => {
    const settings = shop.settings.current();
    const said = async () =>
      (await shop.supervisor.call.post('/api/plan/proposals').send({ kind: 'propose' }).expect(422)).body
        .detail;
    expect(await said()).toMatch(/bays of the shop/);
    await shop.supervisor.call
      .put('/api/shop/settings')
      .send({ ...settings, bays })
      .expect(200);
    expect(await said()).toMatch(/hours of the shop/);
    await shop.supervisor.call
      .put('/api/shop/settings')
      .send({ ...settings, bays, week: Array.from({ length: 7 }, () => allDay) })
      .expect(200);
  });

  it('is made in the background, explains itself, changes nothing, and is accepted in part', async () => {
    const id = await ask({ kind: 'propose' });
    const plan = await ready(id);
    expect(plan.state).toBe('ready');
    const { rows, unplaced } = plan.result!;
    expect(unplaced).toEqual([]);
    expect(rows.map((r) => r.unit.id).sort()).toEqual([...units].sort());
    for (const row of rows) {
      expect(row).toMatchObject({ what: 'Renew seals 2L, 2R', was: null, bookingId: null });
      expect(row.to.people).toEqual([technician()]);
      expect(row.because).toMatch(/\.$/);
      expect(row.hours!.usual).toBeCloseTo((30 + 2 * 105) / 60, 6);
    }
    // One technician: one after the other.
    const spans = rows.map((r) => [r.to.from, r.to.until]).sort();
    expect(spans[1]![0]! >= spans[0]![1]!).toBe(true);
    expect(rows.some((r) => /All technicians are busy/.test(r.because))).toBe(true);
    expect(await listed()).toEqual([]);
    expect((await accept(id, [units[0]!, units[1]!]).expect(200)).body).toEqual({ booked: 2 });
    expect((await listed()).map((b) => b.unitId).sort()).toEqual([units[0]!, units[1]!].sort());
    // The same again clashes, in words, and books nothing of it.
    const again = await accept(id, [units[0]!, units[2]!]).expect(409);
    expect(again.body.detail).toMatch(/has Tern 40|Tern 40 stands|is on Tern 40/);
    expect(await listed()).toHaveLength(2);
    expect((await ready(await ask({ kind: 'propose' }))).result!.rows.map((r) => r.unit.id)).toEqual([
      units[2],
    ]);
    await accept(id, ['018f0000-0000-4000-8000-000000000000']).expect(422);
    expect(await verifyRecord(shop.db, null)).toMatchObject({ ok: true });
  }, 60_000);

  it('can be stopped, and a stopped one cannot be accepted', async () => {
    const id = await ask({ kind: 'propose', seconds: 20 });
    await shop.supervisor.call.post(`/api/plan/proposals/${id}/stop`).expect(200);
    expect((await ready(id)).state).not.toBe('failed');
    const other = await ask({ kind: 'propose' });
    await ready(other);
    await shop.db.sequelize.query(`update proposal set state = 'stopped' where id = '${other}'`);
    await accept(other, [units[2]!]).expect(409);
  }, 60_000);
});

describe('a bad morning', () => {
  it('is mended: what somebody away was to do moves, and two bookings may change places', async () => {
    const before = await listed();
    expect(before).toHaveLength(2);
    const first = before[0]!;
    const absence = { what: 'person', of: technician(), from: ahead(0), until: ahead(2), why: 'Ill' };
    const { body: told } = await shop.supervisor.call.post('/api/plan/absences').send(absence).expect(200);
    const refused = await shop.technician.call
      .post('/api/plan/bookings')
      .send({ ...first, from: ahead(1), until: ahead(1.1), unitId: units[2], jobId: null, note: '' })
      .expect(422);
    expect(refused.body.detail).toMatch(/D. Achterberg is away then: Ill/);
    const id = await ask({ kind: 'mend' });
    const plan = await ready(id);
    const soon = before.filter(
      (b) => Date.parse(b.from) < Date.parse(ahead(2)) && Date.parse(b.from) > Date.now(),
    );
    expect(plan.result!.rows.map((r) => r.bookingId).sort()).toEqual(soon.map((b) => b.id).sort());
    for (const row of plan.result!.rows) {
      expect(row.because).toBe('The technician is away or on another unit.');
      expect(Date.parse(row.to.from)).toBeGreaterThanOrEqual(Date.parse(absence.until) - 60_000);
    }
    await accept(
      id,
      plan.result!.rows.map((r) => r.bookingId!),
    ).expect(200);
    // Accepted once, the versions have moved on.
    await accept(
      id,
      plan.result!.rows.map((r) => r.bookingId!),
    ).expect(409);
    expect((await ready(await ask({ kind: 'mend' }))).result!.rows).toEqual([]);
    const away = (
      await shop.technician.call.get(`/api/plan/absences?from=${ahead(0)}&until=${ahead(9)}`).expect(200)
    ).body;
    expect(away).toMatchObject([{ id: told.id, name: 'D. Achterberg', why: 'Ill' }]);
    const cancel = (seenVersion: number) =>
      shop.supervisor.call.post(`/api/plan/absences/${told.id}/cancel`).send({ seenVersion });
    await cancel(9).expect(409);
    await cancel(1).expect(200);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  }, 60_000);

  it('leaves what is locked where it is', async () => {
    const [one] = await listed();
    await shop.technician.call
      .post(`/api/plan/bookings/${one!.id}/lock`)
      .send({ seenVersion: one!.version, locked: true })
      .expect(200);
    const closed = {
      what: 'bay',
      of: one!.bayId,
      from: ahead(0),
      until: ahead(20),
      why: 'The pit is painted',
    };
    await shop.supervisor.call.post('/api/plan/absences').send(closed).expect(200);
    const { result } = await ready(await ask({ kind: 'mend' }));
    expect(result!.rows.map((r) => r.bookingId)).not.toContain(one!.id);
    await shop.supervisor.call
      .post('/api/plan/absences')
      .send({ ...closed, of: 'bay-9' })
      .expect(422);
    await shop.supervisor.call
      .post('/api/plan/absences')
      .send({ ...closed, until: closed.from })
      .expect(422);
  }, 60_000);
});

describe('the weeks ahead', () => {
  it('are hours people have against hours asked for, twelve of them', async () => {
    const { body } = await shop.technician.call.get('/api/plan/capacity').expect(200);
    expect(body).toHaveLength(12);
    expect(body[1].capacity).toBeCloseTo(7 * 24, 6);
    expect(body[0].due.usual).toBeCloseTo(4, 6);
    expect(body[0].due.low).toBeLessThan(body[0].due.usual);
  });
});

describe('hours of one person', () => {
  const mornings = Array.from({ length: 7 }, () => [{ from: '06:00', until: '12:00' }]);
  const change = (week: unknown, seen: unknown, id = technician()) =>
    shop.supervisor.call.put(`/api/plan/shifts/${id}`).send({ week, seen });

  it('are theirs, not the shop’s, in plans and in the load; whoever saw others is told', async () => {
    const { body: before } = await shop.supervisor.call.get('/api/plan/shifts').expect(200);
    expect(before).toEqual([{ id: technician(), name: shop.technician.viewer.person.name, week: null }]);
    const both = await Promise.all([change(mornings, null), change(mornings, null)]);
    expect(both.map((answer) => answer.status).sort()).toEqual([200, 409]);
    await change(mornings, null, shop.supervisor.viewer.person.id).expect(404);
    await change([[{ from: '12:00', until: '06:00' }]], mornings).expect(422);
    const { body: load } = await shop.technician.call.get('/api/plan/capacity').expect(200);
    expect(load[1].capacity).toBeCloseTo(7 * 6, 6);

    await dueUnit('Tern 43', '2025-02-10');
    const { result } = await ready(await ask({ kind: 'propose' }));
    expect(result!.rows.length).toBeGreaterThan(0);
    const { zone } = shop.settings.current();
    const hour = (iso: string) =>
      Number(new Date(iso).toLocaleString('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' }));
    for (const { to } of result!.rows) {
      expect(hour(to.from)).toBeGreaterThanOrEqual(6);
      expect(hour(to.from)).toBeLessThan(12);
    }
    // Over a night it is two hours of their work, not twenty: where nothing is in its way it stays, whatever its length.
    const { zone: own } = shop.settings.current();
    const day = addDays(shop.clock.today(), 30);
    const at = (days: number, hours: number, minutes = 0) =>
      new Date(dayBegins(day, own, days) + (hours * 60 + minutes) * 60_000).toISOString();
    const booking = (unitId: string, from: string, until: string) =>
      shop.supervisor.call.post('/api/plan/bookings').send({
        ...{ bayId: bays[0]!.id, unitId, jobId: null, people: [technician()], tools: [], from, until },
        note: '',
      });
    const { id: long } = (await booking(units[0]!, at(0, 11), at(1, 7)).expect(200)).body as { id: string };
    const { id: odd } = (await booking(units[1]!, at(1, 7, 5), at(1, 7, 55)).expect(200)).body as {
      id: string;
    };
    const moved = async () => (await ready(await ask({ kind: 'mend' }))).result!.rows;
    expect((await moved()).filter((r) => [long, odd].includes(r.bookingId!))).toEqual([]);
    const away = {
      what: 'person',
      of: technician(),
      from: at(0, 10),
      until: at(1, 6, 30),
      why: 'At the dentist',
    };
    await shop.supervisor.call.post('/api/plan/absences').send(away).expect(200);
    const to = (await moved()).find((r) => r.bookingId === long)!.to;
    const minutes = [-1, 0, 1, 2, 3, 4, 5, 6].reduce((sum, d) => {
      const [from, until] = [Date.parse(at(d, 6)), Date.parse(at(d, 12))];
      return (
        sum +
        Math.max(0, Math.min(until, Date.parse(to.until)) - Math.max(from, Date.parse(to.from))) / 60_000
      );
    }, 0);
    expect(minutes).toBe(120);
    await change(null, mornings).expect(200);
    const { body: after } = await shop.technician.call.get('/api/plan/capacity').expect(200);
    expect(after[1].capacity).toBeCloseTo(7 * 24, 6);
  }, 90_000);
});

describe('what a plan makes of the shop as it stands', () => {
  const rowsOf = async () => {
    const { rows } = (await ready(await ask({ kind: 'propose' }))).result!;
    return new Map(rows.map((r) => [r.unit.id, r]));
  };

  it('begins with a wheel end that was left out of its band, before what is overdue', async () => {
    await dueUnit('Tern 70', '2020-01-10');
    const unitId = await addUnit(shop, 'Tern 71');
    const { t, flush } = mirrored(shop, await openJobOn(shop, unitId, ['2L'], ['check']), ['2L'], ['check']);
    leaveLoose(t, '2L', 'Goes to the yard, adjusted when the parts are here');
    await flush();
    const rows = [...(await rowsOf()).values()].sort((a, b) => (a.to.from < b.to.from ? -1 : 1));
    expect(rows.map((r) => r.unit.name)).toContain('Tern 70');
    expect(rows[0]).toMatchObject({ unit: { name: 'Tern 71' }, works: [{ position: '2L', work: 'adjust' }] });
  }, 90_000);

  it('takes in retorques whose time has come: minutes of their own, or with what the unit comes for anyway', async () => {
    const [alone, comes] = [await addUnit(shop, 'Tern 75'), await dueUnit('Tern 76', '2020-02-10')];
    for (const unitId of [alone, comes]) {
      const jobId = await openJobOn(shop, unitId, ['2L'], ['wheel-off']);
      const { t, flush } = mirrored(shop, jobId, ['2L'], ['wheel-off']);
      t.workTo('2L');
      t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
      await flush();
    }
    expect((await rowsOf()).get(alone)).toBeUndefined();
    await shop.db.followUp.update(
      { byDate: addDays(shop.clock.today(), -3) },
      { where: { kind: 'retorque' } },
    );
    const rows = await rowsOf();
    expect(rows.get(alone)).toMatchObject({
      what: 'Retorque wheel nuts 2L',
      works: [{ position: '2L', work: 'retorque' }],
      hours: { usual: (30 + 10) / 60 },
    });
    expect(rows.get(comes)!.what).toBe('Renew seals 2L, 2R; Retorque wheel nuts 2L');
  }, 90_000);

  it('takes an open job for the work it has left, and not before its parts come', async () => {
    const [fresh, half, waits] = [
      await addUnit(shop, 'Tern 72'),
      await addUnit(shop, 'Tern 73'),
      await addUnit(shop, 'Tern 74'),
    ];
    await openJobOn(shop, fresh);
    const worked = mirrored(shop, await openJobOn(shop, half), ['2L', '2R']);
    worked.t.workTo('2L');
    await worked.flush();
    const lacking = mirrored(shop, await openJobOn(shop, waits), ['2L', '2R']);
    lacking.t.workTo('2L', 'readiness');
    const by = addDays(shop.clock.today(), 6);
    const lines = linesToAnswer(lacking.t.at('2L')).map(({ what }, i) =>
      i === 0 ? { what, state: 'ordered' as const, by } : { what, state: 'have' as const },
    );
    lacking.t.recordStep('2L', { kind: 'ready', lines, note: 'It is opened as far as it goes' });
    await lacking.flush();
    const rows = await rowsOf();
    // Renewing a seal takes 105 minutes where the shop has not measured it; in and out of a bay takes 30.
    expect(rows.get(fresh)!.hours!.usual).toBeCloseTo((30 + 2 * 105) / 60, 6);
    expect(rows.get(half)!.hours!.usual).toBeCloseTo((30 + 105) / 60, 6);
    const late = rows.get(waits)!;
    expect(late.to.from >= by).toBe(true);
    expect(late.because).toMatch(/part/i);
  }, 90_000);
});
