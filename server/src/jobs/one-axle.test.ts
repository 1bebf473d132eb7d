import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { rebuildProjections } from '../record/rebuild.ts';
import { addUnit, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

describe('an axle', () => {
  it('is in one open job: the other side joins that job, once, and no second job takes it', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L']);
    const wheelEnd = { position: '2R', works: ['check'] };
    const other = { unitId, title: 'x', complaint: '', reportedBy: '', meter: {}, wheelEnds: [wheelEnd] };
    const busy = await shop.technician.call.post('/api/jobs').send(other).expect(422);
    expect(busy.body.detail).toMatch(/^Axle 2 is in open job \d+ with 2L/);
    const join = { id: randomUUID(), wheelEnd };
    const url = `/api/jobs/${jobId}/wheel-ends`;
    const sent = [join, join, { ...join, id: randomUUID() }].map((body) =>
      shop.technician.call.post(url).send(body),
    );
    const statuses = (await Promise.all(sent)).map((answer) => answer.status).sort();
    expect(statuses).toEqual([200, 200, 422]);
    const job = await fetchJob(shop.technician.call, jobId);
    expect(job.wheelEnds.map((w) => [w.position, w.withOther])).toEqual([
      ['2L', true],
      ['2R', true],
    ]);
    expect(job.events).toHaveLength(2);
    const strange = { id: randomUUID(), wheelEnd: { ...wheelEnd, position: '1L' } };
    const refused = await shop.technician.call.post(url).send(strange).expect(422);
    expect(refused.body.detail).toBe('1L is on another axle: open a job for it');
    const unit = (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
    expect(unit.wheelEnds.filter((w: { state: string }) => w.state === 'working')).toHaveLength(2);
    await rebuildProjections(shop.db);
    expect((await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body).toEqual(unit);
  });
});
