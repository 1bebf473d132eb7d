import { buildServer, buildWeb } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { main } from './lib/output.mjs';

await main(async () => {
  checkNode();
  await ensurePackages('to-run');
  await buildServer();
  await buildWeb();
});
