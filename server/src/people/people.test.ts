import { randomUUID } from 'node:crypto';
import type { SignInCode } from '@lanternwright/contract/people';
import { metricReader, quantity, usualReader } from '@lanternwright/core/quantity';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../app.ts';
import { readConfig } from '../config.ts';
import { isSecret, keepSecret } from './secrets.ts';
import { addUnit, mirrored, openJobOn, openShop, send, type Caller, type Shop } from '../testing/shop.ts';

const GOOD = 'long enough it is';

let shop: Shop;
beforeAll(async () => {
  shop = await openShop({ SIGN_IN_TRIES: '1000' });
});
afterAll(() => shop.close());

describe('sign in', () => {
  it('keeps passwords as Argon2id and nothing else', async () => {
    const row = await shop.db.person.findOne({ where: { login: 'okonedo' } });
    expect(row?.passwordHash).toMatch(/^\$argon2id\$/);
  });

  it('knows a secret that another program kept', async () => {
    // Of the tests of Argon2's reference implementation (src/test.c): salt “somesalt”, 64 MiB, 2 passes, 1 lane.
    const kept = '$argon2id$v=19$m=65536,t=2,p=1$c29tZXNhbHQ$CTFhFdXPJO1aFaMaO6Mm5c8y7cJHAph8ArZWb2GRPPc';
    expect(await isSecret('password', kept)).toBe(true);
    expect(await isSecret('Password', kept)).toBe(false);
    expect(await isSecret('password', null)).toBe(false);
    expect(await keepSecret('password')).toMatch(/^\$argon2id\$v=19\$m=65536,t=3,p=4\$/);
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
    // Neither the session nor what it was shown stays on a shared tablet.
    await call.delete('/api/people/session').expect(200).expect('Clear-Site-Data', '"cache"');
    expect((await call.get('/api/people/session').expect(200)).body.person).toBeNull();
  });

  it('says the same for a wrong password and an unknown name, and stops after a few tries on any server', async () => {
    const few = await openShop({ SIGN_IN_TRIES: '4' });
    const call = few.anyone();
    const wrong = await call
      .post('/api/people/session')
      .send({ login: 'okonedo', password: 'guess' })
      .expect(401);
    const unknown = await call
      .post('/api/people/session')
      .send({ login: 'nobody', password: 'guess' })
      .expect(401);
    expect(wrong.body.detail).toBe(unknown.body.detail);
    // Ten at once are counted before any of them is looked at.
    const guess = (from = few.anyone()) =>
      from.post('/api/people/session').send({ login: 'okonedo', password: 'guess' });
    const many = await Promise.all(Array.from({ length: 10 }, () => guess()));
    expect(many.filter((m) => m.status === 401).length).toBeLessThanOrEqual(2);
    expect((await guess().expect(429)).body.detail).toMatch(/Wait five minutes/);
    // Another server of the same shop knows.
    const other = createApp(
      readConfig({
        DATABASE_URL: few.databaseUrl,
        SESSION_SECRET: 'x'.repeat(20),
        SIGN_IN_TRIES: '4',
        LOG_LEVEL: 'silent',
      }),
    );
    await guess(supertest.agent(other.app)).expect(429);
    await other.close();
    await few.close();
  });

  it('what strangers try locks nobody out of a device on which they signed in before', async () => {
    const few = await openShop({ SIGN_IN_TRIES: '2' });
    const signIn = (from: Caller, login = 'okonedo', password = 'correct horse battery') =>
      from.post('/api/people/session').send({ login, password });
    const tablet = few.anyone();
    const cookie = (await signIn(tablet).expect(200)).headers['set-cookie'] as unknown as string[];
    expect(cookie.find((c) => c.startsWith('lanternwright_device='))).toMatch(/HttpOnly; SameSite=Strict/);
    expect(cookie.join()).not.toMatch(/okonedo/i);
    await tablet.delete('/api/people/session').expect(200);
    for (let i = 0; i < 3; i++) await signIn(few.anyone(), 'okonedo', 'a guess');
    await signIn(few.anyone()).expect(429);
    await signIn(tablet).expect(200);
    // For anybody else it is a device as any other, and a wrong word on it counts as well.
    await signIn(tablet, 'achterberg').expect(429);
    for (let i = 0; i < 2; i++) await signIn(tablet, 'okonedo', 'a guess').expect(401);
    await signIn(tablet).expect(429);
    // A cookie that somebody made up is none.
    const forged = few.anyone();
    const made = encodeURIComponent(`s:j:{"device":"${randomUUID()}","people":["0"]}.c2lnbmVk`);
    await signIn(forged).set('Cookie', `lanternwright_device=${made}`).expect(429);
    await few.close();
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
    const madeUp = await demo.people.addWithPassword(
      { name: 'M. Pellow', login: 'pellow', role: 'technician', password: 'long enough it is' },
      'up',
    );
    const call = demo.anyone();
    expect((await call.get('/api/people/session')).body.demoPeople).toMatchObject([{ id: madeUp.id }]);
    await call.post('/api/people/session/demo').send({ personId: demo.supervisor.person.id }).expect(404);
    await call.post('/api/people/session/demo').send({ personId: madeUp.id }).expect(200);
    await demo.close();
  });
});

describe('the units somebody reads in', () => {
  it('are theirs wherever they sign in, and what the server words is in them; nobody else’s change', async () => {
    const unitId = await addUnit(shop);
    const jobId = await openJobOn(shop, unitId);
    const said = async (call: Caller) =>
      ((await call.get(`/api/fleet/units/${unitId}/history`).expect(200)).body as { text: string }[])
        .map((l) => l.text)
        .join('. ');
    const { call } = shop.technician;
    const { t, flush } = mirrored(shop, jobId, ['2L', '2R']);
    t.workTo('2L', 'as-found');
    const [push, pull] = [quantity(-0.004, 'in'), quantity(0.005, 'in')];
    await flush();
    const typed = { source: 'typed', push, pull } as const;
    await send(call, jobId, 9, { kind: 'reading-taken', position: '2L', round: 0, ...typed }).expect(200);
    expect((await call.get('/api/people/session').expect(200)).body.units).toEqual(usualReader);
    expect(await said(call)).toMatch(/push -0.0040 in, pull 0.0050 in/);
    await call.put('/api/people/me/units').send(metricReader).expect(200);
    expect((await call.get('/api/people/session').expect(200)).body.units).toEqual(metricReader);
    expect(await said(call)).toMatch(/push -0.102 mm, pull 0.127 mm/);
    expect(await said(shop.supervisor.call)).toMatch(/pull 0.0050 in/);

    const bad = { ...metricReader, distance: 'furlong' };
    const refusal = await call.put('/api/people/me/units').send(bad).expect(422);
    expect(refusal.body.issues[0]).toMatchObject({ path: 'distance' });
    await shop.anyone().put('/api/people/me/units').send(metricReader).expect(401);
    await call.put('/api/people/me/units').send(usualReader).expect(200);
  });
});

describe('people', () => {
  const added = async (login: string, role = 'technician', owners: string[] = []) => {
    const body = { name: `Person ${login}`, login, role, owners };
    return (await shop.supervisor.call.post('/api/people').send(body).expect(200)).body as SignInCode;
  };
  /** A supervisor adds somebody, who chooses a password with their code. */
  const cameIn = async (login: string, role?: string) => {
    const { person, code } = await added(login, role);
    const call = shop.anyone();
    await call.post('/api/people/session/code').send({ login, code, password: GOOD }).expect(200);
    return { person, call };
  };
  /** The version the database has of somebody now. */
  const seen = async (id: string) => ({ seenVersion: (await shop.db.person.findByPk(id))!.version });
  const who = async (call: Caller) =>
    (await call.get('/api/people/session').expect(200)).body.person as { name: string } | null;

  it('are added by a supervisor only, each name once, and choose their own password with a code', async () => {
    const { person, code } = await added('pellow');
    expect(code).toMatch(/^\d{4}-\d{4}$/);
    const again = { name: 'Another', login: 'pellow', role: 'technician' };
    const taken = await shop.supervisor.call.post('/api/people').send(again).expect(422);
    expect(taken.body.issues).toEqual([{ path: 'login', message: 'The name pellow is taken' }]);
    await shop.technician.call.post('/api/people').send(again).expect(403);

    const use = (password: string, typed = code) =>
      shop.anyone().post('/api/people/session/code').send({ login: 'pellow', code: typed, password });
    expect((await use('password1234').expect(422)).body.issues[0]).toMatchObject({ path: 'password' });
    expect((await use('pellow1234').expect(422)).body.detail).toMatch(/easy to guess/);
    await use(GOOD, '1111-1111').expect(401);
    // Twice at once: one chooses.
    const both = await Promise.all([use(GOOD), use(`${GOOD} other`)]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 401]);
    const row = await shop.db.person.findByPk(person.id);
    expect(row).toMatchObject({ codeHash: null, passwordHash: expect.stringMatching(/^\$argon2id/) });
    expect(row!.lastSignIn).not.toBeNull();
  });

  it('an owner’s contact needs an owner, and nobody else has one', async () => {
    const owner = await shop.db.owner.create({ id: randomUUID(), name: 'Dunlin' });
    const body = { name: 'Contact', login: 'contact', role: 'owner-contact' };
    const post = (more: object) => shop.supervisor.call.post('/api/people').send({ ...body, ...more });
    expect((await post({}).expect(422)).body.issues[0].path).toBe('owners');
    await post({ role: 'technician', owners: [owner.id] }).expect(422);
    await post({ owners: [randomUUID()] }).expect(422);
    expect((await post({ owners: [owner.id] }).expect(200)).body.person.owners).toEqual([
      { id: owner.id, name: 'Dunlin' },
    ]);
    expect(await shop.db.person.count({ where: { login: 'contact' } })).toBe(1);
  });

  it('are switched off at once, session, stream and all, and let in again only with a code', async () => {
    await shop.live.start();
    const { person, call } = await cameIn('varga');
    const stream = call.get('/api/live').buffer(true);
    const ended = new Promise<void>((resolve) => stream.end(() => resolve()));
    await expect.poll(() => shop.streams.count()).toBe(1);
    await shop.supervisor.call
      .post(`/api/people/${person.id}/off`)
      .send(await seen(person.id))
      .expect(200);
    await ended;
    expect(await who(call)).toBeNull();
    await call.get('/api/jobs').expect(401);
    await shop.anyone().post('/api/people/session').send({ login: 'varga', password: GOOD }).expect(401);

    const { code } = (
      await shop.supervisor.call
        .post(`/api/people/${person.id}/code`)
        .send(await seen(person.id))
        .expect(200)
    ).body as SignInCode;
    await shop.anyone().post('/api/people/session').send({ login: 'varga', password: GOOD }).expect(401);
    await call.post('/api/people/session/code').send({ login: 'varga', code, password: GOOD }).expect(200);
  });

  it('a role that is taken away is gone at the next request; the last supervisor stays', async () => {
    const { person, call } = await cameIn('brennock', 'supervisor');
    await call.get('/api/people').expect(200);
    const change = (id: string, role: string, seenVersion: number, by = shop.supervisor.call) =>
      by.put(`/api/people/${id}`).send({ name: 'J. Brennock', role, owners: [], seenVersion });
    const { id: own } = shop.supervisor.person;
    const versions = { theirs: (await seen(person.id)).seenVersion, own: (await seen(own)).seenVersion };
    // Two supervisors take each other's role away at once: one of them stays.
    const both = await Promise.all([
      change(person.id, 'technician', versions.theirs),
      change(own, 'technician', versions.own, call),
    ]);
    expect(both.map((b) => b.status).sort()).not.toEqual([200, 200]);
    const left = await shop.db.person.findAll({ where: { role: 'supervisor', switchedOffAt: null } });
    expect(left).toHaveLength(1);
    if (left[0]!.id === person.id)
      await change(own, 'supervisor', (await seen(own)).seenVersion, call).expect(200);
    await change(person.id, 'supervisor', 0).expect(409);
    await change(person.id, 'technician', (await seen(person.id)).seenVersion).expect(200);
    await call.get('/api/people').expect(403);
    for (const gone of [
      change(own, 'trainee', (await seen(own)).seenVersion),
      shop.supervisor.call.post(`/api/people/${own}/off`).send(await seen(own)),
    ])
      expect((await gone.expect(422)).body.detail).toMatch(/last supervisor/);
  });

  it('can be reached, outside the record: what is erased is nowhere, that it was is on record', async () => {
    const { person } = await added('pellow.two');
    const details = (body: object) => shop.supervisor.call.put(`/api/people/${person.id}/details`).send(body);
    await details({ telephone: '+00 4711 0815', mail: 'no mail address' }).expect(422);
    const kept = (await details({ telephone: '+00 4711 0815', mail: 'p@shop.example' }).expect(200)).body;
    expect(kept).toMatchObject({ telephone: '+00 4711 0815', mail: 'p@shop.example' });
    expect((await details({ telephone: '', mail: '' }).expect(200)).body).toMatchObject({ telephone: '' });
    const [rows] = await shop.db.sequelize.query(
      `select 1 from entry where body ::text ~ '4711 0815|p@shop' union all select 1 from personal_detail`,
    );
    expect(rows).toEqual([]);
    const last = await shop.db.entry.findOne({
      where: { streamId: person.id },
      order: [['version', 'DESC']],
    });
    expect(last!.body).toEqual({ kind: 'person-details-erased' });
  });

  it('change their password, which ends every other session of theirs', async () => {
    const { call } = await cameIn('osei');
    const tablet = shop.anyone();
    await tablet.post('/api/people/session').send({ login: 'osei', password: GOOD }).expect(200);
    const change = (current: string, password: string) =>
      call.put('/api/people/me/password').send({ current, password });
    expect((await change('not mine', 'two steel horses').expect(422)).body.issues[0].path).toBe('current');
    for (const weak of ['qwertyuiop', 'workshop1234', 'wheelbearing1', 'Truck2026!'])
      await change(GOOD, weak).expect(422);
    await change(GOOD, 'two steel horses').expect(200);
    expect(await who(call)).not.toBeNull();
    expect(await who(tablet)).toBeNull();
    await call.post('/api/people/me/sign-out-everywhere').expect(200);
    expect(await who(call)).toBeNull();
  });

  it('change in at a shared terminal with a PIN, which opens no people and no settings', async () => {
    const supervisor = await cameIn('thistlewood', 'supervisor');
    const terminal = await cameIn('terminal');
    const pin = (value: string | null, password = GOOD) =>
      supervisor.call.put('/api/people/me/pin').send({ password, pin: value });
    await pin('2580', 'wrong one').expect(422);
    for (const weak of ['1111', '8765', '4747', '1979']) await pin(weak).expect(422);
    await pin('2580').expect(200);
    const { id } = supervisor.person;
    expect((await terminal.call.get('/api/people/with-pin').expect(200)).body).toEqual([
      { id, name: 'Person thistlewood' },
    ]);
    const use = (typed: string) =>
      terminal.call.post('/api/people/session/pin').send({ personId: id, pin: typed });
    await shop.anyone().post('/api/people/session/pin').send({ personId: id, pin: '2580' }).expect(401);
    await use('2581').expect(401);
    await use('2580').expect(200);
    expect((await terminal.call.get('/api/people/session')).body).toMatchObject({ by: 'pin', hasPin: true });
    await terminal.call.get('/api/jobs').expect(200);
    expect((await terminal.call.get('/api/people').expect(403)).body.detail).toMatch(/password/);
    await terminal.call.put('/api/shop/settings').send(shop.settings.current()).expect(403);
    for (let i = 0; i < 6; i++) await use('9999').expect(401);
    expect((await use('2580').expect(429)).body.detail).toMatch(/password/);
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
    expect(lost.body).toMatchObject({
      type: 'urn:lanternwright:problem:not-found',
      code: 'not-found',
      status: 404,
      title: 'Not found',
    });
  });

  it('is healthy, sends a strict content policy and describes itself', async () => {
    const health = await shop.anyone().get('/api/health').expect(200);
    expect(health.body.ok).toBe(true);
    expect(health.headers['content-security-policy']).toMatch(/default-src 'self'/);
    expect(health.headers['x-powered-by']).toBeUndefined();
    // Nothing but a shop at an https address asks browsers never to come without it again.
    expect(health.headers['strict-transport-security']).toBeUndefined();
    const api = (await shop.anyone().get('/api/openapi.json').expect(200)).body;
    expect(api.openapi).toBe('3.1.0');
    expect(Object.keys(api.paths)).toContain('/api/jobs/{id}/events');
    expect(JSON.stringify(api.paths['/api/jobs/{id}/events'])).toMatch(/reading-taken/);
  });
});
