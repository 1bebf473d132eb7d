import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { nextStep, type FirstHour } from '@lanternwright/contract/shop';
import { metricReader } from '@lanternwright/core/quantity';
import { loadDemo } from '../demo/load.ts';
import { addUnit, openShop, type Shop } from '../testing/shop.ts';

const mine = {
  code: '4711-0815',
  shop: 'Our own works',
  name: 'A. Founder',
  login: 'founder',
  password: 'long enough it is',
};

describe('beginning with one’s own shop', () => {
  let shop: Shop;
  /** Whichever of the two came first. */
  let founder = '';
  beforeAll(async () => {
    shop = await openShop({ DEMO: 'yes', SIGN_IN_TRIES: '100' });
    await shop.db.setting.create({ name: 'demo', value: true });
    await addUnit(shop);
    await shop.live.start();
  });
  afterAll(() => shop.close());

  it('takes the code, sets the demo aside whole, and cannot be done twice, nor by two at once', async () => {
    const begin = (body: object) => supertest(shop.app).post('/api/shop/begin').send(body);
    await begin({ ...mine, code: '0000-0000' }).expect(403);
    await begin({ ...mine, password: 'password1234' }).expect(422);
    expect(await shop.db.unit.count()).toBe(1);

    const stream = shop.supervisor.call.get('/api/live').buffer(true);
    const ended = new Promise<void>((resolve) => stream.end(() => resolve()));
    await expect.poll(() => shop.streams.count()).toBe(1);
    const both = await Promise.all([begin(mine), begin({ ...mine, login: 'other' })]);
    founder = both[0].status === 200 ? mine.login : 'other';
    expect(both.map((b) => b.status).sort()).toEqual([200, 403]);
    // Who still looked at the demo looks at nothing.
    await ended;
    expect(await shop.db.unit.count()).toBe(0);
    expect(await shop.db.person.count()).toBe(1);

    // What was there is there, under a name of its own.
    const [schemas] = await shop.db.sequelize.query(
      `select nspname as name from pg_namespace where nspname like 'demo_%'`,
    );
    const [{ name = '' } = {}] = schemas as { name?: string }[];
    expect(await shop.db.sequelize.query(`select id from ${name}.unit`)).toMatchObject([[{}], {}]);
    expect(await shop.db.sequelize.query(`select id from ${name}.entry`)).not.toMatchObject([[], {}]);
  });

  it('lets nobody of the demo in any more, also not after a start as a demo', async () => {
    await shop.supervisor.call.get('/api/fleet/units').expect(401);
    const session = await shop.anyone().get('/api/people/session').expect(200);
    expect(session.body).toMatchObject({
      demoPeople: [],
      needsFirstPerson: false,
      shop: { name: mine.shop },
    });
    expect(await loadDemo(shop)).toBe(false);
    await shop
      .anyone()
      .post('/api/people/session/demo')
      .send({ personId: shop.supervisor.person.id })
      .expect(403);
  });

  it('is a whole shop from then on', async () => {
    const call = shop.anyone();
    const { password } = mine;
    await call.post('/api/people/session').send({ login: founder, password }).expect(200);
    const there = async () => (await call.get('/api/shop/first-hour').expect(200)).body as FirstHour;
    // Beginning gave it a name; all else is to be set up, in order.
    expect(await there()).toEqual({ settings: 0, people: 1, bays: 0, tools: 0, units: 0, jobs: 0 });
    expect(nextStep(await there())).toBe('settings');
    expect(await addUnit({ ...shop, technician: { ...shop.technician, call } })).toMatch(/^[0-9a-f-]{36}$/);
    expect((await call.get('/api/fleet/units').expect(200)).body.units).toHaveLength(1);
    expect(await there()).toMatchObject({ people: 1, units: 1, jobs: 0 });
  });
});

describe('what is set for the shop', () => {
  it('is a supervisor’s to change, is checked, and is the clock and the paper of everybody', async () => {
    const shop = await openShop();
    const put = (more: object, call = shop.supervisor.call) =>
      call.put('/api/shop/settings').send({ ...shop.settings.current(), ...more });
    await put({}, shop.technician.call).expect(403);
    expect((await put({ zone: 'Mars/Olympus' }).expect(422)).body.issues[0]).toMatchObject({ path: 'zone' });
    await put({ currency: 'XXX' }).expect(422);
    await put({ name: 'Marrowbank', zone: 'Pacific/Kiritimati', paper: 'letter' }).expect(200);
    expect(shop.clock.say('2026-11-26T12:00:00Z')).toBe('27 Nov 2026, 02:00');
    const { body } = await shop.anyone().get('/api/people/session').expect(200);
    expect(body.shop).toMatchObject({ name: 'Marrowbank', zone: 'Pacific/Kiritimati', paper: 'letter' });
    // Read again as a new server reads it.
    await shop.settings.load();
    expect(shop.settings.current().name).toBe('Marrowbank');
    // What an earlier program kept said a unit of end play and no more.
    const older = { ...shop.settings.current(), units: undefined, endPlayUnit: 'mm' };
    await shop.db.setting.update({ value: older }, { where: { name: 'shop' } });
    await shop.settings.load();
    expect(shop.settings.current()).toMatchObject({ name: 'Marrowbank', units: metricReader });
    await shop.close();
  });
});

describe('who calls from where', () => {
  let shop: Shop;
  beforeAll(async () => {
    shop = await openShop({
      SHOP_ADDRESS: 'https://wheel-ends.example',
      TRUST_PROXY: '1',
      METRICS_TOKEN: 'a token for the collector',
      SIGN_IN_TRIES: '3',
    });
  });
  afterAll(() => shop.close());
  const health = () => supertest(shop.app).get('/api/people/session');

  it('is answered by the shop’s own addresses only', async () => {
    await health().set('Host', 'wheel-ends.example').expect(200);
    await health().set('Host', 'localhost:8080').expect(200);
    await health().set('Host', 'elsewhere.example').expect(421);
    await health().set('Host', '192.0.2.7').expect(421);
    const { headers } = await health().set('Host', 'wheel-ends.example').expect(200);
    expect(headers).toMatchObject({
      'strict-transport-security': 'max-age=31536000; includeSubDomains',
      'cache-control': 'no-store',
    });
    await health().set('Host', 'wheel-ends.example.evil.example').expect(421);
  });

  it('gets a cookie for https alone, and is counted by the address the proxy names', async () => {
    const signIn = (from: string, password: string) =>
      supertest(shop.app)
        .post('/api/people/session')
        .set('X-Forwarded-For', from)
        .set('X-Forwarded-Proto', 'https')
        .send({ login: 'okonedo', password });
    const { headers } = await signIn('198.51.100.1', 'correct horse battery').expect(200);
    const cookies = headers['set-cookie'] as unknown as string[];
    expect(cookies).toHaveLength(2);
    for (const cookie of cookies) expect(cookie).toMatch(/; Secure/);
    for (let i = 0; i < 3; i++) await signIn('198.51.100.2', 'guess').expect(401);
    await signIn('198.51.100.2', 'guess').expect(429);
    await signIn('198.51.100.3', 'correct horse battery').expect(200);
  });

  it('sees metrics with the token or from this machine; says whether it can work', async () => {
    const metrics = () => supertest(shop.app).get('/api/metrics').set('X-Forwarded-For', '198.51.100.9');
    await metrics().expect(403);
    const { text } = await metrics().set('Authorization', 'Bearer a token for the collector').expect(200);
    expect(text).toMatch(/^http_request_seconds_count\{.*route="\/api\/people\/session".*\} \d+$/m);
    // What a figure cannot tell is no number, which is an alarm as well: this shop has no queue.
    expect(text).toMatch(/^queue_given_up Nan$/m);
    expect(text).toMatch(/^seal_age_seconds Nan$/m);
    expect(text).not.toMatch(/^backup_age_seconds/m);
    await supertest(shop.app).get('/api/metrics').expect(200);
    expect((await supertest(shop.app).get('/api/ready').expect(503)).body).toEqual({
      ok: false,
      database: true,
      writes: true,
      live: false,
    });
    await shop.live.start();
    await supertest(shop.app).get('/api/ready').expect(200);
  });
});
