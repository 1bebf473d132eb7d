import { buildServer } from './lib/build.mjs';
import { dataHome } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { runningOn, startPostgres, urlOf } from './lib/postgres.mjs';
import { root, run } from './lib/run.mjs';
import { main, say } from './lib/output.mjs';
import { join } from 'node:path';

/** `verify`, `export FOLDER`, `note` or `rebuild`, on DATABASE_URL, on the database that `npm start` runs now, or on its stopped data. */
await main(async () => {
  checkNode();
  await ensurePackages('to-run');
  await buildServer();
  const running = runningUrl();
  const database = process.env['DATABASE_URL'] || running ? null : await startPostgres(dataHome());
  const url = process.env['DATABASE_URL'] ?? running ?? database?.url ?? '';
  const { code, output } = await run('node', ['server/dist/records.js', ...process.argv.slice(2)], {
    quiet: true,
    stdio: ['inherit', 'pipe', 'pipe'],
    cwd: root,
    env: { ...process.env, DATABASE_URL: url, SEALS: process.env['SEALS'] ?? join(dataHome(), 'seals') },
  });
  say(output.trim());
  process.exitCode = code;
  await database?.stop();
});

/** @returns {string | null} address of our database if it runs now */
function runningUrl() {
  const home = dataHome();
  const running = runningOn(join(home, 'pg'));
  if (!running) return null;
  return urlOf(home, running.port);
}
