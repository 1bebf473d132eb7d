import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { LiveMessage } from '@lanternwright/contract/jobs';
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

/** The stream of the second server, as text, for a technician who signs in there. */
async function listenAsTechnician() {
  const signIn = await fetch(`${base()}/api/people/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login: 'achterberg', password: 'correct horse battery' }),
  });
  const cookie = signIn.headers.getSetCookie()[0]!.split(';')[0]!;
  const stream = await fetch(`${base()}/api/live`, { headers: { cookie } });
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
  while (!text.includes('data: ')) text += (await reader.read()).value ?? '';
  const message = JSON.parse(/data: (.*)\n/.exec(text)![1]!) as LiveMessage;
  expect(message).toMatchObject({ jobId, event: { version: 2, by: { name: 'I. Okonedo' } } });
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
    for (const [, data] of text.matchAll(/data: (.*)\n/g)) {
      const message = JSON.parse(data!) as LiveMessage;
      if (message.jobId === jobId) versions.add(message.event.version);
    }
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
