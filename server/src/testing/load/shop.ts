import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startPostgres } from '../../../../scripts/lib/postgres.mjs';
import { end } from '../../../../scripts/lib/run.mjs';
import { startServer } from '../../../../scripts/lib/serve.mjs';
import { openDisk } from './disk.ts';
import { must, signIn, type Caller } from './technician.ts';

const PASSWORD = 'correct horse battery';
const CODE = '4711-0815';
const CLOCK = fileURLToPath(new URL('./clock-jump.mjs', import.meta.url));

/** A server of the shop as a process of its own. */
type Running = Awaited<ReturnType<typeof startServer>>;

/** Two built servers or more on one durable PostgreSQL, empty but for a supervisor and technicians. */
export async function openLoadShop({ servers, technicians }: { servers: number; technicians: number }) {
  const disk = await openDisk();
  const home = join(disk.folder, 'shop');
  mkdirSync(home);
  const seals = join(disk.folder, 'seals');
  const settings = {
    SEALS: seals,
    SESSION_SECRET: randomBytes(16).toString('hex'),
    FIRST_CODE: CODE,
    SIGN_IN_TRIES: '1000',
    LOG_LEVEL: 'silent',
  };
  // PROFILE=folder writes where the time of each server went.
  const { PROFILE } = process.env;
  const options = ['--import', CLOCK, ...(PROFILE ? ['--cpu-prof', `--cpu-prof-dir=${PROFILE}`] : [])];
  const running: Running[] = [];

  const shop = {
    disk,
    seals,
    running,
    /** The database, and the folder of its passwords: another one after a failover. */
    postgres: await startPostgres(home),
    home,
    supervisor: { base: '', cookie: '' } as Caller,
    technicians: [] as Caller[],
    /** Starts a server on the database that is the first one now. */
    start: (port = 0, more: Record<string, string> = {}) =>
      startServer(
        {
          DATABASE_URL: shop.postgres.url,
          DATABASE_OWNER_URL: shop.postgres.ownerUrl,
          ...settings,
          PORT: String(port),
          ...more,
        },
        options,
      ),
    async close(): Promise<void> {
      await Promise.all(running.map(({ child }) => end(child)));
      await shop.postgres.stop();
      await disk.close();
    },
  };
  for (let i = 0; i < servers; i++) running.push(await shop.start());
  const bases = running.map(({ port }) => `http://127.0.0.1:${port}`);
  const first = { name: 'I. Okonedo', login: 'okonedo', password: PASSWORD, code: CODE };
  await must({ base: bases[0]!, cookie: '' }, 'POST', '/api/people/first', first);
  shop.supervisor = await signIn(bases[0]!, 'okonedo', PASSWORD);
  for (let i = 0; i < technicians; i++) {
    const login = `tech${i}`;
    const person = { name: `Technician ${i}`, login, role: 'technician' };
    const { code } = await must<{ code: string }>(shop.supervisor, 'POST', '/api/people', person);
    const base = bases[i % bases.length]!;
    await must({ base, cookie: '' }, 'POST', '/api/people/session/code', { login, code, password: PASSWORD });
    shop.technicians.push(await signIn(base, login, PASSWORD));
  }
  return shop;
}
export type LoadShop = Awaited<ReturnType<typeof openLoadShop>>;
