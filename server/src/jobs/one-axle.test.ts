import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Due } from '@lanternwright/contract/fleet';
import { supervisor } from '../../../core/src/traveller/testing/work.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, type Shop } from '../testing/shop.ts';

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

  it('has a side left out of a job: it is in the job again by a record that comes late', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['1L', '1R']);
    const post = (body: object, by = shop.supervisor, id = randomUUID()) =>
      by.call.post(`/api/jobs/${jobId}/events`).send({ id, seenVersion: 99, command: body });
    const out = { kind: 'wheel-end-left-out', position: '1R', reason: 'Another day' };
    expect((await post(out, shop.technician).expect(422)).body.code).toBe('for-supervisor');
    const id = randomUUID();
    await post(out, shop.supervisor, id).expect(200);
    await post(out, shop.supervisor, id).expect(200);
    expect((await post({ ...out, position: '1L' }).expect(422)).body.code).toBe('left-out-alone');
    const working = async () => {
      const unit = (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
      return unit.wheelEnds
        .filter((w: { state: string }) => w.state === 'working')
        .map((w: { position: string }) => w.position);
    };
    expect(await working()).toEqual(['1L']);
    await rebuildProjections(shop.db);
    expect(await working()).toEqual(['1L']);
    const off = { kind: 'step-recorded', position: '1R', stage: 'tear-down', stepId: 'wheel-off' };
    const late = { ...off, round: 1, data: { kind: 'instruct' } };
    await post(late, shop.technician).expect(200);
    expect(await working()).toEqual(['1L', '1R']);
    expect((await fetchJob(shop.technician.call, jobId)).leftOut).toEqual([]);
  });

  it('left out of a job is free for another, which then hears what comes late', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['1L', '2L']);
    const ask = (command: object) =>
      shop.supervisor.call
        .post(`/api/jobs/${jobId}/events`)
        .send({ id: randomUUID(), seenVersion: 99, command });
    await ask({ kind: 'wheel-end-left-out', position: '2L', reason: 'Another day' }).expect(200);
    const off = { kind: 'step-recorded', position: '2L', stage: 'tear-down', stepId: 'wheel-off' };
    const late = { ...off, round: 1, data: { kind: 'instruct' } };
    const next = await openJobOn(shop, unitId, ['2L']);
    expect((await ask(late).expect(422)).body.code).toBe('left-out-and-changed');
    expect((await fetchJob(shop.technician.call, next)).wheelEnds).toHaveLength(1);
    expect((await ask({ ...late, position: '1L' }).expect(200)).body.version).toBe(3);
  });

  it('has what its owner deferred due on the day that was agreed, from job to job', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['1L', '1R'], ['seal', 'studs']);
    const { t, flush } = mirrored(shop, jobId, ['1L', '1R'], ['seal', 'studs']);
    const line = { group: 'labour', what: 'Studs', per: 'piece', quantity: 1, unitMinor: 100 } as const;
    const bill = { currency: 'USD', lines: [line], suppliesPercent: 0, taxes: [] };
    t.do({ kind: 'bill-written', as: 'estimate', bill }, supervisor);
    const later = { answer: 'defer', until: '2031-03-01', risk: 'Two studs are stretched' } as const;
    const works = [{ position: '1R' as const, work: 'studs' as const, ...later }];
    t.do({ kind: 'owner-answered', answer: 'do-now', name: 'Q. Fenmoor', works }, supervisor);
    await flush();
    const deferred = async () => {
      const unit = (await shop.supervisor.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
      return (unit.due as Due[]).filter((d) => d.dueBy === 'deferred');
    };
    const studs = { position: '1R', work: 'studs', dueOn: '2031-03-01', state: 'later' };
    expect(await deferred()).toMatchObject([studs]);
    await rebuildProjections(shop.db);
    expect(await deferred()).toMatchObject([studs]);
    t.do({ kind: 'work-added', position: '1R', work: 'studs', reason: 'The owner rang' }, supervisor);
    await flush();
    expect(await deferred()).toEqual([]);
  });
});
