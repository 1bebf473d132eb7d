import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { LiveMessage } from '@lanternwright/contract/jobs';
import { cookiesOf } from '../testing/cookies.ts';
import { createApp } from '../app.ts';
import { readConfig } from '../config.ts';
import {
  addUnit,
  asSuperuser,
  confirmStep,
  fetchJob,
  openJobOn,
  openShop,
  send,
  type Shop,
} from '../testing/shop.ts';

let shop: Shop;
let second: ReturnType<typeof createApp>;
let server: Server;
beforeAll(async () => {
  shop = await openShop();
  // A second server process on the same database: events reach its browsers through PostgreSQL.
  second = createApp(
    readConfig({
      DATABASE_URL: shop.databaseUrl,
      SESSION_SECRET: 'for tests only, long enough',
      LOG_LEVEL: 'silent',
    }),
  );
  await second.live.start();
  server = createServer(second.app).listen(0, '127.0.0.1');
});
afterAll(async () => {
  await second.close();
  server.closeAllConnections();
  server.close();
  await shop.close();
});

const base = () => `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

/** Records of a stream so far; what the server says of the stream itself is none. */
function messagesIn(text: string): (LiveMessage & { id: number })[] {
  return text.split('\n\n').flatMap((block) => {
    const [, id, data] = /^id: (\d+)\ndata: (.*)$/.exec(block) ?? [];
    return data ? [{ ...(JSON.parse(data) as LiveMessage), id: Number(id) }] : [];
  });
}

/** The stream of the second server, as text, for a technician who signs in there. */
async function listenAsTechnician(lastSeen?: number) {
  const signIn = await fetch(`${base()}/api/people/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login: 'achterberg', password: 'correct horse battery' }),
  });
  const cookie = cookiesOf(signIn);
  const stream = await fetch(`${base()}/api/live`, {
    headers: lastSeen === undefined ? { cookie } : { cookie, 'last-event-id': String(lastSeen) },
  });
  return stream.body!.pipeThrough(new TextDecoderStream()).getReader();
}

it('brings what one server stores to a browser at another', async () => {
  const jobId = await openJobOn(shop, await addUnit(shop));
  expect((await fetch(`${base()}/api/live`)).status).toBe(401);
  const reader = await listenAsTechnician();
  await send(
    shop.supervisor.call,
    jobId,
    1,
    confirmStep(await fetchJob(shop.supervisor.call, jobId), '2L'),
  ).expect(200);
  let text = '';
  while (messagesIn(text).length === 0) text += (await reader.read()).value ?? '';
  expect(text).toMatch(/event: anew\nid: \d+\n/);
  expect(messagesIn(text)[0]).toMatchObject({ jobId, event: { version: 2, by: { name: 'I. Okonedo' } } });
  await reader.cancel();
});

it('misses nothing while its connection is cut, again and again, and never has more than one', async () => {
  const jobId = await openJobOn(shop, await addUnit(shop));
  const reader = await listenAsTechnician();
  const listening = `from pg_stat_activity where datname = '${shop.databaseName}' and query ilike 'listen %'`;
  const step = async () => {
    const job = await fetchJob(shop.technician.call, jobId);
    await send(shop.technician.call, jobId, job.version, confirmStep(job, '2L')).expect(200);
  };
  for (let i = 0; i < 4; i++) {
    await asSuperuser(shop.databaseName, `select pg_terminate_backend(pid) ${listening}`);
    // Stored while nobody listens.
    await step();
  }
  const versions = new Set<number>();
  let text = '';
  while (versions.size < 4) {
    text += (await reader.read()).value ?? '';
    for (const { jobId: of, event } of messagesIn(text)) if (of === jobId) versions.add(event.version);
  }
  expect([...versions]).toEqual([2, 3, 4, 5]);
  await expect
    .poll(async () => {
      const [[row]] = (await shop.db.sequelize.query(`select count(*)::int as n ${listening}`)) as [
        { n: number }[],
        unknown,
      ];
      return row!.n;
    })
    .toBe(1);
  await reader.cancel();
});

it('sends a browser that comes back, to any server, just what it missed', async () => {
  const jobId = await openJobOn(shop, await addUnit(shop));
  const step = async () => {
    const job = await fetchJob(shop.technician.call, jobId);
    return send(shop.technician.call, jobId, job.version, confirmStep(job, '2L')).expect(200);
  };
  const end = Number(await shop.db.entry.max('seq'));
  for (let i = 0; i < 3; i++) await step();
  const reader = await listenAsTechnician(end);
  let text = '';
  while (!text.includes('event: resumed')) text += (await reader.read()).value ?? '';
  expect(messagesIn(text).map((m) => [m.jobId, m.event.version])).toEqual([2, 3, 4].map((v) => [jobId, v]));
  await step();
  while (messagesIn(text).length < 4) text += (await reader.read()).value ?? '';
  expect(messagesIn(text).map((m) => m.id)).toEqual([end + 1, end + 2, end + 3, end + 4]);
  await reader.cancel();
  // From another record, or too long ago: it reads anew.
  const lost = await listenAsTechnician(end + 1_000_000);
  let said = '';
  while (!said.includes('event: ')) said += (await lost.read()).value ?? '';
  expect(said).toContain('event: anew');
  await lost.cancel();
});
