import { buildServer } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { run } from './lib/run.mjs';
import { main, Trouble } from './lib/say.mjs';

/**
 * `faults` (FAULTS, SEED) or `speed` (SECONDS, SERVERS): the built servers as processes of their own on a PostgreSQL of
 * their own, on loopback.
 */
await main(async () => {
  const [what = ''] = process.argv.slice(2);
  if (what !== 'faults' && what !== 'speed') throw new Trouble('Say faults or speed.');
  checkNode();
  await ensurePackages();
  await buildServer();
  const { code } = await run('npx', ['--no-install', 'vitest', 'run', '--project', 'load', `${what}.load`]);
  process.exitCode = code;
});
