import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Job } from '@lanternwright/core/traveller';
import { layerStates, progressOf, wheelEndAt } from '@lanternwright/core/traveller';
import { quantity } from '@lanternwright/core/quantity';
import type { Work } from '@lanternwright/core/stack';
import { supervisor } from '../../../core/src/traveller/testing/work.ts';
import { rebuildProjections } from '../record/rebuild.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const todo = (job: Job, position: string) =>
  progressOf(wheelEndAt(job, position)!).flatMap((p) => (p.record ? [] : [p.step.id]));
const now = (jobId: string) => fetchJob(shop.supervisor.call, jobId);
const assemblyOf = async (unitId: string) =>
  (await shop.db.wheelEnd.findOne({ where: { unitId, position: '2L' } }))!;
const endOutOfService = async (jobId: string, reason: string) =>
  send(shop.supervisor.call, jobId, (await now(jobId)).version, {
    kind: 'ended-out-of-service',
    reason,
    leaves: 'stays',
    told: 'M. Tern',
  }).expect(200);

/** A job on 2L worked to a step. */
async function workedTo(unitId: string, works: Parameters<typeof mirrored>[3], stepId?: string) {
  const jobId = await openJobOn(shop, unitId, ['2L'], works);
  const { t, flush } = mirrored(shop, jobId, ['2L'], works);
  t.workTo('2L', stepId);
  await flush();
  return { jobId, t };
}

describe('what a job leaves of the metal', () => {
  it('is what the next one begins from, until it is whole', async () => {
    const unitId = await addUnit(shop);
    const { jobId } = await workedTo(unitId, ['seal'], 'judge-parts');
    const voided = await send(shop.supervisor.call, jobId, (await now(jobId)).version, {
      kind: 'job-voided',
      reason: 'Wrong unit',
    }).expect(422);
    expect(voided.body.detail).toMatch(/2L is not as it was: .*Finish it, or end the job out of service/);
    await endOutOfService(jobId, 'The spindle is weeks away');
    const next = await openJobOn(shop, unitId, ['2L'], ['retorque']);
    expect(layerStates(wheelEndAt(await now(next), '2L')!)).toMatchObject({
      wheel: 'off',
      hub: 'off',
      nut: 'off',
    });
    const release = {
      kind: 'wheel-end-released',
      position: '2L',
      overrideReason: 'It is wanted back on the road this evening',
    } as const;
    const refused = await send(shop.supervisor.call, next, 1, release).expect(422);
    expect(refused.body.detail).toMatch(/Wheel on, drawn up in stages/);
    expect((await assemblyOf(unitId)).outOfService).toMatchObject({ reason: 'The spindle is weeks away' });
  });

  it('a lining accepted for the yard keeps the unit off the road, until a job renews it', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L'], ['brakes']);
    const { t, flush } = mirrored(shop, jobId, ['2L'], ['brakes']);
    t.workTo('2L', 'brakes-back');
    const mm = quantity(6, 'mm');
    t.recordStep('2L', { kind: 'linings', brake: 'air-drum', inner: mm, outer: mm, set: true, note: 'Worn' });
    t.workTo('2L');
    const overrideReason = 'It only moves trailers about the yard';
    t.do({ kind: 'wheel-end-released', position: '2L', overrideReason }, supervisor);
    await flush();
    const yard = { reason: expect.stringMatching(/^For the yard only: a lining of 6.0 mm/) as string };
    expect((await assemblyOf(unitId)).outOfService).toMatchObject(yard);
    const release = async (works: Work[]) => {
      const { jobId: next } = await workedTo(unitId, works);
      const { version } = await now(next);
      await send(shop.supervisor.call, next, version, {
        kind: 'wheel-end-released',
        position: '2L',
      }).expect(200);
    };
    await release(['oil-level']);
    expect((await assemblyOf(unitId)).outOfService).toMatchObject(yard);
    expect((await rebuildProjections(shop.db)).aside).toEqual([]);
    expect((await assemblyOf(unitId)).outOfService).toMatchObject(yard);
    await release(['brakes']);
    expect((await assemblyOf(unitId)).outOfService).toBeNull();
  });

  it('keeps its layers when the unit’s own pages change the sheet', async () => {
    const unitId = await addUnit(shop);
    const { jobId } = await workedTo(unitId, ['seal'], 'judge-parts');
    await endOutOfService(jobId, 'The hub is cracked');
    const unit = (await shop.supervisor.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;
    const axles = unit.axles.map((axle: { number: number; sheet: { stack: object[] } }) =>
      axle.number === 2
        ? { ...axle, sheet: { ...axle.sheet, stack: [{ layer: 'wheel', kind: 'dual' }] } }
        : axle,
    );
    const refused = await shop.supervisor.call
      .put(`/api/fleet/units/${unitId}/axles`)
      .send({ seenVersion: unit.version, axles })
      .expect(422);
    expect(refused.body.detail).toMatch(/2L was left with .* off or not finished/);
  });
});

describe('a job that ended, corrected', () => {
  it('puts its release in doubt, and tells the job that began from it', async () => {
    const unitId = await addUnit(shop);
    const { jobId, t } = await workedTo(unitId, ['seal']);
    await send(shop.supervisor.call, jobId, t.job.version, {
      kind: 'wheel-end-released',
      position: '2L',
    }).expect(200);
    expect((await assemblyOf(unitId)).assembly).toBeNull();
    const next = await openJobOn(shop, unitId, ['2L'], ['oil-level']);
    expect(todo(await now(next), '2L')).not.toContain('lock');
    const job = await now(jobId);
    const lock = job.events.find((e) => e.body.kind === 'step-recorded' && e.body.stepId === 'lock')!;
    const strike = {
      kind: 'correction',
      corrects: lock.id,
      reason: 'That was 2R',
      replacement: null,
    } as const;
    await send(shop.technician.call, jobId, job.version, strike).expect(422);
    await send(shop.supervisor.call, jobId, job.version, strike, randomUUID()).expect(200);
    expect(wheelEndAt(await now(jobId), '2L')!.release?.inDoubt).toMatchObject({ reason: 'That was 2R' });
    expect((await assemblyOf(unitId)).outOfService).toMatchObject({
      reason: 'Release in doubt: That was 2R',
    });
    expect(todo(await now(next), '2L')).toContain('lock');
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
    const before = (await assemblyOf(unitId)).get({ plain: true });
    expect((await rebuildProjections(shop.db)).aside).toEqual([]);
    expect((await assemblyOf(unitId)).get({ plain: true })).toEqual(before);
  });
});
