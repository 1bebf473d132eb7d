import { checkNode, ensurePackages } from './lib/packages.mjs';
import { main } from './lib/output.mjs';
import { run } from './lib/run.mjs';

/**
 * Lives through more histories of a wheel end than the tests do: `npm run histories -- --count 20000 --seed 7`. The first
 * that breaks is made as short as it can be, and told.
 */
await main(async () => {
  checkNode();
  await ensurePackages();
  const args = process.argv.slice(2);
  /** @param {string} name */
  const option = (name) => (args.includes(`--${name}`) ? args[args.indexOf(`--${name}`) + 1] : undefined);
  const [count, seed] = [option('count') ?? '20000', option('seed')];
  const { code } = await run('npx', ['--no-install', 'vitest', 'run', '--project', 'core', 'histories'], {
    env: { ...process.env, HISTORIES: count, SEED: seed ?? 'any' },
  });
  process.exitCode = code;
});
