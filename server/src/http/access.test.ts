import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roles, type Role } from '@lanternwright/core/access';
import { allRoutes } from '@lanternwright/contract/open-api';
import type { Route } from '@lanternwright/contract/route';
import { cookiesOf } from '../testing/cookies.ts';
import { readAs } from '../database/connect.ts';
import { addUnit, fetchJob, openJobOn, openShop, send, type Caller, type Shop } from '../testing/shop.ts';

const PASSWORD = 'correct horse battery';
const pixel = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0]), Buffer.alloc(200, 1)]).toString('base64');

/** What belongs to one owner. */
interface Owned {
  owner: string;
  unit: string;
  job: string;
  photo: string;
}

let shop: Shop;
let server: Server;
let own: Owned;
let others: Owned;
let contact: { call: Caller; person: { id: string; name: string } };

async function owned(name: string): Promise<Owned> {
  const unit = await addUnit(shop, undefined, undefined, name);
  const job = await openJobOn(shop, unit);
  const photo = await shop.technician.call.post(`/api/jobs/${job}/photos`).send({ jpeg: pixel }).expect(200);
  const row = await shop.db.owner.findOne({ where: { name } });
  return { owner: row!.id, unit, job, photo: (photo.body as { id: string }).id };
}

beforeAll(async () => {
  shop = await openShop({ SIGN_IN_TRIES: '1000' });
  own = await owned('Tern & Hollow Haulage');
  others = await owned('Marrow Valley Buses');
  contact = await shop.signedIn({
    name: 'E. Tern',
    login: 'contact',
    role: 'owner-contact',
    password: PASSWORD,
    owners: [own.owner],
  });
  for (const role of ['storekeeper', 'trainee'] as const)
    await shop.signedIn({ name: role, login: role, role, password: PASSWORD });
  server = createServer(shop.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await shop.close();
});

/** A path with everything in it filled in; a route with a parameter nobody has said anything about fails here. */
function pathOf({ path }: Route, whose: Owned): string {
  // Without these a stranger would be told what is missing before it is known that they are one.
  const query = path === '/api/fleet/units/:id/visits' ? '?position=2L' : '';
  const filled = path.replace(/:(\w+)/g, (_, name: string) => {
    if (name === 'reservationId' || name === 'certificateId') return randomUUID();
    if (name === 'id' && path.startsWith('/api/stores/jobs/:id')) return whose.job;
    if (name === 'id' && path === '/api/stores/units/:id/costs') return whose.unit;
    if (name === 'sheetId') return 'a-drive-tang';
    if (name === 'name') return 'nut-travel';
    if (name === 'paper') return 'record';
    if (name === 'monday') return '2027-01-04';
    if (name === 'secret') return 'guessed';
    if (name === 'id' && path.startsWith('/api/fleet/units/')) return whose.unit;
    if (name === 'id' && path.startsWith('/api/jobs/photos/')) return whose.photo;
    if (name === 'id' && /^\/api\/(exchange\/|estimates\/)?jobs\//.test(path)) return whose.job;
    // Nobody is switched off and no tool retired by this test.
    if (name === 'id' && /^\/api\/(people|programs|tools|stores|plan|exchange)\//.test(path))
      return randomUUID();
    throw new Error(`Say what :${name} is in ${path}`);
  });
  return filled + query;
}

const cookies = new Map<Role, string>();

/** Cookie of a session of this role; a new one after a request that may have ended or changed it. */
async function sessionOf(role: Role | null): Promise<string> {
  if (!role) return '';
  const cookie = cookies.get(role) ?? (await signIn(role));
  cookies.set(role, cookie);
  return cookie;
}

const changesSession = ({ path }: Route) => /session|sign-out|first|begin|password/.test(path);

async function signIn(role: Role): Promise<string> {
  const login =
    { supervisor: 'okonedo', technician: 'achterberg', 'owner-contact': 'contact' }[role as string] ?? role;
  const { port } = server.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/api/people/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login, password: PASSWORD }),
  });
  return cookiesOf(answer);
}

async function statusOf(route: Route, cookie: string, whose: Owned): Promise<number> {
  const { port } = server.address() as AddressInfo;
  const left = new AbortController();
  const answer = await fetch(`http://127.0.0.1:${port}${pathOf(route, whose)}`, {
    method: route.method.toUpperCase(),
    headers: { cookie, 'Content-Type': 'application/json' },
    ...(route.method === 'get' ? {} : { body: '{}' }),
    signal: left.signal,
  });
  left.abort();
  if (changesSession(route)) cookies.clear();
  return answer.status;
}

/** What a status says about being let in: with an empty body most that are let in are told what is missing. */
const said = (status: number) => (status === 401 || status === 403 || status === 404 ? String(status) : 'in');

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
  handle: { stack?: Layer[] };
}
const servedBy = (stack: readonly Layer[]): string[] =>
  stack.flatMap(({ route, handle }) => [
    ...(route ? Object.keys(route.methods).map((method) => `${method} ${route.path}`) : []),
    ...servedBy(handle.stack ?? []),
  ]);

/** Beside the contract: health, metrics, the description itself, and the live stream. */
const beside = /^get (\/api\/(health|ready|metrics|openapi\.json)|\/.*live)$/;

describe('who is let in where', () => {
  it('no route is served that the contract does not list: none escapes the table', () => {
    const listed = new Set(allRoutes().map(({ route }) => `${route.method} ${route.path}`));
    const served = servedBy((shop.app as unknown as { router: { stack: Layer[] } }).router.stack);
    expect(served.length).toBeGreaterThan(100);
    expect(served.filter((at) => !listed.has(at) && !beside.test(at))).toEqual([]);
  });

  it('every route of the contract, every role, one’s own owner and another', async () => {
    const everybody = [null, ...(Object.keys(roles) as Role[])];
    const lines: string[] = [];
    for (const { route } of allRoutes()) {
      const cells: string[] = [];
      for (const role of everybody) {
        const status = await statusOf(route, await sessionOf(role), own);
        expect(status, `${route.method} ${route.path} as ${role}`).toBeLessThan(500);
        cells.push(said(status).padEnd(5));
      }
      const other = said(await statusOf(route, await sessionOf('owner-contact'), others));
      lines.push([`${route.method} ${route.path}`.padEnd(46), ...cells, other].join(' ').trimEnd());
    }
    const head = [
      'route'.padEnd(46),
      ...['none', ...Object.keys(roles).map((r) => r.slice(0, 5))].map((r) => r.padEnd(5)),
      'owner-contact of another owner',
    ].join(' ');
    await expect([head, ...lines, ''].join('\n')).toMatchFileSnapshot('access-table.txt');
  }, 120_000);
});

describe('an owner’s contact', () => {
  const ids = (rows: unknown) => (rows as { id: string }[]).map((r) => r.id);

  it('finds their own units, jobs, owner and files in every list, and nobody else’s', async () => {
    const get = async (path: string) => (await contact.call.get(path).expect(200)).body as unknown;
    expect(await get('/api/fleet/units')).toMatchObject({
      units: [{ id: own.unit }],
      total: 1,
      fleet: { units: 1 },
    });
    expect(await get('/api/find?text=tern')).toMatchObject({ units: [{ id: own.unit }] });
    expect(await get('/api/find?text=marrow')).toEqual({
      ...{ units: [], jobs: [], parts: [] },
      // Tools, orders and people are the shop's.
      ...{ tools: [], orders: [], people: [], batches: [] },
    });
    expect(ids(await get('/api/fleet/owners'))).toEqual([own.owner]);
    expect(ids(await get('/api/jobs'))).toEqual([own.job]);
    expect(await get('/api/jobs/follow-ups')).toMatchObject({ total: 0 });
    const { text } = await contact.call.get('/api/exchange/fleet.csv').expect(200);
    expect(text).toMatch(/Tern & Hollow/);
    expect(text).not.toMatch(/Marrow Valley/);
  });

  it('is kept apart by the database itself: what is asked wrongly gives nothing of others', async () => {
    const { db } = shop;
    const counts = () =>
      Promise.all(
        [db.owner, db.unit, db.axle, db.meterReading, db.job, db.wheelEnd, db.photo].map((model) =>
          (model as typeof db.unit).count(),
        ),
      );
    // Nobody's streams but the shop's: sheets, tools, people.
    const entries = () => db.entry.count({ where: { stream: ['job', 'unit', 'meter'] } });
    const everything = await entries();
    const [mineOf, theirsOf] = [
      await readAs(db, [own.owner], () => db.entry.count()),
      await readAs(db, [others.owner], () => db.entry.count()),
    ];
    expect([mineOf > 2, theirsOf > 2, mineOf + theirsOf]).toEqual([true, true, everything]);
    const all = await counts();
    const mine = await readAs(db, [own.owner], counts);
    const theirs = await readAs(db, [others.owner], counts);
    expect(all).toEqual(mine.map((n, i) => n + theirs[i]!));
    expect(await readAs(db, [], counts)).toEqual(all.map(() => 0));
    // It reads, and changes nothing.
    await expect(readAs(db, [own.owner], () => db.unit.destroy({ where: {} }))).rejects.toThrow(/read-only/);
    // A connection that says nothing sees nothing.
    const silent = new pg.Client({ connectionString: shop.databaseUrl });
    await silent.connect();
    expect((await silent.query('select id from unit')).rows).toEqual([]);
    await silent.end();
  });

  it('answers their estimate in their own name, and records nothing else and nothing elsewhere', async () => {
    const bill = {
      currency: 'GBP',
      lines: [
        { group: 'labour' as const, what: 'Seals', per: 'wheel' as const, quantity: 2, unitMinor: 9000 },
      ],
      suppliesPercent: 0,
      taxes: [],
    };
    const estimate = randomUUID();
    for (const [job, id] of [
      [own.job, estimate],
      [others.job, randomUUID()],
    ] as const)
      await send(shop.supervisor.call, job, 1, { kind: 'bill-written', as: 'estimate', bill }, id).expect(
        200,
      );
    const answer = { kind: 'owner-answered' as const, answer: 'do-now' as const, name: 'Somebody else' };
    const say = (job: string, more: object) => send(contact.call, job, 2, { ...answer, ...more });

    await say(others.job, { estimate }).expect(404);
    expect((await say(own.job, {}).expect(422)).body.detail).toMatch(/Name the estimate/);
    expect((await say(own.job, { estimate: randomUUID() }).expect(422)).body.detail).toMatch(
      /has changed: review it/,
    );
    await send(contact.call, own.job, 2, { kind: 'job-held', reason: 'not you' }).expect(422);
    const { body } = await say(own.job, { estimate }).expect(200);
    expect(body).toMatchObject({ by: { role: 'owner-contact' }, body: { name: contact.person.name } });

    // What they said themselves is not said over by the shop.
    const over = send(shop.supervisor.call, own.job, 3, { ...answer, answer: 'decline' });
    expect((await over.expect(422)).body.detail).toMatch(/answered for the owner themselves/);
    expect((await fetchJob(shop.supervisor.call, own.job)).money.answer?.answer).toBe('do-now');
  });
});
