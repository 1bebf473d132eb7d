import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildServer } from './lib/build.mjs';
import { dataHome, sessionSecret } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { end, root } from './lib/run.mjs';
import { main, say } from './lib/output.mjs';
import { portFrom, startServer } from './lib/serve.mjs';

/** The server as built now, and Vite with hot reload in front of it. */
await main(async () => {
  checkNode();
  await ensurePackages('to-run');
  await buildServer();
  const home = dataHome();
  const database = await startPostgres(home);
  const port = await portFrom(8090);
  const server = await startServer({
    DATABASE_URL: database.url,
    DATABASE_OWNER_URL: database.ownerUrl,
    PORT: String(port),
    SESSION_SECRET: sessionSecret(home),
    DEMO: 'yes',
    LOG_LEVEL: 'info',
  });
  const vite = spawn(join(root, 'node_modules/.bin/vite'), ['web'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, API: `http://127.0.0.1:${port}` },
  });
  const stop = async () => {
    await end(vite);
    await end(server.child);
    await database.stop();
    say('Stopped.');
  };
  vite.once('exit', () => void stop());
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => vite.kill());
});
