import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import type { Viewer } from '../http/viewer.ts';
import { connectDatabase, type Database } from './connect.ts';
import { prepared } from './prepared.ts';

/** What a browser says, and is told: the last entry of the record that it has seen something of. */
const RECORD_SEEN = 'Record-Seen';

/** After it did not answer, the standby is left alone this long. */
const REST_MS = 5_000;

async function endOf(db: Database): Promise<number> {
  const [row] = await prepared<{ seq: string }>(
    db,
    'end-of-record',
    'select coalesce(max(seq), 0) as seq from entry',
    [],
  );
  return Number(row!.seq);
}

/**
 * Lists read from a streaming standby, where there is one: never older than what the reader has seen. Whoever does not
 * say what they have seen, and whoever may see some owners only, reads from the first database.
 * @param url of the standby; null where there is none
 */
export function standbyReads(db: Database, url: string | null, pool: number, log: Logger) {
  const standby = url === null ? null : connectDatabase(url, { pool });
  /** The standby has at least this; it only grows. */
  let has = 0;
  let restsUntil = 0;

  async function reaches(seen: number): Promise<boolean> {
    if (standby === null || Date.now() < restsUntil) return false;
    if (has >= seen) return true;
    try {
      has = Math.max(has, await endOf(standby));
    } catch (error) {
      restsUntil = Date.now() + REST_MS;
      log.warn({ err: error }, 'the standby does not answer');
    }
    return has >= seen;
  }

  return {
    /** Reads a list from where it may be read; from the first database where the standby goes meanwhile. */
    async read<T>(req: Request, viewer: Viewer, work: (from: Database) => Promise<T>): Promise<T> {
      const said = req.get(RECORD_SEEN) ?? '';
      const asked = viewer.owners === 'all' && /^[1-9]\d{0,15}$/.test(said);
      if (standby === null || !asked || !(await reaches(Number(said)))) return work(db);
      try {
        return await work(standby);
      } catch (error) {
        restsUntil = Date.now() + REST_MS;
        log.warn({ err: error }, 'the standby did not answer');
        return work(db);
      }
    },

    /** Tells a browser how far the record had come when it was answered. */
    async tell(res: Response): Promise<void> {
      if (standby !== null) res.set(RECORD_SEEN, String(await endOf(db)));
    },

    /** How many records the standby has not yet; null where there is none. */
    behind:
      standby &&
      (async (): Promise<number> => {
        const [first, second] = await Promise.all([endOf(db), endOf(standby)]);
        return Math.max(0, first - second);
      }),

    async close(): Promise<void> {
      await standby?.sequelize.close();
    },
  };
}
export type StandbyReads = ReturnType<typeof standbyReads>;
