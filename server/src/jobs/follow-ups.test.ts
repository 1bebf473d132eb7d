import { firstAxleId } from '@lanternwright/core/axle-plan';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FOLLOW_UPS_A_PAGE, type ShopFollowUp, type ShopFollowUps } from '@lanternwright/contract/jobs';
import { addDays, retorqueState } from '@lanternwright/core/interval';
import { addUnit, openJobOn, openShop, type Shop } from '../testing/shop.ts';

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
