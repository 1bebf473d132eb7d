import { EventEmitter } from 'node:events';
import { setTimeout } from 'node:timers/promises';
import {
  Logger as QueueLogger,
  run,
  runMigrations,
  type Runner,
  type TaskList,
  type WorkerEvents,
} from 'graphile-worker';
import pg from 'pg';
import type { Logger } from 'pino';
import { z } from 'zod';
import type { Database } from '../database/connect.ts';

/** Where the queue keeps its jobs; the package makes it. */
const SCHEMA = 'graphile_worker';

/** Any number that nothing else in this database locks. */
const PREPARING_LOCK = 618_004;

/** What is done in the background: by one server, whichever takes it, however many there are. */
export interface Background {
  /** Seals the end of the record. */
  seal: () => Promise<void>;
  /** Writes the next backup; null where none are scheduled. */
  backup: (() => Promise<void>) | null;
  /** Asks the units' own feed for readings; null where there is none. */
  feed: (() => Promise<void>) | null;
  /** Asks the supplier how its open orders stand; null where none has a service. */
  supplier: (() => Promise<void>) | null;
  /** Keeps parts for what is booked, and lets go what nobody needs. */
  'keep-parts': () => Promise<void>;
  /** Writes what programs are told of. */
  'tell-programs': () => Promise<void>;
  /** Sends a message to a program. */
  deliver: (id: string) => Promise<void>;
  /** Mails the morning's summary, where it is time. */
  morning: () => Promise<void>;
  /** Makes the plan that was asked for. */
  plan: (id: string) => Promise<void>;
  /** Reads a file of meter readings, or brings it in. */
  'meter-file': (id: string) => Promise<void>;
}

const HOURLY = '0 * * * * seal ?fill=2h&max=5';
const QUARTERLY = (task: 'feed' | 'supplier') => `*/15 * * * * ${task} ?max=3`;
const MORNINGS = '*/15 * * * * morning ?max=2';
const MINUTELY = ['* * * * * keep-parts ?max=1', '* * * * * tell-programs ?max=1'];
const NIGHTLY = '30 2 * * * backup ?fill=12h&max=3';

function loggerOf(log: Logger): QueueLogger {
  return new QueueLogger(() => (level, message) => {
    if (level === 'error') log.error(message);
    else if (level === 'warning') log.warn(message);
    else log.debug(message);
  });
}

/** Does something on a connection of its own. */
async function withClient(
  connectionString: string,
  log: Logger,
  work: (client: pg.Client) => Promise<void>,
): Promise<void> {
  const client = new pg.Client({ connectionString });
  // A database that dies here is told of by what is asked next.
  client.on('error', (err) => log.warn({ err }, 'the queue lost a connection'));
  await client.connect();
  try {
    await work(client);
  } finally {
    await client.end();
  }
}

/** Makes the queue's tables, as the role that owns them, and lets the server's role work in them. */
export async function prepareQueue(
  { ownerUrl, databaseUrl }: { ownerUrl: string; databaseUrl: string },
  log: Logger,
): Promise<void> {
  await withClient(ownerUrl, log, async (client) => {
    // Two servers that start at once do it one after the other; the lock goes with the connection.
    await client.query(`select pg_advisory_lock(${PREPARING_LOCK})`);
    await runMigrations({ connectionString: ownerUrl, schema: SCHEMA, logger: loggerOf(log) });
    if (ownerUrl === databaseUrl) return;
    const role = pg.escapeIdentifier(decodeURIComponent(new URL(databaseUrl).username));
    await client.query(`
      grant usage on schema ${SCHEMA} to ${role};
      grant select, insert, update, delete on all tables in schema ${SCHEMA} to ${role};
      grant usage, select, update on all sequences in schema ${SCHEMA} to ${role};
      grant execute on all functions in schema ${SCHEMA} to ${role}`);
    const { rows } = await client.query<{ name: string }>(
      `select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
       where n.nspname = '${SCHEMA}' and c.relrowsecurity`,
    );
    for (const { name } of rows)
      await client.query(
        `drop policy if exists of_the_server on ${SCHEMA}.${pg.escapeIdentifier(name)};
         create policy of_the_server on ${SCHEMA}.${pg.escapeIdentifier(name)} to ${role} using (true) with check (true)`,
      );
  });
}

const idIn = (payload: unknown) => z.object({ id: z.uuid() }).parse(payload).id;

/** Wait before a queue that ended by itself is begun again, and between two tries of it. */
const AGAIN_MS = 2_000;

/**
 * Takes jobs from the queue in PostgreSQL and adds those that are due by the clock; two servers add each of them once.
 * A job that fails is tried again later, with its reason kept beside it. Where the database goes away and the end of a
 * job cannot be written, the queue ends, is begun again as soon as it can be, and the job is done once more.
 * @returns what ends it, once the job at hand is done
 */
export async function startQueue(
  connectionString: string,
  { seal, backup, feed, supplier, plan, ...tasks }: Background,
  log: Logger,
): Promise<{ stop: () => Promise<void> }> {
  const taskList: TaskList = {
    seal,
    morning: () => tasks.morning(),
    'keep-parts': () => tasks['keep-parts'](),
    'tell-programs': () => tasks['tell-programs'](),
    deliver: (payload) => tasks.deliver(idIn(payload)),
    ...(backup ? { backup } : {}),
    ...(feed ? { feed } : {}),
    ...(supplier ? { supplier } : {}),
    plan: (payload) => plan(idIn(payload)),
    'meter-file': (payload) => tasks['meter-file'](idIn(payload)),
  };
  /** Who took jobs in this process; none of them works any more once the queue has ended. */
  const takers: string[] = [];
  const begin = async (): Promise<Running> => {
    const events: WorkerEvents = new EventEmitter();
    events.on('pool:create', ({ workerPool }) => takers.push(workerPool.id));
    const runner = await run({
      connectionString,
      schema: SCHEMA,
      taskList,
      crontab: [
        ...[HOURLY, MORNINGS, ...MINUTELY],
        ...(backup ? [NIGHTLY] : []),
        ...(feed ? [QUARTERLY('feed')] : []),
        ...(supplier ? [QUARTERLY('supplier')] : []),
      ].join('\n'),
      // A plan does not hold up a seal.
      concurrency: 2,
      maxPoolSize: 4,
      noHandleSignals: true,
      logger: loggerOf(log),
      events,
      // The end of a job that is written without a batch and cannot be is an error that nobody in the package hears.
      preset: { worker: { completeJobBatchDelay: 0, failJobBatchDelay: 0 } },
    });
    return { runner, ended: runner.promise.catch((err: unknown) => log.error({ err }, 'the queue stopped')) };
  };
  const beginAgain = async (): Promise<Running | null> => {
    try {
      await letGo(connectionString, takers, log);
      takers.length = 0;
      return await begin();
    } catch (err) {
      log.error({ err }, 'the queue cannot be begun again yet');
      return null;
    }
  };

  const stopping = new AbortController();
  const { signal } = stopping;
  let running: Running | null = await begin();
  const kept = (async () => {
    while (!signal.aborted) {
      await running?.ended;
      // Cut short where it is stopped.
      await setTimeout(AGAIN_MS, undefined, { signal }).catch(() => undefined);
      if (!signal.aborted) running = await beginAgain();
    }
  })();
  return {
    stop: async () => {
      stopping.abort();
      const first = running;
      await end(first);
      await kept;
      // It may just have been begun again.
      if (running !== first) await end(running);
    },
  };
}

interface Running {
  runner: Runner;
  /** Settles once it takes no more jobs. */
  ended: Promise<void>;
}

/** Where it has ended by itself there is nothing to stop. */
const end = async (running: Running | null): Promise<void> =>
  running?.runner.stop().catch(() => running.ended);

/** Jobs whose end could not be written are free again, for whoever takes them next. */
const letGo = (connectionString: string, takers: readonly string[], log: Logger): Promise<void> =>
  withClient(connectionString, log, async (client) => {
    await client.query(`select ${SCHEMA}.force_unlock_workers($1)`, [takers]);
  });

/** Puts a job into the queue, in the open transaction if there is one. */
export async function addToQueue(
  { sequelize }: Database,
  task: keyof Background,
  payload: object = {},
): Promise<void> {
  await sequelize.query(`select 1 from ${SCHEMA}.add_job($1, $2 ::json)`, {
    bind: [task, JSON.stringify(payload)],
  });
}
