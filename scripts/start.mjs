import { buildServer, buildWeb } from './lib/build.mjs';
import { dataHome, sessionSecret } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { end } from './lib/run.mjs';
import { main, say, Trouble } from './lib/say.mjs';
import { portFrom, startServer } from './lib/serve.mjs';

const empty = process.argv.includes('--empty');

await main(async () => {
  /** @type {Awaited<ReturnType<typeof startPostgres>> | null} */
  let database = null;
  /** @type {Awaited<ReturnType<typeof startServer>> | null} */
  let server = null;
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    if (!server) {
      say('\nStopped before it was up.');
      await database?.stop();
      process.exit(130);
    }
    say('\nStopping.');
    await end(server.child);
    await database?.stop();
    say('Stopped. Everything is kept.');
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop());

  checkNode();
  await ensurePackages();
  await buildServer();
  await buildWeb();

  const home = dataHome();
  const outside = process.env['DATABASE_URL'];
  if (!outside) database = await startPostgres(home);

  try {
    server = await startServer({
      DATABASE_URL: outside ?? database?.url ?? '',
      PORT: String(await portFrom(wantedPort())),
      SESSION_SECRET: process.env['SESSION_SECRET'] ?? sessionSecret(home),
      SHOP_ZONE: process.env['SHOP_ZONE'] ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      DEMO: empty ? 'no' : 'yes',
    });
  } catch (error) {
    await database?.stop();
    if (stopping) return;
    throw error;
  }
  say(`Lanternwright is at http://127.0.0.1:${server.port}. Stop it with Ctrl-C.`);
  server.child.once('exit', () => void stop());
});

function wantedPort() {
  const text = process.env['PORT'] ?? '8080';
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Trouble(`PORT is “${text}”: set it to a number from 1 to 65535.`);
  return port;
}
