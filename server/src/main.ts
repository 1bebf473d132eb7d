import { createServer } from 'node:http';
import { setTimeout } from 'node:timers/promises';
import { createApp } from './app.ts';
import { nextBackup } from './backup/backup.ts';
import { readConfig } from './config.ts';
import { migrateAndGrant, withOwner } from './database/owner.ts';
import { prepareQueue, startQueue } from './queue/queue.ts';
import { guardProcess } from './start/guard.ts';
import { loadDemo, needsDemo } from './demo/load.ts';
import { refreshLeftOut } from './plan/refresh-due.ts';
import { openWaitingRoom } from './start/waiting-room.ts';

// Whatever this program writes into files is for its own account to read.
process.umask(0o077);

/** Longest wait at the end for requests that are being answered. */
const LAST_ANSWERS_MS = 3_000;

/** Does a part of the start and tells whoever started us how long it took. */
async function part<T>(name: string, work: () => Promise<T>): Promise<T> {
  const begun = performance.now();
  const done = await work();
  process.send?.({ part: name, seconds: (performance.now() - begun) / 1000 });
  return done;
}

/** Makes the demo where there is none, with a page at our address that says how far it is. */
async function makeDemo(): Promise<boolean> {
  const room = (await needsDemo(app.db)) ? await openWaitingRoom(config).catch(cannotListen) : null;
  if (room) process.send?.({ waiting: room.port });
  let said = -1;
  try {
    return await loadDemo(app, undefined, (share) => {
      const percent = Math.floor(share);
      if (percent === said) return;
      said = percent;
      room?.tell('The demo is being made, four years of an invented workshop', percent);
      process.send?.({ making: percent });
    });
  } finally {
    await room?.close();
  }
}

function cannotListen({ message }: Error): never {
  console.error(`The server cannot listen on ${config.host}:${config.port}: ${message}`);
  process.exit(1);
}

const config = readConfig(process.env);
const app = createApp(config);
await part('tables up to date', () => withOwner(config, migrateAndGrant(config.databaseUrl)));
if (config.ownerUrl === config.databaseUrl)
  app.log.warn('one database role owns the tables and serves: nothing but triggers keeps it from the record');
const begins = config.demo && (await part('demo data', makeDemo));
await refreshLeftOut(app.db);
await app.settings.load();
await app.live.start();
if (config.seals) await app.seals.sealEnd(begins);
else app.log.warn('the record is not sealed: SEALS names no folder');

const { backups } = config;
await prepareQueue(config, app.log);
const queue = await startQueue(
  config.databaseUrl,
  {
    seal: () => app.seals.sealEnd(),
    plan: (id) => app.proposals.run(id),
    'meter-file': (id) => app.meterFiles.run(id),
    morning: () => app.morning.run(),
    'keep-parts': () => app.keeper.keep(),
    'tell-programs': () => app.webhooks.tell(),
    deliver: (id) => app.webhooks.deliver(id),
    supplier: config.supplier && (async () => void (await app.supplier.ask())),
    feed: config.feed.url === null ? null : async () => void (await app.feed.ask()),
    backup: backups && (async () => void (await nextBackup(config, backups))),
  },
  app.log,
);

const server = createServer(app.app);
// The default of 5 s closes a quiet connection just as a slow hand at a step uses it again.
server.keepAliveTimeout = 55_000;
server.on('error', cannotListen);
server.listen(config.port, config.host, () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  process.send?.({ listening: port });
});

let stopping = false;
// Whoever asks once more while it stops is answered, and asks elsewhere after that.
server.prependListener('request', (_req, res) => {
  if (stopping) res.setHeader('Connection', 'close');
});
async function stop(code = 0): Promise<void> {
  if (stopping) return;
  stopping = true;
  await queue.stop();
  await answerTheLast();
  await app.close();
  server.closeAllConnections();
  process.exit(code);
}

/** Takes no more requests, and waits a little for those that are being answered. */
async function answerTheLast(): Promise<void> {
  const quiet = new Promise<void>((done) => void server.close(() => done()));
  app.streams.endAll();
  // A connection that has its answer would stay open for the next request.
  const idle = setInterval(() => server.closeIdleConnections(), 50);
  await Promise.race([quiet, setTimeout(LAST_ANSWERS_MS)]);
  clearInterval(idle);
}
guardProcess(app.log, () => stop(1));
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
// Whoever started us was killed: nobody would stop us later.
process.on('disconnect', () => void stop());
