import type pg from 'pg';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { UNIT_PAGE } from '../../fleet/unit-page.ts';
import { CLOSED_JOBS, OPEN_JOBS } from '../../jobs/job-lines.ts';
import { bareClients, measure, quantile, say } from './measure.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { must, openWork, record, type Caller, type Sent } from './technician.ts';

/** How long each is measured. */
const SECONDS = Number(process.env['SECONDS'] ?? 10);
const CLIENTS = 10;
/** Records between two that a second screen is timed on. */
const SCREENS = 100;

let shop: LoadShop;
let bare: pg.Client[];
beforeAll(async () => {
  shop = await openLoadShop({ servers: Number(process.env['SERVERS'] ?? 1), technicians: CLIENTS });
  bare = await bareClients(shop.postgres.url, CLIENTS);
}, 120_000);
afterAll(async () => {
  await Promise.all(bare.map((c) => c.end()));
  await shop.close();
});

it('records', async () => {
  const queues: Sent[][] = await Promise.all(shop.technicians.map((c) => openWork(c)));
  const figures = await measure(shop.technicians, SECONDS, async (caller, i) => {
    const queue = queues[i]!;
    if (queue.length === 0) queue.push(...(await openWork(caller)));
    const answer = await record(caller, queue.shift()!);
    expect(answer.status, JSON.stringify(answer.body)).toBe(200);
  });
  // The same bytes appended by as many bare connections: what the machine allows.
  const body = JSON.stringify({ kind: 'bare', words: 'x'.repeat(300) });
  const appends = await measure(bare, SECONDS, async (client) => {
    await client.query('begin');
    await client.query(
      `select append_entry('stock', $1, 1, gen_random_uuid(), now(), '{}', $2, repeat('0', 64))`,
      [String(Math.random()), body],
    );
    await client.query('commit');
  });
  say('recordings', figures, appends);
}, 300_000);

it('shows a record on a second screen', async () => {
  const [one, two] = shop.technicians as [Caller, Caller];
  const stream = await fetch(`${two.base}/api/live`, { headers: { cookie: two.cookie } });
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  const until = async (words: string) => {
    while (!text.includes(words)) text += (await reader.read()).value ?? '';
    text = text.slice(text.indexOf(words) + words.length);
  };
  await until('event: anew');
  const times: number[] = [];
  for (let queue: Sent[] = []; times.length < SCREENS;) {
    if (queue.length === 0) queue = await openWork(one);
    const sent = queue.shift()!;
    const before = performance.now();
    await Promise.all([record(one, sent), until(sent.id)]);
    times.push(performance.now() - before);
  }
  await reader.cancel();
  console.log(
    `recording to second screen: p50 ${quantile(times, 0.5).toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms`,
  );
}, 120_000);

it('reads', async () => {
  await Promise.all(
    shop.technicians.map(async (caller) => {
      for (const sent of (await openWork(caller)).slice(0, 40)) await record(caller, sent);
    }),
  );
  const { units } = await must<{ units: { id: string }[] }>(shop.supervisor, 'GET', '/api/fleet/units');
  // A shop has far more closed jobs than open ones.
  await shop.postgres.psql('lanternwright', 'update job set closed_at = now() where number % 3 > 0');
  let n = 0;
  const unit = () => units[n++ % units.length]!.id;
  const read = async (what: string, path: () => string, [sql, values]: [string, () => unknown[]]) =>
    say(
      what,
      await measure(shop.technicians, SECONDS, (caller) => must(caller, 'GET', path())),
      await measure(bare, SECONDS, (client) => client.query({ name: what, text: sql, values: values() })),
    );
  await read('unit page', () => `/api/fleet/units/${unit()}`, [UNIT_PAGE, () => [unit()]]);
  const history = `select e.* from job j join entry e on e.stream = 'job' and e.stream_id = j.id ::text where j.unit_id = $1`;
  await read('unit history', () => `/api/fleet/units/${unit()}/history`, [history, () => [unit()]]);
  const open = await must<{ id: string }[]>(shop.supervisor, 'GET', '/api/jobs?status=open');
  const job = () => open[n++ % open.length]!.id;
  const entries = `select * from entry where stream = 'job' and stream_id = $1 order by version`;
  await read('a job', () => `/api/jobs/${job()}`, [entries, () => [job()]]);
  await read('fleet', () => '/api/fleet/units', ['select * from wheel_end', () => []]);
  await read('open jobs', () => '/api/jobs?status=open', [OPEN_JOBS, () => [50, 0, null]]);
  await read('closed jobs', () => '/api/jobs?status=closed&page=2', [CLOSED_JOBS, () => [50, 50, null]]);
}, 600_000);
