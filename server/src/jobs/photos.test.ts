import { createHash } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addUnit, asSuperuser, fetchJob, openJobOn, openShop, send, type Shop } from '../testing/shop.ts';

let shop: Shop;
let jobId: string;
let otherId: string;
beforeAll(async () => {
  shop = await openShop();
  jobId = await openJobOn(shop, await addUnit(shop, 'Tern 660'));
  otherId = await openJobOn(shop, await addUnit(shop, 'Tern 661'));
});
afterAll(() => shop.close());

/** Begins as a JPEG does; nobody decodes it here. */
const picture = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(400, 7)]);
const upload = (jpeg: string, job = jobId) =>
  shop.technician.call.post(`/api/jobs/${job}/photos`).send({ jpeg });

it('keeps a photo, puts it into the record by its hash, and gives the same bytes back', async () => {
  const { body } = await upload(picture.toString('base64')).expect(200);
  expect(body.sha256).toBe(createHash('sha256').update(picture).digest('hex'));
  const added = {
    kind: 'photo-added',
    position: '2L',
    stage: 'inspect',
    photoId: body.id,
    caption: 'Cage',
  } as const;
  const call = shop.technician.call;
  await send(call, jobId, 9, { ...added, sha256: '0'.repeat(64) }).expect(422);
  await send(call, otherId, 9, { ...added, sha256: body.sha256 }).expect(422);
  await send(call, jobId, 9, { ...added, sha256: body.sha256 }).expect(200);
  const job = await fetchJob(call, jobId);
  expect(job.wheelEnds[0]!.photos).toMatchObject([{ photoId: body.id, caption: 'Cage', stage: 'inspect' }]);
  const back = await call.get(`/api/jobs/photos/${body.id}`).expect(200).expect('content-type', 'image/jpeg');
  expect(Buffer.compare(back.body as Buffer, picture)).toBe(0);
  // Sent once, and shown again only to whom we are asked for and let see it.
  expect(back.headers['cache-control']).toBe('private, no-cache');
  const photo = `/api/jobs/photos/${body.id}`;
  await call.get(photo).set('If-None-Match', back.headers['etag']!).expect(304);
  await shop.anyone().get(photo).set('If-None-Match', back.headers['etag']!).expect(401);
});

it('takes no other file, and nothing for a job that is not there', async () => {
  const wrong = await upload(Buffer.from('GIF89a, and more').toString('base64')).expect(422);
  expect(wrong.body.issues).toMatchObject([{ path: 'jpeg' }]);
  await upload(picture.toString('base64'), crypto.randomUUID()).expect(404);
  await expect(asSuperuser(shop.databaseName, `delete from photo`)).rejects.toThrow(/never changed/);
});
