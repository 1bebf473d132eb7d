import { firstAxleId } from '@lanternwright/core/axle-plan';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FOLLOW_UPS_A_PAGE, type ShopFollowUp, type ShopFollowUps } from '@lanternwright/contract/jobs';
import { addDays, retorqueState } from '@lanternwright/core/interval';
import type { Due, UnitDetail } from '@lanternwright/contract/fleet';
import type { Floor } from '@lanternwright/contract/plan';
import { leaveLoose, supervisor } from '../../../core/src/traveller/testing/work.ts';
import { refreshLeftOut } from '../plan/refresh-due.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const page = async (number: number): Promise<ShopFollowUps> =>
  (await shop.technician.call.get(`/api/jobs/follow-ups?page=${number}`).expect(200)).body as ShopFollowUps;

describe('follow-ups of the whole shop', () => {
  it('come a page at a time, overdue first, each as the core says it stands', async () => {
    const today = new Date().toISOString().slice(0, 10);
    const unitId = await addUnit(shop);
    const axle = (number: number) => firstAxleId(unitId, number);
    const meterKm = 611_300;
    const jobId = await openJobOn(shop, unitId);
    await shop.db.wheelEnd.update(
      { outOfService: { as: 'out-of-service', reason: 'Spindle scrap' } },
      { where: { unitId, position: '2R' } },
    );
    const kms: (number | null)[] = [null, meterKm - 1, meterKm, meterKm + 1];
    const rows = kms.flatMap((fromKm) =>
      kms.flatMap((byKm) => [-2, 0, 9].map((days) => ({ fromKm, byKm, byDate: addDays(today, days) }))),
    );
    // A release opens twenty of a kind at most; three kinds hold them all.
    const kinds = ['oil-level', 'deferred', 'temporary'] as const;
    await shop.db.followUp.bulkCreate([
      ...rows.map((row, i) => ({
        jobId,
        position: '2L',
        unitId,
        axleId: axle(2),
        kind: kinds[i % 3]!,
        nth: Math.floor(i / 3),
        what: 'Look at it',
        doneAt: null,
        ...row,
      })),
      ...kinds.map((kind) => ({
        jobId,
        position: '2R',
        unitId,
        axleId: axle(2),
        kind,
        nth: 0,
        what: 'Looked after already',
        fromKm: null,
        byKm: null,
        byDate: addDays(today, -5),
        doneAt: new Date(),
      })),
      ...kinds.map((kind) => ({
        jobId,
        position: '3L',
        unitId,
        axleId: axle(3),
        kind,
        nth: 0,
        what: 'More than a page',
        fromKm: null,
        byKm: null,
        byDate: addDays(today, 30),
        doneAt: null,
      })),
    ]);
    const [first, second] = [await page(1), await page(2)];
    const all: ShopFollowUp[] = [...first.rows, ...second.rows];
    expect(first.rows).toHaveLength(FOLLOW_UPS_A_PAGE);
    expect(all).toHaveLength(rows.length + 4);
    expect(first).toMatchObject({
      total: all.length,
      overdue: all.filter((r) => r.state === 'overdue').length,
    });
    for (const { byDate, fromKm, byKm, state } of all.filter((r) => r.byDate !== null))
      expect(state).toBe(
        retorqueState({ fromKm, byKm, byDate: byDate! }, { km: meterKm, hours: null }, today),
      );
    const order = all.map((r) => ['overdue', 'due', 'early'].indexOf(r.state));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(all.filter((r) => r.kind === 'out-of-service')).toMatchObject([
      { position: '2R', what: 'Spindle scrap', jobId: null, unit: { id: unitId } },
    ]);
    expect((await page(3)).rows).toEqual([]);
    await shop.technician.call.get('/api/jobs/follow-ups?page=0').expect(422);
    await shop.anyone().get('/api/jobs/follow-ups').expect(401);
  });

  it('a wheel that came off again has a retorque of its own, and the older one is not asked for any more', async () => {
    const unitId = await addUnit(shop);
    const retorques = async () =>
      (
        (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body as {
          followUps: { jobId: string; position: string }[];
        }
      ).followUps.map((f) => `${f.jobId} ${f.position}`);
    const due = {
      unitId,
      axleId: firstAxleId(unitId, 2),
      kind: 'retorque',
      nth: 0,
      what: '',
      fromKm: null,
      byKm: null,
      doneAt: null,
    } as const;
    const first = await openJobOn(shop, unitId, ['2L']);
    const second = await openJobOn(shop, unitId, ['3L']);
    await shop.db.followUp.bulkCreate([
      { ...due, jobId: first, position: '2L', byDate: '2026-01-10' },
      { ...due, jobId: first, position: '2R', byDate: '2026-01-10' },
    ]);
    expect(await retorques()).toEqual([`${first} 2L`, `${first} 2R`]);
    await shop.db.followUp.create({ ...due, jobId: second, position: '2L', byDate: '2026-03-10' });
    expect(await retorques()).toEqual([`${first} 2R`, `${second} 2L`]);
  });
});

describe('a wheel end that was left out of its band', () => {
  const floor = async () => (await shop.supervisor.call.get('/api/plan/floor').expect(200)).body as Floor;
  const dueOf = async (unitId: string) =>
    (await shop.supervisor.call.get(`/api/fleet/units/${unitId}`).expect(200)).body.due as Due[];
  const lookedAfter = { kind: 'follow-up-done', position: '2L', followUp: 'temporary', nth: 0 } as const;

  it('is decided on and due until it was measured in band', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L'], ['check']);
    const { t, flush } = mirrored(shop, jobId, ['2L'], ['check']);
    leaveLoose(t, '2L', 'It has to be back on the road this evening');
    await flush();
    const today = new Date().toISOString().slice(0, 10);
    const ofUnit = async () => (await floor()).apart.filter((a) => a.unit.id === unitId);
    expect(await ofUnit()).toMatchObject([
      { position: '2L', outOfService: null, left: [], outOfBand: { verdict: 'loose' } },
    ]);
    const adjust = { position: '2L', work: 'adjust', dueBy: 'out-of-band', dueOn: today };
    expect(await dueOf(unitId)).toContainEqual(expect.objectContaining(adjust));
    const closes = async () =>
      send(shop.supervisor.call, jobId, (await fetchJob(shop.supervisor.call, jobId)).version, {
        ...lookedAfter,
        note: 'I looked at it and it is as it was',
      });
    expect((await closes().then((r) => r.body)).detail).toMatch(
      /2L was released out of its band: open a job/,
    );

    const asked = (await page(1)).rows.filter((f) => f.unit.id === unitId);
    expect(asked.map((f) => f.kind)).toEqual(['temporary']);

    // Let go a second time, the later release asks alone.
    const second = await openJobOn(shop, unitId, ['2L'], ['check']);
    const twice = mirrored(shop, second, ['2L'], ['check']);
    leaveLoose(twice.t, '2L', 'It has to be back on the road once more');
    await twice.flush();
    const still = (await page(1)).rows.filter((f) => f.unit.id === unitId);
    expect(still.map((f) => f.jobId)).toEqual([second]);

    // A record that is rebuilt says the same.
    expect((await rebuildProjections(shop.db)).aside).toEqual([]);
    expect(await dueOf(unitId)).toContainEqual(expect.objectContaining(adjust));

    // With its axle out of the unit, nobody is asked for it.
    const { version, axles } = (await shop.supervisor.call.get(`/api/fleet/units/${unitId}`).expect(200))
      .body as UnitDetail;
    const change = async (seenVersion: number, left: readonly object[]) =>
      shop.supervisor.call
        .put(`/api/fleet/units/${unitId}/axles`)
        .send({ seenVersion, axles: left })
        .expect(200);
    await change(
      version,
      axles.filter((a) => a.number !== 2),
    );
    expect(await ofUnit()).toEqual([]);
    expect((await page(1)).rows.filter((f) => f.unit.id === unitId)).toEqual([]);
    expect((await dueOf(unitId)).filter((d) => d.dueBy === 'out-of-band')).toEqual([]);
    await change(version + 1, axles);
    expect(await ofUnit()).toHaveLength(1);

    // So does one that a version before this one kept, once it is started.
    await shop.db.sequelize.query('delete from due where unit_id = $1', { bind: [unitId] });
    await refreshLeftOut(shop.db);
    expect(await dueOf(unitId)).toContainEqual(expect.objectContaining(adjust));

    const next = await openJobOn(shop, unitId, ['2L'], ['adjust']);
    expect(await ofUnit()).toEqual([]);
    const again = mirrored(shop, next, ['2L'], ['adjust']);
    again.t.workTo('2L');
    again.t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    await again.flush();
    expect(await ofUnit()).toEqual([]);
    expect((await dueOf(unitId)).filter((d) => d.dueBy === 'out-of-band')).toEqual([]);
    // Nobody is asked for it any more, whether somebody says that it was looked after or not.
    expect((await page(1)).rows.filter((f) => f.unit.id === unitId && f.kind === 'temporary')).toEqual([]);
    expect((await closes()).status).toBe(200);
  });
});
