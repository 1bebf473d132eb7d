import { afterAll, beforeAll, expect, it } from 'vitest';
import type { PlacedAxle } from '@lanternwright/core/axle-plan';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { compareProjections, rebuildProjections } from '../record/rebuild.ts';
import { addUnit, fetchJob, mirrored, openJobOn, openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

const unitOf = async (id: string) =>
  (await shop.technician.call.get(`/api/fleet/units/${id}`).expect(200)).body as UnitDetail;
const change = (
  id: string,
  seenVersion: number,
  axles: readonly (Omit<PlacedAxle, 'id'> & { id?: string | undefined })[],
) => shop.supervisor.call.put(`/api/fleet/units/${id}/axles`).send({ seenVersion, axles });

it('an axle that is taken out takes its history along; the others keep their numbers, a new one starts anew', async () => {
  const id = await addUnit(shop);
  const jobId = await openJobOn(shop, id, ['2L']);
  const { t, flush } = mirrored(shop, jobId, ['2L']);
  t.workTo('2L');
  await flush();
  const before = await unitOf(id);
  expect(before.readings.length).toBeGreaterThan(0);
  const [one, two, three] = before.axles as [PlacedAxle, PlacedAxle, PlacedAxle];

  await change(id, before.version, [one, three]).expect(200);
  const without = await unitOf(id);
  expect(without.axles.map((a) => [a.id, a.number])).toEqual([
    [one.id, 1],
    [three.id, 3],
  ]);
  expect(without.wheelEnds.map((w) => w.position)).toEqual(['1L', '1R', '3L', '3R']);
  expect(without.readings).toEqual([]);
  expect(without.takenOut).toMatchObject([{ axle: { id: two.id, number: 2 }, readings: before.readings }]);
  // The job that runs on it goes on: it has its axle as it was.
  expect((await fetchJob(shop.technician.call, jobId)).wheelEnds[0]).toMatchObject({ axleId: two.id });

  const like = { ...two, id: undefined };
  await change(id, without.version, [one, like, three]).expect(200);
  const anew = await unitOf(id);
  expect(anew.wheelEnds.find((w) => w.position === '2L')).toMatchObject({
    state: 'not-measured',
    endPlayMm: null,
  });
  expect(anew.axles[1]!.id).not.toBe(two.id);
  const history = async (position: string) =>
    (
      (await shop.technician.call.get(`/api/fleet/units/${id}/history?position=${position}`).expect(200))
        .body as unknown[]
    ).length;
  expect(await history('2L')).toBe(0);
  await openJobOn(shop, id, ['2L']);
  expect(await history('2L')).toBe(1);

  // The old one goes back under.
  await change(id, anew.version, [one, two, three]).expect(200);
  expect(await unitOf(id)).toMatchObject({ readings: before.readings, wheelEnds: before.wheelEnds });

  const now = await unitOf(id);
  expect((await compareProjections(shop.db)).differs).toBeNull();
  await rebuildProjections(shop.db);
  expect(await unitOf(id)).toEqual(now);
});

it('is changed by one at a time, who saw what they change; no axle gets another number', async () => {
  const id = await addUnit(shop);
  const { version, axles } = await unitOf(id);
  const [one, two, three] = axles as [PlacedAxle, PlacedAxle, PlacedAxle];
  const single = { ...three, wheels: 'single' } as const;
  const both = await Promise.all([
    change(id, version, [one, two, single]),
    change(id, version, [one, three]),
  ]);
  expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
  const next = (await unitOf(id)).version;
  const moved = await change(id, next, [one, { ...two, number: 3 }]).expect(422);
  expect(moved.body.detail).toMatch(/keeps its number/);
  expect((await change(id, next, [one, { ...one, id: undefined }]).expect(422)).body.detail).toMatch(
    /Two axles are number 1/,
  );
  expect((await unitOf(id)).version).toBe(next);
});
