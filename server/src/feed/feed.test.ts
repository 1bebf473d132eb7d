import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { FeedStand } from '@lanternwright/contract/feed';
import { addDays } from '@lanternwright/core/interval';
import { compareProjections } from '../record/rebuild.ts';
import { openShop, axlesOf, type Shop } from '../testing/shop.ts';
import { feedService } from './service.ts';
import { startTelematics } from './simulator.ts';

const SECRET = 'known to both of them';
let shop: Shop;
let telematics: Awaited<ReturnType<typeof startTelematics>>;
let nth = 0;
let plate = '';
let unit = '';
let url = '';

beforeAll(async () => {
  shop = await openShop({ FEED_SECRET: SECRET });
});
afterAll(() => shop.close());
beforeEach(async () => {
  plate = `MB ${(nth += 1)}00`;
  const body = {
    owner: 'Tern & Hollow Haulage',
    name: `Tern ${nth}`,
    kind: 'tractor',
    plate,
    axles: axlesOf('tractor-2'),
  };
  unit = (await shop.technician.call.post('/api/fleet/units').send(body).expect(200)).body.id;
  await shop.db.sequelize.query('delete from feed');
  telematics = await startTelematics(0, [{ vehicle: plate, km: 100_000, hours: 1_000, kmADay: 500 }], SECRET);
  url = `http://127.0.0.1:${telematics.port}`;
});
afterEach(() => telematics.stop());

const ask = (at = url, secret: string | null = SECRET): Promise<FeedStand> =>
  feedService(shop.db, shop.bring, { url: at, secret }, shop.clock).ask();
const today = new Date().toISOString().slice(0, 10);
const noon = (daysAgo: number) => new Date(`${addDays(today, -daysAgo)}T12:00:00Z`);
async function readings() {
  const { body } = await shop.technician.call.get(`/api/fleet/units/${unit}/meters`).expect(200);
  return (body as { rows: { date: string; km: number; totalKm: number | null; source: string }[] }).rows;
}
const kms = async () => (await readings()).map((r) => r.totalKm);

describe('the units’ own feed', () => {
  it('is asked from where it was left, in one record for all units, and one reading of a day is enough', async () => {
    telematics.drive(1, noon(3));
    telematics.drive(1, noon(2));
    telematics.drive(0.05, noon(2));
    const entries = await shop.db.entry.count();
    expect(await ask()).toMatchObject({ kept: 2, known: 1, trouble: null, strangers: [] });
    expect(await shop.db.entry.count()).toBe(entries + 1);
    expect(await kms()).toEqual([101_000, 100_500]);
    expect((await readings())[0]).toMatchObject({ source: 'feed', date: addDays(today, -2) });
    // Nothing new: nothing is recorded.
    expect(await ask()).toMatchObject({ kept: 2, known: 1 });
    expect(await shop.db.entry.count()).toBe(entries + 1);
    telematics.drive(1, noon(1));
    expect(await ask()).toMatchObject({ kept: 3 });
  });

  it('may go out, be slow to come back or answer nonsense: it is said, and taken up where it was left', async () => {
    telematics.drive(1, noon(3));
    await ask();
    telematics.breaks('outage');
    telematics.drive(1, noon(2));
    expect(await ask()).toMatchObject({ kept: 1, trouble: 'It answers with 503' });
    telematics.breaks(null);
    expect(await ask()).toMatchObject({ kept: 2, trouble: null });
    expect((await ask('http://127.0.0.1:1')).trouble).toBe('Nobody answers there');
    expect((await ask(url, 'not what was agreed')).trouble).toBe('It answers with 401');
    expect((await ask(`${url}/elsewhere`)).trouble).toBe('It answers with 404');
  });

  it('repeats itself, tells late and out of order: what comes to be is the same', async () => {
    let ago = 20;
    for (const fault of ['repeat', 'late', 'out-of-order'] as const) {
      telematics.breaks(fault);
      telematics.drive(1, noon(ago--));
      telematics.drive(1, noon(ago--));
      await ask();
    }
    const totals = await kms();
    expect(totals).toEqual([...totals].sort((a, b) => b! - a!));
    expect(totals).toHaveLength(6);
    expect((await compareProjections(shop.db)).differs).toBeNull();
  });

  it('tells of an odometer that was set back: it is kept, not believed, and asked about until it is said what happened', async () => {
    for (const ago of [6, 5, 4]) telematics.drive(1, noon(ago));
    telematics.breaks('reset', plate);
    telematics.drive(1, noon(3));
    await ask();
    expect(await kms()).toEqual([null, 101_500, 101_000, 100_500]);
    const { body } = await shop.supervisor.call.get('/api/plan/floor').expect(200);
    expect(body.doubted).toEqual([
      expect.objectContaining({ km: 512, unit: expect.objectContaining({ id: unit }) }),
    ]);
    await shop.technician.call
      .post(`/api/fleet/units/${unit}/meters/swaps`)
      .send({ date: addDays(today, -4), of: 'distance', why: 'set-back', last: 101_500, first: 12 })
      .expect(200);
    telematics.drive(1, noon(2));
    await ask();
    expect(await kms()).toEqual([102_500, 102_000, 101_500, 101_000, 100_500]);
  });

  it('sends garbage, and readings of days to come: they are left out, and nothing else', async () => {
    telematics.breaks('garbage');
    telematics.drive(1, noon(3));
    telematics.breaks('ahead');
    telematics.drive(1, noon(2));
    telematics.breaks(null);
    telematics.drive(1, noon(1));
    expect(await ask()).toMatchObject({ kept: 1, trouble: null });
    expect(await kms()).toEqual([101_500]);
  });

  it('names vehicles that are no unit here', async () => {
    await telematics.stop();
    telematics = await startTelematics(0, [{ vehicle: 'NOBODY 1', km: 5, hours: 1, kmADay: 500 }], SECRET);
    url = `http://127.0.0.1:${telematics.port}`;
    for (const ago of [3, 2]) telematics.drive(1, noon(ago));
    expect(await ask()).toMatchObject({ kept: 0, strangers: [{ vehicle: 'NOBODY 1', times: 2 }] });
  });

  it('asked by two servers at once is taken once', async () => {
    for (const ago of [4, 3, 2]) telematics.drive(1, noon(ago));
    await Promise.all([ask(), ask(), ask()]);
    expect(await kms()).toHaveLength(3);
    expect((await ask()).kept).toBe(3);
  });
});

describe('what a feed pushes', () => {
  const push = (readings: unknown[], token?: string) => {
    const call = shop.anyone().post('/api/feed/push');
    return (token === undefined ? call : call.set('authorization', `Bearer ${token}`)).send({ readings });
  };
  const reading = (km: number) => ({
    id: `p-${km}`,
    vehicle: plate,
    at: noon(1).toISOString(),
    odometerKm: km,
  });

  it('is taken with the secret alone', async () => {
    await push([reading(7)]).expect(401);
    await push([reading(7)], 'guessed, and long enough').expect(401);
    expect((await push([reading(7), { vehicle: plate }], SECRET).expect(200)).body).toEqual({
      ...{ kept: 1, known: 0, refused: 1 },
    });
    expect(await kms()).toEqual([7]);
    const alone = await openShop();
    await alone
      .anyone()
      .post('/api/feed/push')
      .set('authorization', `Bearer ${SECRET}`)
      .send({ readings: [1] })
      .expect(401);
    await alone.close();
  }, 30_000);

  it('and stands on the page of whoever looks after the fleet, nobody else’s', async () => {
    await push([reading(8)], SECRET).expect(200);
    expect((await shop.supervisor.call.get('/api/feed').expect(200)).body).toMatchObject({
      url: null,
      pushes: true,
      kept: 1,
    });
    await shop.technician.call.get('/api/feed').expect(403);
    await shop.technician.call.post('/api/feed/ask').expect(403);
  });
});
