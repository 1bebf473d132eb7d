import pg from 'pg';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openLoadShop, type LoadShop } from './shop.ts';
import { must, openWork, record, type Caller, type Sent } from './technician.ts';

/** How long each is measured. */
const SECONDS = Number(process.env['SECONDS'] ?? 10);
const CLIENTS = 10;

let shop: LoadShop;
beforeAll(async () => {
  shop = await openLoadShop({ servers: Number(process.env['SERVERS'] ?? 1), technicians: CLIENTS });
}, 120_000);
afterAll(() => shop.close());

/** Runs a client each until the time is over; every call is timed. */
async function measure(work: (caller: Caller, client: number) => Promise<void>): Promise<Figures> {
  const times: number[] = [];
  const until = performance.now() + SECONDS * 1000;
  const started = performance.now();
  await Promise.all(
    shop.technicians.map(async (caller, i) => {
      while (performance.now() < until) {
        const before = performance.now();
        await work(caller, i);
        times.push(performance.now() - before);
      }
    }),
  );
  const seconds = (performance.now() - started) / 1000;
  times.sort((a, b) => a - b);
  return {
    aSecond: times.length / seconds,
    p50: times[times.length >> 1]!,
    p95: times[Math.floor(times.length * 0.95)]!,
  };
}
interface Figures {
  aSecond: number;
  p50: number;
  p95: number;
}
const say = (what: string, { aSecond, p50, p95 }: Figures) =>
  console.log(`${what}: ${aSecond.toFixed(0)} a second, p50 ${p50.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms`);

it('records', async () => {
  const queues: Sent[][] = await Promise.all(shop.technicians.map((c) => openWork(c)));
  const figures = await measure(async (caller, i) => {
    const queue = queues[i]!;
    if (queue.length === 0) queue.push(...(await openWork(caller)));
    const answer = await record(caller, queue.shift()!);
    expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  });
  say('recordings', figures);
  // The same bytes appended by as many bare connections: what the machine allows.
  const clients = await Promise.all(
    shop.technicians.map(async () => {
      const client = new pg.Client({
        connectionString: shop.postgres.url,
        options: '-c lanternwright.owners=all',
      });
      await client.connect();
      return client;
    }),
  );
  await clients[0]!.query('select 1');
  const bare = await measure(async (_caller, i) => {
    const client = clients[i]!;
    await client.query('begin');
    await client.query(
      `select append_entry('stock', $1, 1, gen_random_uuid(), now(), '{}', $2, repeat('0', 64))`,
      [String(Math.random()), JSON.stringify({ kind: 'bare', words: 'x'.repeat(300) })],
    );
    await client.query('commit');
  });
  say('bare appends in SQL', bare);
  console.log(`ratio ${(figures.aSecond / bare.aSecond).toFixed(2)}`);
  await Promise.all(clients.map((c) => c.end()));
}, 300_000);

it('reads', async () => {
  const units = await must<{ id: string }[]>(shop.supervisor, 'GET', '/api/fleet/units');
  let n = 0;
  const unit = () => units[n++ % units.length]!.id;
  const get = (path: () => string) => measure(async (caller) => void (await must(caller, 'GET', path())));
  say('unit page', await get(() => `/api/fleet/units/${unit()}`));
  say('unit history', await get(() => `/api/fleet/units/${unit()}/history`));
  say('fleet', await get(() => '/api/fleet/units'));
  say('open jobs', await get(() => '/api/jobs?status=open'));
}, 300_000);
