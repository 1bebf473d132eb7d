import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { JobDetail } from '@lanternwright/contract/jobs';
import { quantity } from '@lanternwright/core/quantity';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const unitOf = async (unitId: string) =>
  (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body;

describe('the intake put right', () => {
  it('changes the unit’s own meter as well, once', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L']);
    expect((await unitOf(unitId)).meterKm).toBe(611_300);
    const [opening] = (await fetchJob(shop.technician.call, jobId)).events;
    const right = {
      kind: 'intake',
      complaint: 'Seal weep, left',
      reportedBy: 'driver',
      symptoms: [],
      meter: { distance: quantity(611_250, 'km') },
    } as const;
    const command = { kind: 'correction', corrects: opening!.id, reason: 'Two digits turned' } as const;
    await send(shop.technician.call, jobId, 1, { ...command, replacement: null }).expect(422);
    await send(shop.technician.call, jobId, 1, {
      ...command,
      replacement: { ...right, symptoms: [] },
    }).expect(200);
    const unit = await unitOf(unitId);
    expect(unit.meterKm).toBe(611_250);
    const job = await fetchJob(shop.technician.call, jobId);
    expect(job).toMatchObject({ complaint: 'Seal weep, left', meter: { distance: { value: 611_250 } } });
  });
});

describe('what a hub was filled with', () => {
  it('is told the next job of that wheel end', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L']);
    const { t, flush } = mirrored(shop, jobId, ['2L']);
    t.workTo('2L');
    await flush();
    const release = { kind: 'wheel-end-released', position: '2L' } as const;
    await send(shop.supervisor.call, jobId, t.job.version, release).expect(200);
    const next = await openJobOn(shop, unitId, ['2L', '2R']);
    const before = async (of: string) =>
      ((await shop.technician.call.get(`/api/jobs/${of}`).expect(200)).body as JobDetail).lubricantBefore;
    const { name } = t.at('2L').sheet.lubricant;
    expect(await before(next)).toMatchObject([{ position: '2L', name }]);
    // What a job fills itself is no matter of before, and 2R was never filled.
    expect(await before(jobId)).toEqual([]);
  });
});

describe('a release struck out', () => {
  it('opens the wheel end again, but not while another job works on it', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['2L'], ['check']);
    const { t, flush } = mirrored(shop, jobId, ['2L'], ['check']);
    expect(t.skip('2L', 'Over the pit')).toBeNull();
    t.workTo('2L');
    await flush();
    const overrideReason = 'It stood over the pit and could not roll';
    const release = { kind: 'wheel-end-released', position: '2L', overrideReason } as const;
    const event = (await send(shop.supervisor.call, jobId, t.job.version, release).expect(200)).body as {
      id: string;
    };
    const strike = {
      kind: 'correction',
      corrects: event.id,
      reason: 'Wrong side',
      replacement: null,
    } as const;
    const next = await openJobOn(shop, unitId, ['2L']);
    const detail = (await shop.technician.call.get(`/api/jobs/${next}`).expect(200)).body;
    expect(detail.releasedBefore).toMatchObject([{ position: '2L', by: 'I. Okonedo', overrideReason }]);
    const held = await send(shop.supervisor.call, jobId, t.job.version + 1, strike).expect(422);
    expect(held.body.detail).toBe('2L is in another open job by now');
    await send(shop.supervisor.call, next, 1, { kind: 'job-voided', reason: 'Opened by mistake' }).expect(
      200,
    );
    await send(shop.technician.call, jobId, t.job.version + 1, strike).expect(422);
    await send(shop.supervisor.call, jobId, t.job.version + 1, strike).expect(200);
    const unit = await unitOf(unitId);
    expect(unit.followUps).toEqual([]);
    expect(unit.jobs.find((j: { id: string }) => j.id === jobId).closedAt).toBeNull();
    const third = {
      unitId,
      title: 'x',
      complaint: '',
      reportedBy: '',
      meter: {},
      wheelEnds: [{ position: '2L', works: ['seal'] }],
    };
    await shop.technician.call.post('/api/jobs').send(third).expect(422);
  });
});
