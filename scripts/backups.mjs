import { join, resolve } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { dataHome } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { ownerUrlOf, runningOn, startPostgres, urlOf } from './lib/postgres.mjs';
import { root, run } from './lib/run.mjs';
import { main, say, Trouble } from './lib/output.mjs';

/** `backup FILE` or `restore FILE`, on DATABASE_OWNER_URL, on the shop that `npm start` runs now, or on its stopped data. */
await main(async () => {
  const [task = '', file, ...options] = process.argv.slice(2);
  if (!file) throw new Trouble(`Name the file: npm run ${task || 'backup'} -- shop.tar`);
  checkNode();
  await ensurePackages('to-run');
  await buildServer();
  const home = dataHome();
  const running = runningOn(join(home, 'pg'));
  const outside = process.env['DATABASE_OWNER_URL'];
  const database = outside || running ? null : await startPostgres(home);
  const ownerUrl = outside ?? database?.ownerUrl ?? ownerUrlOf(home, running?.port ?? 0);
  const { code, output } = await run('node', ['server/dist/backups.js', task, resolve(file), ...options], {
    quiet: true,
    cwd: root,
    env: {
      ...process.env,
      DATABASE_OWNER_URL: ownerUrl,
      ...(outside ? {} : { DATABASE_URL: database?.url ?? urlOf(home, running?.port ?? 0) }),
      SEALS: process.env['SEALS'] ?? join(home, 'seals'),
    },
  });
  say(output.trim());
  process.exitCode = code;
  await database?.stop();
});
