import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres } from '../../../../scripts/lib/postgres.mjs';
import { end } from '../../../../scripts/lib/run.mjs';
import { startServer } from '../../../../scripts/lib/serve.mjs';
import { must, signIn, type Caller } from './technician.ts';

const PASSWORD = 'correct horse battery';
const CODE = '4711-0815';

/** A server of the shop as a process of its own. */
type Running = Awaited<ReturnType<typeof startServer>>;

/** Two built servers or more on one durable PostgreSQL, empty but for a supervisor and technicians. */
export async function openLoadShop({ servers, technicians }: { servers: number; technicians: number }) {
  const home = mkdtempSync(join(tmpdir(), 'lanternwright-load-'));
  const postgres = await startPostgres(home);
  const settings = {
    DATABASE_URL: postgres.url,
    DATABASE_OWNER_URL: postgres.ownerUrl,
    SEALS: join(home, 'seals'),
    SESSION_SECRET: randomBytes(16).toString('hex'),
    FIRST_CODE: CODE,
    SIGN_IN_TRIES: '1000',
    LOG_LEVEL: 'silent',
  };
  // PROFILE=folder writes where the time of each server went.
  const { PROFILE } = process.env;
  const options = PROFILE ? ['--cpu-prof', `--cpu-prof-dir=${PROFILE}`] : [];
  const start = (port = 0, more: Record<string, string> = {}) =>
    startServer({ ...settings, PORT: String(port), ...more }, options);
  const running: Running[] = [];
  for (let i = 0; i < servers; i++) running.push(await start());
  const bases = running.map(({ port }) => `http://127.0.0.1:${port}`);
  const first = { name: 'I. Okonedo', login: 'okonedo', password: PASSWORD, code: CODE };
  await must({ base: bases[0]!, cookie: '' }, 'POST', '/api/people/first', first);
  const supervisor = await signIn(bases[0]!, 'okonedo', PASSWORD);
  const people: Caller[] = [];
  for (let i = 0; i < technicians; i++) {
    const login = `tech${i}`;
    const person = { name: `Technician ${i}`, login, role: 'technician' };
    const { code } = await must<{ code: string }>(supervisor, 'POST', '/api/people', person);
    const base = bases[i % bases.length]!;
    await must({ base, cookie: '' }, 'POST', '/api/people/session/code', { login, code, password: PASSWORD });
    people.push(await signIn(base, login, PASSWORD));
  }
  return {
    home,
    seals: settings.SEALS,
    postgres,
    running,
    start,
    supervisor,
    technicians: people,
    async close(): Promise<void> {
      await Promise.all(running.map(({ child }) => end(child)));
      await postgres.stop();
      rmSync(home, { recursive: true, force: true });
    },
  };
}
export type LoadShop = Awaited<ReturnType<typeof openLoadShop>>;
