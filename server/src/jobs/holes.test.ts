import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { layerStates, progressOf, wheelEndAt, type Command, type Job } from '@lanternwright/core/traveller';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const REASON = 'It is wanted back on the road this evening';
const release: Command = { kind: 'wheel-end-released', position: '2L', overrideReason: REASON };
const now = (jobId: string) => fetchJob(shop.supervisor.call, jobId);
const todo = (job: Job) => progressOf(wheelEndAt(job, '2L')!).flatMap((p) => (p.record ? [] : [p.step.id]));

/** A job on 2L worked to a step, with a way to send one more command by the supervisor. */
async function workedTo(works: Parameters<typeof mirrored>[3], stepId?: string) {
  const jobId = await openJobOn(shop, await addUnit(shop), ['2L'], works);
  const { t, flush } = mirrored(shop, jobId, ['2L'], works);
  t.workTo('2L', stepId);
  await flush();
  const say = async (command: Command) =>
    send(shop.supervisor.call, jobId, (await now(jobId)).version, command);
  const recordOf = async (id: string) =>
    (await now(jobId)).events.findLast((e) => e.body.kind === 'step-recorded' && e.body.stepId === id)!;
  return { jobId, t, flush, say, recordOf };
}

describe('ways round a release, over HTTP', () => {
  it('a stack changed in the middle of the tear-down hides nothing that is off', async () => {
    const { jobId, t, say } = await workedTo(['seal'], 'judge-parts');
    const { sheet, plan } = t.at('2L');
    const kept = new Set(['wheel', 'nut', 'hub']);
    const stack = plan.stack.filter((l) => kept.has(l.layer));
    const lost = plan.stack.filter((l) => !kept.has(l.layer)).map((l) => ({ layer: l.layer, is: null }));
    const changed = { kind: 'sheet-changed', position: '2L', sheet, stack, reason: 'Seen so' } as const;
    const refused = await say(changed);
    expect(refused.body.detail).toMatch(/is off or open: say which layer of the new stack it is/);
    expect((await say({ ...changed, lost })).status).toBe(200);
    expect(layerStates(wheelEndAt(await now(jobId), '2L')!)).toMatchObject({
      wheel: 'off',
      nut: 'off',
      hub: 'off',
    });
    expect((await say(release)).status).toBe(422);
  });

  it('a technician strikes no take-off; one that a supervisor strikes leaves its nuts to be drawn tight', async () => {
    const { jobId, say, recordOf } = await workedTo(['wheel-off'], 'wheel-faces');
    for (const id of ['wheel-off', 'wheel-cracked']) {
      const { id: corrects } = await recordOf(id);
      const strike = { kind: 'correction', corrects, reason: 'Never was', replacement: null } as const;
      const { version } = await now(jobId);
      const refused = await send(shop.technician.call, jobId, version, strike).expect(422);
      expect(refused.body.detail).toMatch(/A supervisor strikes out what was taken off/);
      expect((await say(strike)).status).toBe(200);
    }
    expect(todo(await now(jobId))).toContain('wheel-nuts');
    expect((await say(release)).body.detail).toMatch(/2L cannot be released: .*Wheel nuts, full torque/);
  });

  it('a lock of the adjustment before, put right, does not lock the one at hand', async () => {
    const { jobId, t, flush, say, recordOf } = await workedTo(['adjust'], 'fill');
    t.do({ kind: 'adjust-reopened', position: '2L', from: 'start', round: 1 });
    t.workTo('2L', 'lock');
    await flush();
    const { id: corrects, body } = await recordOf('lock');
    if (body.kind !== 'step-recorded') throw new Error('no lock');
    const replacement = { ...body, data: { ...body.data, note: 'Both tangs' } } as typeof body;
    const right = { kind: 'correction', corrects, reason: 'A word was missing', replacement } as const;
    expect((await say(right)).status).toBe(200);
    expect(todo(await now(jobId))).toContain('lock');
    expect((await say(release)).body.detail).toMatch(/2L cannot be released: .*The lock is not recorded/);
  });

  it('cups that are struck out under a hub that is on take the hub off again', async () => {
    const { jobId, say, recordOf } = await workedTo(['bearings'], 'wheel-faces');
    const { id: corrects } = await recordOf('cup-home');
    expect(
      (await say({ kind: 'correction', corrects, reason: 'They were not home', replacement: null })).status,
    ).toBe(200);
    expect(todo(await now(jobId))).toEqual(expect.arrayContaining(['hub-off', 'cup-home', 'hub-on', 'lock']));
    expect((await say(release)).body.detail).toMatch(/2L cannot be released/);
  });
});
