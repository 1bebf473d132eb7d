import { Router, type Response } from 'express';
import pg from 'pg';
import { Op } from 'sequelize';
import type { Logger } from 'pino';
import type { LiveMessage } from '@lanternwright/contract/jobs';
import type { Database } from '../database/connect.ts';
import { openEventStream } from '../http/event-stream.ts';
import type { JobEventRow } from './model.ts';
import { CHANNEL, toStored } from './record.ts';

const RETRY_MS = 1_000;

/** Most events that are read at once when a gap is caught up. */
const AT_ONCE = 500;

/**
 * The live stream: every event any server stores, to every browser that looks, in the order of the record. One
 * connection listens; when it is lost, what was stored meanwhile is sent once there is one again.
 */
export function liveFeed(db: Database, databaseUrl: string, log: Logger) {
  const listeners = new Set<Response>();
  let client: pg.Client | null = null;
  let stopped = false;
  let sentSeq = 0;
  let sending = Promise.resolve();

  /** Sends every event after the last one that was sent. */
  async function sendNew(): Promise<void> {
    for (;;) {
      const rows = await db.jobEvent.findAll({
        where: { seq: { [Op.gt]: sentSeq } },
        order: ['seq'],
        limit: AT_ONCE,
      });
      for (const row of rows) {
        // First, so that a record that cannot be read holds up none of those after it.
        sentSeq = Number(row.seq);
        const message: LiveMessage = { jobId: row.jobId, event: toStored(row) };
        for (const res of listeners) res.write(`data: ${JSON.stringify(message)}\n\n`);
      }
      if (rows.length < AT_ONCE) return;
    }
  }

  const announce = () => {
    sending = sending
      .then(sendNew)
      .catch((error: unknown) => log.error({ err: error }, 'live events not sent'));
  };

  async function listen(): Promise<void> {
    if (stopped) return;
    const next = new pg.Client({ connectionString: databaseUrl, keepAlive: true });
    let lost = false;
    /** An error and the end of a connection both tell of one loss. */
    const onLoss = (error?: unknown) => {
      if (lost || stopped) return;
      lost = true;
      client = null;
      log.warn({ err: error }, 'live feed lost its database connection');
      next.end().catch((e: unknown) => log.debug({ err: e }, 'a lost connection did not close'));
      setTimeout(() => void listen(), RETRY_MS).unref();
    };
    next.on('error', onLoss);
    next.on('end', () => onLoss());
    next.on('notification', announce);
    try {
      await next.connect();
      await next.query(`listen ${CHANNEL}`);
      client = next;
      // What was stored while nobody listened.
      announce();
    } catch (error) {
      onLoss(error);
    }
  }

  /** From here on events are sent; what was there before is read by whoever opens a page. */
  async function start(): Promise<void> {
    sentSeq = Number((await db.jobEvent.max<number | string | null, JobEventRow>('seq')) ?? 0);
    await listen();
  }

  const router = Router();
  router.get('/api/live', (_req, res) => {
    openEventStream(res, () => listeners.delete(res));
    listeners.add(res);
  });

  return {
    router,
    start,
    async stop(): Promise<void> {
      stopped = true;
      for (const res of listeners) res.end();
      await client?.end();
    },
  };
}
