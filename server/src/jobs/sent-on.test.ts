import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { StoredEvent } from '@lanternwright/core/traveller';
import { addUnit, confirmStep, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

it('a record stays who made it where a supervisor sends it on, with no more rights than at the bench', async () => {
  const jobId = await openJobOn(shop, await addUnit(shop), ['2L']);
  const { person: maker } = shop.technician;
  const { person: sender } = shop.supervisor;
  const command = confirmStep(await fetchJob(shop.technician.call, jobId), '2L');
  const sendAs = (
    by: 'supervisor' | 'technician',
    recordedBy: string,
    what: object = command,
    seenVersion = 1,
  ) =>
    shop[by].call
      .post(`/api/jobs/${jobId}/events`)
      .send({ id: randomUUID(), seenVersion, command: what, as: shop[by].person.id, recordedBy });
  await sendAs('technician', sender.id).expect(403);
  await sendAs('supervisor', randomUUID()).expect(403);
  const event = (await sendAs('supervisor', maker.id).expect(200)).body as StoredEvent;
  const by = {
    ...{ id: maker.id, name: maker.name, role: 'technician' },
    sentBy: { id: sender.id, name: sender.name },
  };
  expect(event.by).toEqual(by);
  // It is so on the record as well, and the record is proved with it.
  const entry = await shop.db.entry.findOne({ where: { id: event.id }, rejectOnEmpty: true });
  expect(entry.by).toEqual(by);
  // Their own needs no such word.
  const own = confirmStep(await fetchJob(shop.technician.call, jobId), '2L');
  expect((await sendAs('supervisor', sender.id, own, 2).expect(200)).body.by).toEqual({
    ...{ id: sender.id, name: sender.name, role: 'supervisor' },
  });
  const signature = { kind: 'wheel-end-released', position: '2L' };
  const signed = await sendAs('supervisor', maker.id, signature, 3).expect(422);
  expect(signed.body).toMatchObject({
    code: 'not-sent',
    detail: `${maker.name} signs that in person: it waits here until ${maker.name} is signed in`,
  });
});
