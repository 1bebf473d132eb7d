import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { aptInstall } from '../../../../scripts/lib/packages.mjs';
import { startPostgres } from '../../../../scripts/lib/postgres.mjs';
import { end } from '../../../../scripts/lib/run.mjs';
import { connectDatabase } from '../../database/connect.ts';
import { verifyRecord } from '../../record/verify.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { untilReady } from './faults.ts';
import { openStandby, pieceOf } from './standby.ts';
import { openWork, record, type Caller } from './technician.ts';

const NGINX = '/usr/sbin/nginx';
const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

let shop: LoadShop;
let proxy: ChildProcess;
let through: Caller;
const home = mkdtempSync(join(tmpdir(), 'lanternwright-proxy-'));
beforeAll(async () => {
  if (!existsSync(NGINX)) await aptInstall('nginx', 'install nginx, or leave this test out.');
  shop = await openLoadShop({ servers: 2, technicians: 1 });
  const [one, two] = shop.running.map((r) => r.port) as [number, number];
  const port = await freePort();
  const config = pieceOf('nginx', 'upstream lanternwright')
    .replace('127.0.0.1:8080', `127.0.0.1:${one}`)
    .replace('127.0.0.1:8081', `127.0.0.1:${two}`)
    .replace('listen 127.0.0.1:8088', `listen 127.0.0.1:${port}`);
  writeFileSync(join(home, 'nginx.conf'), `pid ${home}/nginx.pid;\nerror_log ${home}/error.log;\n${config}`);
  const settings = `daemon off;${process.getuid?.() === 0 ? 'user root;' : ''}`;
  proxy = spawn(NGINX, ['-p', home, '-c', join(home, 'nginx.conf'), '-g', settings], { stdio: 'ignore' });
  through = { ...shop.technicians[0]!, base: `http://127.0.0.1:${port}` };
  await untilReady(through.base);
}, 180_000);
afterAll(async () => {
  await end(proxy);
  await shop.close();
  rmSync(home, { recursive: true, force: true });
});

it('behind the proxy of docs/operating.md a server can die: work goes on, a browser gets what it missed', async () => {
  const work = await openWork(through);
  const next = async () => {
    const { status, body } = await record(through, work.shift()!);
    expect(status, JSON.stringify(body)).toBe(200);
  };
  const listen = async (lastSeen?: string) => {
    const headers = { cookie: through.cookie, ...(lastSeen ? { 'last-event-id': lastSeen } : {}) };
    const stream = await fetch(`${through.base}/api/live`, { headers });
    return stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  };
  const reader = await listen();
  let text = '';
  while (!text.includes('event: anew')) text += (await reader.read()).value ?? '';
  for (let i = 0; i < 4; i++) await next();
  while ((text.match(/"version":/g) ?? []).length < 4) text += (await reader.read()).value ?? '';
  const lastSeen = /.*^id: (\d+)$/ms.exec(text)![1]!;

  await end(shop.running[0]!.child, 'SIGKILL');
  for (let i = 0; i < 4; i++) await next();
  await reader.cancel().catch(() => undefined);
  const again = await listen(lastSeen);
  let missed = '';
  while (!missed.includes('event: resumed')) missed += (await again.read()).value ?? '';
  expect(missed.match(/"version":/g)).toHaveLength(4);
  await again.cancel();
  shop.running[0] = await shop.start(shop.running[0]!.port);
}, 60_000);

it('the standby of docs/operating.md answers lists, never older than what was seen, and takes over', async () => {
  const standby = await openStandby(shop.postgres, shop.home);
  const second = standby.postgres;
  const count = async (of: typeof second) =>
    (await of.psql('lanternwright', 'select max(seq) from entry')).output.trim();
  const caughtUp = () =>
    expect.poll(async () => (await count(second)) === (await count(shop.postgres))).toBe(true);
  await caughtUp();

  const reader = await shop.start(0, { DATABASE_STANDBY_URL: second.url });
  const base = `http://127.0.0.1:${reader.port}`;
  const supervisor = { ...shop.supervisor, base };
  const units = async (seen?: string) => {
    const headers = { cookie: supervisor.cookie, ...(seen === undefined ? {} : { 'record-seen': seen }) };
    const answer = await fetch(`${base}/api/fleet/units`, { headers });
    const { total } = (await answer.json()) as { total: number };
    return { length: total, seen: answer.headers.get('record-seen')! };
  };
  const before = await units();
  expect(before.seen).toBe(await count(shop.postgres));
  expect((await second.psql('lanternwright', 'select pg_wal_replay_pause()')).code).toBe(0);
  await openWork(supervisor);
  const after = await units();
  expect(after.length).toBe(before.length + 1);
  // Only whoever has seen no more than the standby has is answered by it.
  expect((await units(before.seen)).length).toBe(before.length);
  for (const seen of [after.seen, '', '0', '-1', '1e3', 'x', '99999999999999999999'])
    expect((await units(seen)).length, seen).toBe(after.length);
  await second.psql('lanternwright', 'select pg_wal_replay_resume()');
  await caughtUp();
  expect((await units(after.seen)).length).toBe(after.length);

  const work = await openWork(through);
  for (let i = 0; i < 5; i++) expect((await record(through, work.shift()!)).status).toBe(200);
  await caughtUp();

  // The first machine is lost.
  for (const { child } of [...shop.running, reader]) await end(child, 'SIGKILL');
  await end(shop.postgres.server, 'SIGKILL');
  await standby.promote();
  const server = await shop.start(shop.running[0]!.port, {
    DATABASE_URL: second.url,
    DATABASE_OWNER_URL: second.ownerUrl,
  });
  shop.running.splice(0, 2, server);
  expect((await record(through, work.shift()!)).status).toBe(200);
  const db = connectDatabase(second.ownerUrl, { pool: 2 });
  expect(await verifyRecord(db, shop.seals)).toMatchObject({ ok: true });
  await db.sequelize.close();
  await end(server.child);
  await standby.close();
}, 90_000);

it('a standby that is gone is left alone', async () => {
  shop.postgres = await startPostgres(shop.home, { port: shop.postgres.port });
  const nobody = `postgres://nobody@127.0.0.1:${await freePort()}/nothing`;
  const reader = await shop.start(0, { DATABASE_STANDBY_URL: nobody });
  const answer = await fetch(`http://127.0.0.1:${reader.port}/api/fleet/units`, {
    headers: { cookie: shop.supervisor.cookie, 'record-seen': '1' },
  });
  expect(answer.status).toBe(200);
  expect(((await answer.json()) as { total: number }).total).toBeGreaterThan(0);
  await end(reader.child);
}, 60_000);
