import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/run.mjs';
import { main, Trouble } from './lib/output.mjs';

/**
 * Starts a stand-in: `npm run instruments` (dial indicator, torque wrench, hub thermometer), `telematics` (the feed of the
 * units’ own readings), `mailbox` (a mail server with its mailbox) , `supplier` (who takes orders online) or `listener` (who is told by a
 * webhook).
 */
const programs = {
  instruments: 'instruments/simulate.js',
  telematics: 'feed/simulate.js',
  mailbox: 'morning/simulate.js',
  supplier: 'supplier/simulate.js',
  listener: 'programs/simulate.js',
};

await main(async () => {
  const [name = ''] = process.argv.slice(2);
  const program = new Map(Object.entries(programs)).get(name);
  if (!program) throw new Trouble(`Say ${Object.keys(programs).join(', ')}.`);
  checkNode();
  await ensurePackages('to-run');
  await buildServer();
  const child = spawn(process.execPath, [join(root, 'server/dist', program)], {
    stdio: 'inherit',
  });
  child.once('exit', (code) => (process.exitCode = code ?? 1));
});
