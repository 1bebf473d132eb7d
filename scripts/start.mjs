import { randomInt } from 'node:crypto';
import { join } from 'node:path';
import { buildServer, buildWeb } from './lib/build.mjs';
import { checkDatabase, checkHome, checkShopAddress, portOf } from './lib/before-start.mjs';
import { dataHome, sessionSecret } from './lib/home.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { end } from './lib/run.mjs';
import { openTo, thisMachineOnly } from './lib/network.mjs';
import { main, part, say, describeTook } from './lib/output.mjs';
import { portFrom, startServer } from './lib/serve.mjs';

const empty = process.argv.includes('--empty');
const network = process.argv.includes('--network');

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
  // What cannot work is said before anything is installed or built.
  const wanted = portOf(process.env['PORT']);
  checkShopAddress(process.env['SHOP_ADDRESS']);
  const home = dataHome();
  checkHome(home);
  const outside = process.env['DATABASE_URL'];
  await checkDatabase(outside);

  await part('Packages', () => ensurePackages('to-run'));
  await part('Server and pages built', () => Promise.all([buildServer(), buildWeb()]));

  // Asked for by the first person of an empty shop; printed here and nowhere else.
  const code = `${randomInt(1e3, 1e4)}-${randomInt(1e3, 1e4)}`;
  if (!outside) database = watched(await part('Database', () => startPostgres(home)));
  const port = await portFrom(wanted);
  if (port !== wanted) say(`Port ${wanted} is taken by something else: ${port} is used.`);
  const door = network ? openTo(port, process.env['SHOP_ADDRESS']) : thisMachineOnly(process.env['HOST']);

  try {
    server = await part('Server', () =>
      startServer({ ...settings(), PORT: String(port) }, [], {
        part: (name, seconds) => say(`  ${name}: ${describeTook(seconds)}`),
        waiting: (at) =>
          say(`Lanternwright is at http://127.0.0.1:${at}. The demo is being made: the page says how far.`),
        making: sayTenths(),
      }),
    );
  } catch (error) {
    if (stopping) return;
    // What ends now is meant to: nothing brings it back.
    stopping = true;
    await database?.stop();
    throw error;
  }
  const address = `http://127.0.0.1:${server.port}`;
  say(`Lanternwright is at ${address}. Stop it with Ctrl-C.`);
  say(door.words);
  const session = await (await fetch(`${address}/api/people/session`)).json();
  if (session.needsFirstPerson)
    say(`Nobody works there yet. The first person is asked for this code: ${code}`);
  else if (session.demoPeople.length > 0)
    say(
      `It is a demo${network ? ', which lets everybody on the network in as anybody' : ''}. “Begin with our own shop” on its first page asks for this code: ${code}`,
    );
  watch(server);

  function settings() {
    return {
      DATABASE_URL: outside ?? database?.url ?? '',
      ...(outside || !database ? {} : { DATABASE_OWNER_URL: database.ownerUrl }),
      SESSION_SECRET: process.env['SESSION_SECRET'] ?? sessionSecret(home),
      SHOP_ZONE: process.env['SHOP_ZONE'] ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      SEALS: process.env['SEALS'] ?? join(home, 'seals'),
      BACKUPS: process.env['BACKUPS'] ?? join(home, 'backups'),
      DEMO: empty ? 'no' : 'yes',
      FIRST_CODE: code,
      ...door.settings,
    };
  }

  /** @param {Awaited<ReturnType<typeof startServer>>} running comes back by itself, on the same port */
  function watch({ child, port }) {
    child.once('exit', async () => {
      if (stopping) return;
      say('The server stopped by itself. It is started again.');
      const back = await again(() => startServer({ ...settings(), PORT: String(port) }));
      if (!back) return;
      if (stopping) await end(back.child);
      else watch((server = back));
    });
  }

  /**
   * @param {Awaited<ReturnType<typeof startPostgres>>} running comes back by itself, on the same port
   */
  function watched(running) {
    running.server.once('exit', async () => {
      if (stopping) return;
      say('The database stopped by itself. It is started again.');
      const back = await again(() => startPostgres(home, { port: running.port }));
      if (!back) return;
      // We may have been stopped while it was coming up.
      if (stopping) await back.stop();
      else database = watched(back);
    });
    return running;
  }

  /**
   * Tries until it works or we are stopped, a little later each time.
   * @template T
   * @param {() => Promise<T>} begin
   * @returns {Promise<T | null>}
   */
  async function again(begin) {
    for (let wait = 500; !stopping; wait = Math.min(wait * 2, 30_000)) {
      await new Promise((resolve) => setTimeout(resolve, wait));
      if (stopping) return null;
      try {
        return await begin();
      } catch (error) {
        say(error instanceof Error ? error.message : String(error));
      }
    }
    return null;
  }
});

/** @returns {(percent: number) => void} says how far the demo is at every tenth */
function sayTenths() {
  let said = 0;
  return (percent) => {
    if (percent < said + 10) return;
    said = percent - (percent % 10);
    say(`  demo data: ${said} of 100`);
  };
}
