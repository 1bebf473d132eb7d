import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  addUnit,
  confirmStep,
  fetchJob,
  mirrored,
  openJobOn,
  openShop,
  send,
  type Shop,
} from '../testing/shop.ts';
import { verifyChain } from '../record/verify-chain.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

describe('what a device sends as nobody expected it', () => {
  const body = async (jobId: string) => ({
    id: randomUUID(),
    seenVersion: 1,
    command: confirmStep(await fetchJob(shop.technician.call, jobId), '2L'),
  });
  const post = (jobId: string, sent: object) =>
    shop.technician.call.post(`/api/jobs/${jobId}/events`).send(sent);

  it('an id in upper case is stored once, in lower case, and the chain holds', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const sent = await body(jobId);
    const upper = { ...sent, id: sent.id.toUpperCase() };
    const event = (await post(jobId.toUpperCase(), upper).expect(200)).body;
    expect(event.id).toBe(sent.id);
    expect((await post(jobId, sent).expect(200)).body.version).toBe(event.version);
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
  });

  it('a NUL or half a character in a note is refused with its field, and nothing is stored', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const sent = await body(jobId);
    for (const note of ['a\0b', 'a\ud800b']) {
      const command = { ...sent.command, data: { ...(sent.command as { data: object }).data, note } };
      const answer = await post(jobId, { ...sent, command }).expect(422);
      expect(answer.body.issues).toMatchObject([{ path: 'command.data.note' }]);
    }
    expect((await fetchJob(shop.technician.call, jobId)).version).toBe(1);
  });

  it('an id that a record of another job has is refused in words', async () => {
    const [one, other] = [
      await openJobOn(shop, await addUnit(shop)),
      await openJobOn(shop, await addUnit(shop)),
    ];
    const sent = await body(one);
    await post(one, sent).expect(200);
    const answer = await post(other, { ...(await body(other)), id: sent.id }).expect(422);
    expect(answer.body.detail).toMatch(/used for another record/);
  });
});

describe('a figure read off the maker’s sheet', () => {
  it('becomes the axle’s own with the release, and is not asked again', async () => {
    const unitId = await addUnit(shop);
    const flange = async () =>
      (await shop.technician.call.get(`/api/fleet/units/${unitId}`).expect(200)).body.axles[1].sheet
        .flangeTorque as unknown;
    const jobId = await openJobOn(shop, unitId, ['2L']);
    const { t, flush } = mirrored(shop, jobId, ['2L']);
    t.workTo('2L');
    await flush();
    // Nobody has signed it yet.
    expect(await flange()).toBeNull();
    const { version } = await fetchJob(shop.technician.call, jobId);
    const release = { kind: 'wheel-end-released', position: '2L' } as const;
    await send(shop.supervisor.call, jobId, version, release).expect(200);
    const kept = await flange();
    expect(kept).toMatchObject({
      min: { value: 60, unit: 'lbf-ft' },
      mark: 'shop',
      source: 'Maker’s figure, read by D. Achterberg',
    });
    const next = await openJobOn(shop, unitId, ['2R']);
    const { sheet } = (await fetchJob(shop.technician.call, next)).wheelEnds[0]!;
    expect(sheet.flangeTorque).toEqual(kept);
  });
});
