import { Router, type Response } from 'express';
import pg from 'pg';
import type { Logger } from 'pino';
import type { LiveMessage } from '@lanternwright/contract/jobs';
import type { Database } from '../database/connect.ts';
import { openEventStream } from '../http/event-stream.ts';
import { CHANNEL, toStored } from './record.ts';

const RETRY_MS = 1_000;

/** The live stream: every event any server stores, to every browser that looks. */
export function liveFeed(db: Database, databaseUrl: string, log: Logger) {
  const listeners = new Set<Response>();
  let client: pg.Client | null = null;
  let stopped = false;

  async function announce(seq: number): Promise<void> {
    if (listeners.size === 0) return;
    const row = await db.jobEvent.findByPk(seq);
    if (!row) return;
    const message: LiveMessage = { jobId: row.jobId, event: toStored(row) };
    for (const res of listeners) res.write(`data: ${JSON.stringify(message)}\n\n`);
  }

  function retry(error: unknown): void {
    if (stopped) return;
    log.warn({ err: error }, 'live feed lost its database connection');
    setTimeout(() => void listen(), RETRY_MS).unref();
  }

  async function listen(): Promise<void> {
    if (stopped) return;
    const next = new pg.Client({ connectionString: databaseUrl });
    next.on('error', retry);
    next.on('notification', ({ payload }) => {
      const { seq } = JSON.parse(payload ?? '{}') as { seq?: number };
      if (seq !== undefined)
        announce(seq).catch((error: unknown) => log.error({ err: error }, 'live event not sent'));
    });
    try {
      await next.connect();
      await next.query(`listen ${CHANNEL}`);
      client = next;
    } catch (error) {
      retry(error);
    }
  }

  const router = Router();
  router.get('/api/live', (_req, res) => {
    openEventStream(res, () => listeners.delete(res));
    listeners.add(res);
  });

  return {
    router,
    start: listen,
    async stop(): Promise<void> {
      stopped = true;
      for (const res of listeners) res.end();
      await client?.end();
    },
  };
}
