import { quantity } from '@lanternwright/core/quantity';
import { numbered } from '@lanternwright/core/axle-plan';
import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { allRoutes } from '@lanternwright/contract/open-api';
import type { Route } from '@lanternwright/contract/route';
import { describeCalculation } from '@lanternwright/core/reckoner';
import { familySheets } from '@lanternwright/core/procedure';
import { cookiesOf } from '../testing/cookies.ts';
import { verifyChain } from '../record/verify-chain.ts';
import { prepareQueue } from '../queue/queue.ts';
import { addUnit, axlesOf, confirmStep, fetchJob, openJobOn, openShop, type Shop } from '../testing/shop.ts';

const REQUESTS = 5_000;

let shop: Shop;
let server: Server;
let cookie = '';
let unit = '';
let job = '';
/** A body of every kind that the server takes, to be spoilt. */
let good: Record<string, unknown> = {};

beforeAll(async () => {
  // Few tries, so that passwords are soon not even looked at.
  shop = await openShop({ SIGN_IN_TRIES: '3' });
  await prepareQueue({ ownerUrl: shop.ownerUrl, databaseUrl: shop.databaseUrl }, shop.log);
  unit = await addUnit(shop);
  job = await openJobOn(shop, unit);
  server = createServer(shop.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const answer = await ask('post', '/api/people/session', {
    login: 'okonedo',
    password: 'correct horse battery',
  });
  cookie = cookiesOf(answer);
  const command = confirmStep(await fetchJob(shop.technician.call, job), '2L');
  const rates = {
    hour: { currency: 'USD', minor: 9_000 },
    ...{ suppliesPercent: 5, taxNumber: 'T 1', validDays: 30 },
    taxes: [{ name: 'VAT', percent: 20, on: ['labour'] }],
  };
  const wheelEnds = [{ position: '1L', works: ['seal'] }];
  good = {
    '/api/fleet/units': {
      owner: 'Dunlin',
      name: 'D 1',
      kind: 'tractor',
      plate: '',
      meter: {},
      axles: axlesOf('tractor-2'),
    },
    '/api/fleet/units/:id/axles': { seenVersion: 1, axles: numbered(axlesOf('tractor-3')) },
    '/api/fleet/units/:id/services': { position: '1L', date: '2026-02-01', works: ['seal', 'check'] },
    '/api/fleet/services': { unitIds: [randomUUID()], date: '2026-02-01', works: ['seal'] },
    '/api/fleet/units/:id/remarks': { seenVersion: 1, remarks: 'Keys in the office' },
    '/api/fleet/units/:id/duty': { seenVersion: 1, duty: [{ of: 'water', share: 0.5 }] },
    '/api/fleet/units/:id/meters': { date: '2026-02-01', distance: quantity(9, 'km'), sure: true },
    '/api/fleet/units/:id/meters/swaps': {
      ...{ date: '2026-02-02', of: 'distance', why: 'swapped', last: 9e6, first: 3 },
    },
    '/api/fleet/units/:id/meters/corrections': {
      ...{ seenVersion: 1, nth: 0, right: { date: '2026-02-01', hours: quantity(9, 'h') } },
    },
    '/api/plan/bookings': {
      ...{ unitId: unit, jobId: job, bayId: 'bay-1', people: [], note: '' },
      ...{ from: '2027-01-02T08:00:00Z', until: '2027-01-02T09:00:00Z' },
    },
    '/api/plan/bookings/:id': {
      ...{ seenVersion: 1, bayId: 'bay-1', people: [] },
      ...{ from: '2027-01-02T08:00:00Z', until: '2027-01-02T09:00:00Z' },
    },
    '/api/plan/bookings/:id/where': { seenVersion: 1, what: 'end' },
    '/api/plan/bookings/:id/cancel': { seenVersion: 1, reason: 'why' },
    '/api/plan/bookings/:id/lock': { seenVersion: 1, locked: true },
    '/api/plan/absences': {
      ...{ what: 'person', of: shop.technician.person.id, why: 'Leave' },
      ...{ from: '2027-01-02T08:00:00Z', until: '2027-01-02T09:00:00Z' },
    },
    '/api/plan/absences/:id/cancel': { seenVersion: 1 },
    '/api/plan/shifts/:id': { week: null, seen: null },
    '/api/plan/calendars': { what: 'shop', of: '' },
    '/api/plan/proposals': { kind: 'mend', days: 7 },
    '/api/plan/proposals/:id/accept': { units: [unit] },
    '/api/sheets/:sheetId/carry': { to: 2, units: [{ id: randomUUID(), seenVersion: 1 }] },
    '/api/sheets/:sheetId': { basedOn: 1, sheet: familySheets[0], note: 'why' },
    '/api/sheets': { from: 'a-drive-tang', sheetId: 'own', title: 'Own' },
    '/api/jobs': { unitId: unit, title: 'T', complaint: 'C', reportedBy: 'driver', meter: {}, wheelEnds },
    '/api/jobs/:id/photos': { jpeg: Buffer.alloc(300, 0xff).toString('base64') },
    '/api/jobs/:id/events': { id: randomUUID(), seenVersion: 1, command },
    '/api/jobs/:id/second-person': {
      id: randomUUID(),
      seenVersion: 1,
      command,
      person: { login: 'achterberg', password: 'wrong' },
    },
    '/api/reckon/:name': describeCalculation('due')!.example,
    '/api/exchange/fleet': { csv: 'owner,unit,kind,axle,role,sheet\na,b,rigid,1,steer,a-steer' },
    '/api/exchange/meters': 'unit,date,km\nD 1,2026-01-02,5\n',
    '/api/exchange/fleet/preview': { csv: 'owner,unit,kind,axle,role,sheet\n"a,b' },
    '/api/people': { name: 'New One', login: 'new.one', role: 'technician', owners: [] },
    '/api/people/:id': { name: 'New One', role: 'trainee', owners: [], seenVersion: 1 },
    '/api/programs/tokens': {
      ...{ name: 'Depot screen', capabilities: ['see-units'], ownerId: null, days: 30 },
    },
    '/api/programs/webhooks': { name: 'Haulier', url: 'http://127.0.0.1:9/', events: ['release'] },
    '/api/estimates/rates': { ...rates, seen: rates },
    '/api/shop/morning': { at: '06:30', to: ['okonedo@shop.example'] },
    '/api/shop/settings': { ...shop.settings.current(), bays: [{ id: 'bay-1', name: 'Bay 1' }] },
    '/api/people/:id/off': { seenVersion: 1 },
    '/api/people/:id/code': { seenVersion: 1 },
    '/api/people/:id/details': { telephone: '+00 000', mail: 'a@shop.example' },
    '/api/stores/parts': {
      seenVersion: 0,
      part: {
        ...{ id: randomUUID(), kind: 'seal', title: 'Hub seal', number: '47-2210', crossings: ['HS 47'] },
        dims: { bore: { value: 82.5, unit: 'mm', si: 0.0825 } },
        lips: { count: 2, facing: 'inward' },
        fits: [{ sheetId: 'a-drive-tang', line: 'part:hub-seal' }],
        ...{ price: { currency: 'USD', minor: 4185 }, core: null, supplier: 'Quayside', leadDays: 5 },
        ...{ reorderLevel: 2, supersededBy: null },
      },
    },
    '/api/stores/orders': {
      ...{ id: randomUUID(), seenVersion: 0, supplier: 'Quayside' },
      lines: [{ partId: randomUUID(), quantity: 2 }],
    },
    '/api/stores/orders/:id/sent': {
      seenVersion: 1,
      expected: '2027-01-04',
      reference: 'Q-88',
      online: false,
    },
    '/api/stores/orders/:id/promised': { seenVersion: 1, expected: '2027-01-04' },
    '/api/stores/orders/:id/delivered': {
      seenVersion: 1,
      lines: [{ partId: randomUUID(), quantity: 2, place: 'A3' }],
    },
    '/api/stores/orders/:id/ended': { seenVersion: 1, partId: randomUUID(), reason: 'not made' },
    '/api/stores/orders/:id/cancelled': { seenVersion: 1, reason: 'not wanted' },
    '/api/stores/parts/:id/movements': {
      recordId: randomUUID(),
      movement: { what: 'counted', quantity: 2, place: 'A3', reason: 'counted' },
    },
    '/api/stores/parts/:id/reservations': {
      reservation: {
        id: randomUUID(),
        jobId: randomUUID(),
        position: '2L',
        line: 'part:hub-seal',
        quantity: 2,
      },
    },
    '/api/stores/parts/:id/uses': {
      recordId: randomUUID(),
      movement: { what: 'used', quantity: 2, place: 'A3', jobId: randomUUID(), position: '2L' },
    },
    '/api/tools/:id/certificates': {
      ...{ seenVersion: 1, certificateId: randomUUID(), name: 'a.pdf', type: 'application/pdf' },
      ...{ file: Buffer.from('%PDF-1.4').toString('base64').repeat(20), until: '2027-01-31' },
    },
    '/api/tools/:id/recalled': { seenVersion: 1, lastGood: '2026-01-02', reason: 'reads high' },
    '/api/tools': {
      seenVersion: 0,
      tool: {
        id: randomUUID(),
        kind: 'torque-wrench',
        code: 'TW-1',
        title: 'Wrench',
        calibratedUntil: '2027-01-01',
        min: { value: 70, unit: 'Nm', si: 70 },
        max: { value: 700, unit: 'Nm', si: 700 },
      },
    },
  };
}, 60_000);
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await shop.close();
});

async function ask(method: string, path: string, body?: unknown): Promise<Response> {
  const { port } = server.address() as AddressInfo;
  const left = new AbortController();
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
    method: method.toUpperCase(),
    headers: {
      cookie,
      'Content-Type': path.startsWith('/api/exchange/meters') ? 'text/csv' : 'application/json',
    },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    signal: left.signal,
  });
  if (path.includes('/live')) left.abort();
  else await answer.arrayBuffer();
  return answer;
}

/** The same numbers every time, so that a fault can be looked at again. */
function randomFrom(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}
const random = randomFrom(20_261_126);
const pick = <T>(list: readonly T[]): T => list[random(list.length)]!;

const deep = (levels: number): unknown => (levels === 0 ? 1 : [deep(levels - 1)]);

/** What has broken programs before: at the edge of numbers, texts, dates, ids and shapes. */
const nasty: readonly unknown[] = [
  null,
  true,
  0,
  -0,
  -1,
  0.1 + 0.2,
  1e308,
  -1e308,
  1e-320,
  2 ** 31,
  2 ** 53,
  2 ** 63,
  '',
  ' ',
  '0',
  'null',
  'undefined',
  '\0',
  'a\0b',
  '\ud800',
  'x\udfffy',
  '\u202Eabc',
  '\uFEFF',
  '𝕬',
  'é',
  'e\u0301',
  "'; drop table job; --",
  '%',
  '\\',
  '${7*7}',
  '../../etc/passwd',
  '<script>alert(1)</script>',
  '=1+1',
  '1e999',
  'NaN',
  '-Infinity',
  '2026-02-30',
  '0000-00-00',
  '9999-12-31T23:59:59.999Z',
  '275760-09-13',
  '2026-11-26T10:00:00+99:00',
  '00000000-0000-0000-0000-000000000000',
  '6F9619FF-8B86-D011-B42D-00C04FC964FF',
  'x'.repeat(5_000),
  [],
  {},
  [[]],
  [null],
  { length: 1e9 },
  { __proto__: null },
  JSON.parse('{"__proto__":{"a":1}}'),
  { constructor: 1 },
  { toString: 1 },
  { value: 1, unit: 'furlong', si: 1 },
  deep(30),
  deep(200),
  Array.from({ length: 2_000 }, () => 0),
];

/** Of these, what can stand in an address. */
const nastyTexts = nasty.filter((n): n is string => typeof n === 'string' && !/\p{Surrogate}/u.test(n));

/** Bodies that are no JSON, or too much of it. */
const broken: readonly string[] = [
  '',
  '{',
  '[',
  '"',
  '{"a":',
  '\u0000',
  '{"a":1e999}',
  '[1,]',
  'NaN',
  '{"a":"\\ud800"}',
  `{"a":${'['.repeat(5_000)}${']'.repeat(5_000)}}`,
  '{"a":1,"a":2}',
  '\uFEFF{}',
  '{"id":"\\u0000"}',
];

/** A copy with one to three places spoilt. */
function spoil(body: unknown): unknown {
  const copy: unknown = structuredClone(body);
  const root = { root: copy };
  for (let n = random(3); n >= 0; n--) {
    let [holder, key]: [Record<string, unknown>, string] = [root, 'root'];
    for (let depth = random(7); depth > 0; depth--) {
      const value = holder[key];
      if (typeof value !== 'object' || value === null || Object.keys(value).length === 0) break;
      [holder, key] = [value as Record<string, unknown>, pick(Object.keys(value))];
    }
    const how = random(4);
    if (how === 0 && holder !== root) Reflect.deleteProperty(holder, key);
    else if (how === 1 && typeof holder[key] === 'object' && holder[key] !== null)
      (holder[key] as Record<string, unknown>)[pick(['extra', 'id', '__proto__', '0'])] = structuredClone(
        pick(nasty),
      );
    else holder[key] = structuredClone(pick(nasty));
  }
  return root.root;
}

function pathWith(route: Route): string {
  const path = route.path.replace(/:(\w+)/g, (_, name: string) => {
    if (random(6) === 0) return encodeURIComponent(pick(nastyTexts).slice(0, 300)) || 'x';
    if (name === 'sheetId') return 'a-drive-tang';
    if (name === 'name') return 'due';
    if (name === 'paper') return pick(['record', 'tags', 'traveller', 'estimate']);
    if (route.path.startsWith('/api/fleet/units/')) return unit;
    return route.path.includes('/jobs/:id') ? job : randomUUID();
  });
  const query = Object.keys(route.query.shape).map(
    (k) => `${k}=${encodeURIComponent(String(pick([1, -1, '', 'x', 'open', '1L', 1e9, '\0'])))}`,
  );
  return random(2) === 0 && query.length > 0 ? `${path}?${query.join('&')}` : path;
}

it(`takes or refuses ${REQUESTS} nasty requests over all routes, breaks at none and keeps nothing by halves`, async () => {
  // What ends the session it is tried with, or shuts the supervisor out, is tried elsewhere.
  const routes = allRoutes()
    .map((r) => r.route)
    .filter(({ path }) => !/sign-out|session\/demo/.test(path) && !(path === '/api/people/session'));
  const faults: string[] = [];
  const seen = new Map<number, number>();
  const one = async () => {
    const route = pick(routes);
    const path = pathWith(route);
    const body =
      route.method === 'get' ? undefined : random(12) === 0 ? pick(broken) : spoil(good[route.path] ?? {});
    const { status } = await ask(route.method, path, body);
    seen.set(status, (seen.get(status) ?? 0) + 1);
    if (status >= 500 && status !== 503)
      faults.push(`${status} ${route.method} ${path} ${JSON.stringify(body)?.slice(0, 400)}`);
  };
  const before = await shop.db.unit.count();
  for (let i = 0; i < REQUESTS; i += 8) await Promise.all(Array.from({ length: 8 }, one));
  expect(faults).toEqual([]);
  expect(seen.get(422) ?? 0).toBeGreaterThan(REQUESTS / 5);
  expect(seen.get(200) ?? 0).toBeGreaterThan(REQUESTS / 50);

  // What was taken is whole.
  expect(await verifyChain(shop.db)).toMatchObject({ ok: true });
  const [bare] = await shop.db.sequelize.query(
    'select id from unit u where not exists (select 1 from axle where unit_id = u.id)',
  );
  expect(bare).toEqual([]);
  expect(await shop.db.unit.count()).toBeGreaterThanOrEqual(before);
  for (const { id } of await shop.db.job.findAll({ attributes: ['id'] }))
    await fetchJob(shop.supervisor.call, id);
}, 240_000);
