import { spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { aptInstall } from '../../../../scripts/lib/packages.mjs';
import { startPostgres } from '../../../../scripts/lib/postgres.mjs';
import { end, run } from '../../../../scripts/lib/run.mjs';
import { connectDatabase } from '../../database/connect.ts';
import { verifyRecord } from '../../record/verify.ts';
import { openLoadShop, type LoadShop } from './shop.ts';
import { untilReady } from './faults.ts';
import { openWork, record, type Caller } from './technician.ts';

/** The pieces of docs/operating.md that are followed here, as they stand there. */
const operating = readFileSync(new URL('../../../../docs/operating.md', import.meta.url), 'utf8');
function pieceOf(language: string, containing: string): string {
  const pieces = [...operating.matchAll(/```(\w+)\n([\s\S]*?)```/g)];
  const found = pieces.find(([, of, text]) => of === language && text!.includes(containing));
  if (!found) throw new Error(`docs/operating.md has no ${language} with ${containing}`);
  return found[2]!;
}

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

it('the standby of docs/operating.md has everything, and takes over', async () => {
  const account = process.getuid?.() === 0 ? { uid: await idOf('-u'), gid: await idOf('-g') } : {};
  const standby = mkdtempSync(join(tmpdir(), 'lanternwright-standby-'));
  await run('chown', ['-R', account.uid ? 'postgres' : String(process.getuid?.()), standby], { quiet: true });
  const sql = pieceOf('sql', 'replication').replace('choose one', 'a word for tests');
  expect((await shop.postgres.psql('postgres', sql)).code).toBe(0);
  const env = {
    ...process.env,
    PATH: `${await binOf()}:${process.env['PATH']}`,
    PGPASSWORD: 'a word for tests',
    PRIMARY_HOST: '127.0.0.1',
    PRIMARY_PORT: String(shop.postgres.port),
    STANDBY_DATA: join(standby, 'pg'),
  };
  const follow = (text: string) => run('bash', ['-euc', text], { quiet: true, cwd: '/', env, ...account });
  const copied = await follow(pieceOf('sh', 'pg_basebackup'));
  expect(copied.code, copied.output).toBe(0);
  for (const name of ['password', 'app-password', 'server-password'])
    copyFileSync(join(shop.home, name), join(standby, name));
  const second = await startPostgres(standby);

  const work = await openWork(through);
  for (let i = 0; i < 5; i++) expect((await record(through, work.shift()!)).status).toBe(200);
  const count = async (of: typeof second) =>
    (await of.psql('lanternwright', 'select max(seq) from entry')).output.trim();
  await expect.poll(async () => (await count(second)) === (await count(shop.postgres))).toBe(true);

  // The first machine is lost.
  for (const { child } of shop.running) await end(child, 'SIGKILL');
  await end(shop.postgres.server, 'SIGKILL');
  const promoted = await follow(pieceOf('sh', 'pg_ctl promote'));
  expect(promoted.code, promoted.output).toBe(0);
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
  await second.stop();
  rmSync(standby, { recursive: true, force: true });
}, 90_000);

async function idOf(flag: string): Promise<number> {
  return Number((await run('id', [flag, 'postgres'], { quiet: true })).output);
}

/** Where Debian keeps the programs of the PostgreSQL that runs. */
async function binOf(): Promise<string> {
  const { output } = await run('sh', ['-c', 'ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1'], {
    quiet: true,
  });
  return output.trim();
}
