import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/run.mjs';
import { main } from './lib/say.mjs';

/** Starts the stand-ins for dial indicator, torque wrench and hub thermometer: `npm run instruments`. */
await main(async () => {
  checkNode();
  await ensurePackages();
  await buildServer();
  const child = spawn(process.execPath, [join(root, 'server/dist/instruments/simulate.js')], {
    stdio: 'inherit',
  });
  child.once('exit', (code) => (process.exitCode = code ?? 1));
});
