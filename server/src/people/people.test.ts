import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openShop, type Shop } from '../testing/shop.ts';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop({ SIGN_IN_TRIES: '4' });
});
afterAll(() => shop.close());

describe('sign in', () => {
  it('keeps passwords as Argon2id and nothing else', async () => {
    const row = await shop.db.person.findOne({ where: { login: 'okonedo' } });
    expect(row?.passwordHash).toMatch(/^\$argon2id\$/);
  });

  it('keeps the session in PostgreSQL until it is ended', async () => {
    const call = shop.anyone();
    expect((await call.get('/api/people/session').expect(200)).body.person).toBeNull();
    await call
      .post('/api/people/session')
      .send({ login: 'okonedo', password: 'correct horse battery' })
      .expect(200);
    expect((await call.get('/api/people/session').expect(200)).body.person).toMatchObject({
      name: 'I. Okonedo',
      role: 'supervisor',
    });
    expect(
      Number(
        (await shop.db.sequelize.query('select count(*) from session'))[0].map(
          (r) => (r as { count: string }).count,
        )[0],
      ),
    ).toBeGreaterThan(0);
    await call.delete('/api/people/session').expect(200);
    expect((await call.get('/api/people/session').expect(200)).body.person).toBeNull();
  });

  it('says the same for a wrong password and an unknown name, and stops after a few tries', async () => {
    const call = shop.anyone();
    const wrong = await call
      .post('/api/people/session')
      .send({ login: 'okonedo', password: 'guess' })
      .expect(401);
    const unknown = await call
      .post('/api/people/session')
      .send({ login: 'nobody', password: 'guess' })
      .expect(401);
    expect(wrong.body.detail).toBe(unknown.body.detail);
    for (let i = 0; i < 2; i++)
      await call.post('/api/people/session').send({ login: 'okonedo', password: 'guess' });
    expect(
      (await call.post('/api/people/session').send({ login: 'okonedo', password: 'guess' }).expect(429)).body
        .detail,
    ).toMatch(/Wait five minutes/);
  });

  it('lets nobody in without a password unless the shop is a demo', async () => {
    const personId = shop.supervisor.person.id;
    await shop.anyone().post('/api/people/session/demo').send({ personId }).expect(403);
    // Demo data alone let nobody in, and in a demo only its made-up people.
    await shop.db.setting.create({ name: 'demo', value: true });
    await shop.anyone().post('/api/people/session/demo').send({ personId }).expect(403);
    await shop.db.setting.destroy({ where: {} });
    const demo = await openShop({ DEMO: 'yes' });
    await demo.db.setting.create({ name: 'demo', value: true });
    const madeUp = await demo.people.add(
      { name: 'M. Pellow', login: 'pellow', role: 'technician', password: 'long enough it is' },
      { made: 'up' },
    );
    const call = demo.anyone();
    expect((await call.get('/api/people/session')).body.demoPeople).toMatchObject([{ id: madeUp.id }]);
    await call.post('/api/people/session/demo').send({ personId: demo.supervisor.person.id }).expect(404);
    await call.post('/api/people/session/demo').send({ personId: madeUp.id }).expect(200);
    await demo.close();
  });
});

describe('people', () => {
  it('are added by a supervisor only, each name once', async () => {
    const body = { name: 'M. Pellow', login: 'pellow', role: 'technician', password: 'long enough it is' };
    await shop.technician.call.post('/api/people').send(body).expect(403);
    await shop.supervisor.call.post('/api/people').send(body).expect(200);
    const again = await shop.supervisor.call.post('/api/people').send(body).expect(422);
    expect(again.body.issues).toEqual([{ path: 'login', message: 'The name pellow is taken' }]);
    await shop.supervisor.call
      .post('/api/people')
      .send({ ...body, login: 'x y', password: 'short' })
      .expect(422);
  });

  it('the first one needs an empty shop', async () => {
    const empty = await openShop();
    const thief = { name: 'Thief', login: 'thief', password: 'long enough it is', code: '4711-0815' };
    await empty.anyone().post('/api/people/first').send(thief).expect(403);
    await empty.db.person.destroy({ where: {} });
    const call = supertest.agent(empty.app);
    expect((await call.get('/api/people/session')).body.needsFirstPerson).toBe(true);
    await call
      .post('/api/people/first')
      .send({ ...thief, code: '0000-0000' })
      .expect(403);
    // Eight at once: one is the first.
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        supertest(empty.app)
          .post('/api/people/first')
          .send({
            name: `Founder ${i}`,
            login: `founder${i}`,
            password: 'long enough it is',
            code: '4711 0815',
          }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 403, 403, 403, 403, 403, 403, 403]);
    expect(answers.find((a) => a.status === 200)!.body.role).toBe('supervisor');
    expect(await empty.db.person.count()).toBe(1);
    await empty.close();
  });
});

describe('the door', () => {
  it('turns away other sites, big bodies, broken JSON and unknown addresses', async () => {
    const call = shop.supervisor.call;
    await call.post('/api/people').set('Origin', 'http://elsewhere.example').send({}).expect(403);
    await call.post('/api/people').set('Content-Type', 'application/json').send('{"name":').expect(400);
    await call
      .post('/api/exchange/fleet/preview')
      .send({ csv: 'x'.repeat(4_000_000) })
      .expect(413);
    const lost = await call.get('/api/nowhere').expect(404);
    expect(lost.body).toMatchObject({ type: 'about:blank', status: 404, title: 'Not found' });
  });

  it('is healthy, sends a strict content policy and describes itself', async () => {
    const health = await shop.anyone().get('/api/health').expect(200);
    expect(health.body.ok).toBe(true);
    expect(health.headers['content-security-policy']).toMatch(/default-src 'self'/);
    expect(health.headers['x-powered-by']).toBeUndefined();
    const api = (await shop.anyone().get('/api/openapi.json').expect(200)).body;
    expect(api.openapi).toBe('3.1.0');
    expect(Object.keys(api.paths)).toContain('/api/jobs/{id}/events');
    expect(JSON.stringify(api.paths['/api/jobs/{id}/events'])).toMatch(/reading-taken/);
  });
});
