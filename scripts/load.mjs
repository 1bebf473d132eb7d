import { buildServer } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { run } from './lib/run.mjs';
import { main, Trouble } from './lib/output.mjs';

/**
 * `faults` (FAULTS, SEED), `speed` (SECONDS, SERVERS), `fleet` (UNITS, READINGS, SECONDS), `stores` (PARTS, SECONDS), `rebuild` (UNITS)
 * or `steady` (MINUTES): the built servers as processes of their own
 * on a PostgreSQL of their own, on loopback.
 */
await main(async () => {
  const [what = ''] = process.argv.slice(2);
  if (!['faults', 'speed', 'fleet', 'stores', 'rebuild', 'steady'].includes(what))
    throw new Trouble('Name one: faults, speed, fleet, stores, rebuild or steady.');
  checkNode();
  await ensurePackages();
  await buildServer();
  const { code } = await run('npx', ['--no-install', 'vitest', 'run', '--project', 'load', `${what}.load`]);
  process.exitCode = code;
});
