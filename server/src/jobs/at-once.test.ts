import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StoredEvent } from '@lanternwright/core/traveller';
import {
  addUnit,
  asSuperuser,
  axlesOf,
  confirmStep,
  fetchJob,
  mirrored,
  openJobOn,
  openShop,
  send,
  type Shop,
} from '../testing/shop.ts';
import { verifyChain } from '../record/verify-chain.ts';

const open = (shop: Shop, unitId: string, positions: string[]) =>
  shop.technician.call.post('/api/jobs').send({
    unitId,
    title: 'Seals',
    complaint: 'Weep',
    reportedBy: 'driver',
    meter: {},
    wheelEnds: positions.map((position) => ({ position, works: ['seal'] })),
  });

describe('several at once', () => {
  let shop: Shop;
  beforeAll(async () => {
    shop = await openShop();
  });
  afterAll(() => shop.close());

  it('a wheel end is in one open job: a release struck out while another job opens, many times', async () => {
    for (let i = 0; i < 5; i++) {
      const unitId = await addUnit(shop);
      const jobId = await openJobOn(shop, unitId, ['2L'], ['check']);
      const { t, flush } = mirrored(shop, jobId, ['2L'], ['check']);
      t.workTo('2L');
      await flush();
      const { version } = await fetchJob(shop.supervisor.call, jobId);
      const command = { kind: 'wheel-end-released' as const, position: '2L' };
      const release = (await send(shop.supervisor.call, jobId, version, command).expect(200))
        .body as StoredEvent;
      const strike = {
        kind: 'correction' as const,
        corrects: release.id,
        reason: 'wrong',
        replacement: null,
      };
      const both = await Promise.all([
        send(shop.supervisor.call, jobId, version + 1, strike),
        open(shop, unitId, ['2L']),
      ]);
      expect(both.map((b) => b.status).sort()).toEqual([200, 422]);
      const holding = (await shop.db.job.findAll({ where: { unitId, closedAt: null } })).filter((j) =>
        j.wheelEnds.some((w) => w.position === '2L' && !w.released),
      );
      expect(holding).toHaveLength(1);
    }
  }, 60_000);

  it('records, jobs, axles, units and owners all at once: none is answered with a fault', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId, ['1L', '1R']);
    const record = async (position: string) => {
      const job = await fetchJob(shop.technician.call, jobId);
      return (await send(shop.technician.call, jobId, job.version, confirmStep(job, position))).status;
    };
    const change = () =>
      shop.supervisor.call.put(`/api/fleet/units/${unitId}/axles`).send({ axles: axlesOf('tractor-3') });
    const add = (owner: string, n: number) =>
      shop.supervisor.call
        .post('/api/fleet/units')
        .send({ owner, name: `New ${n}`, kind: 'tractor', axles: axlesOf('tractor-2') });
    const statuses: number[] = [];
    for (let round = 0; round < 6; round++) {
      const all = await Promise.all([
        record('1L'),
        record('1R'),
        open(shop, unitId, [`${2 + (round % 2)}L`]).then((r) => r.status),
        open(shop, unitId, [`${2 + (round % 2)}L`]).then((r) => r.status),
        change().then((r) => r.status),
        change().then((r) => r.status),
        add(`Owner ${round}`, 1).then((r) => r.status),
        add(`owner ${round}`, 2).then((r) => r.status),
        add(`Owner ${round}`, 2).then((r) => r.status),
      ]);
      statuses.push(...all);
    }
    expect(statuses.filter((s) => s >= 500)).toEqual([]);
    expect(await shop.db.owner.count()).toBe(7);
    expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
  }, 60_000);

  it('an id that was used on another job is refused, also at the same moment', async () => {
    const jobs = [await openJobOn(shop, await addUnit(shop)), await openJobOn(shop, await addUnit(shop))];
    const id = randomUUID();
    const both = await Promise.all(
      jobs.map(async (jobId) => {
        const job = await fetchJob(shop.technician.call, jobId);
        return send(shop.technician.call, jobId, 1, confirmStep(job, '2L'), id);
      }),
    );
    expect(both.map((b) => b.status).sort()).toEqual([200, 422]);
  });

  it('photos that no record names are bounded; a tiny one is refused in words', async () => {
    const jobId = await openJobOn(shop, await addUnit(shop));
    const post = (bytes: number) =>
      shop.technician.call.post(`/api/jobs/${jobId}/photos`).send({
        jpeg: Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(bytes)]).toString('base64'),
      });
    expect((await post(80).expect(422)).body.detail).toMatch(/empty/);
    for (let i = 0; i < 100; i++) await post(200).expect(200);
    expect((await post(200).expect(422)).body.detail).toMatch(/wait for their record/);
    // What waits for two weeks was forgotten by whoever sent it.
    const later = new Date(Date.now() - 15 * 24 * 3_600_000).toISOString();
    await asSuperuser(
      shop.databaseName,
      `alter table photo disable trigger photo_append_only; update photo set at = '${later}';
       alter table photo enable trigger photo_append_only`,
    );
    await post(200).expect(200);
    expect(await shop.db.photo.count({ where: { jobId } })).toBe(1);
  });
});

it('needs no second connection inside a transaction: a server with one of them does everything', async () => {
  const shop = await openShop({ DATABASE_POOL: '1' });
  const unitId = await addUnit(shop);
  const jobId = await openJobOn(shop, unitId, ['2L', '2R']);
  const job = await fetchJob(shop.technician.call, jobId);
  // Ten recordings at once, nine of them stale: each is answered with the fresh job.
  const many = await Promise.all(
    Array.from({ length: 10 }, () => send(shop.technician.call, jobId, 1, confirmStep(job, '2L'))),
  );
  expect(many.filter((m) => m.status === 200)).toHaveLength(1);
  expect(many.filter((m) => m.status === 409 || m.status === 422)).toHaveLength(9);
  await shop.supervisor.call.get('/api/fleet/units').expect(200);
  const { owner } = (await shop.supervisor.call.get(`/api/fleet/units/${unitId}`)).body as {
    owner: { id: string };
  };
  const contact = await shop.signedIn({
    name: 'E. Tern',
    login: 'tern',
    role: 'owner-contact',
    password: 'correct horse battery',
    owners: [owner.id],
  });
  await Promise.all(
    ['/api/fleet/units', '/api/jobs', `/api/jobs/${jobId}`, '/api/exchange/fleet.csv'].map((path) =>
      contact.call.get(path).expect(200),
    ),
  );
  await shop.close();
}, 60_000);
