import { buildServer } from './lib/build.mjs';
import { dataHome } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { root, run } from './lib/run.mjs';
import { main, say } from './lib/say.mjs';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** `verify` or `rebuild`, on DATABASE_URL, on the database that `npm start` runs now, or on its stopped data. */
await main(async () => {
  checkNode();
  await ensurePackages();
  await buildServer();
  const running = runningUrl();
  const database = process.env['DATABASE_URL'] || running ? null : await startPostgres(dataHome());
  const url = process.env['DATABASE_URL'] ?? running ?? database?.url ?? '';
  const { code, output } = await run('node', ['server/dist/records.js', process.argv[2] ?? ''], {
    quiet: true,
    cwd: root,
    env: { ...process.env, DATABASE_URL: url },
  });
  say(output.trim());
  process.exitCode = code;
  await database?.stop();
});

/** @returns {string | null} address of our database if it runs now; its port stands in PostgreSQL's own pid file */
function runningUrl() {
  const home = dataHome();
  const pidFile = join(home, 'pg/postmaster.pid');
  if (!existsSync(pidFile)) return null;
  const port = readFileSync(pidFile, 'utf8').split('\n')[3];
  return `postgres://lanternwright:${readFileSync(join(home, 'password'), 'utf8').trim()}@127.0.0.1:${port}/lanternwright`;
}
