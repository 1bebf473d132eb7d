import { Router } from 'express';
import pg from 'pg';
import { Op } from 'sequelize';
import type { Logger } from 'pino';
import { jobsRoutes, type LiveMessage } from '@lanternwright/contract/jobs';
import type { StreamKind } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import type { EventStream, EventStreams } from '../http/event-stream.ts';
import { serveEvents } from '../http/serve.ts';
import { seesOwner } from '../http/viewer.ts';
import { RIGHTS_CHANNEL } from '../people/rights.ts';
import { SETTINGS_CHANNEL, type SettingsService } from '../shop/settings.ts';
import { CHANNEL, endOfRecord } from '../record/append.ts';
import { toEntry, type EntryRow } from '../record/model.ts';
import { toStored } from './record.ts';

const RETRY_MS = 1_000;

/** Most events that are read at once when a gap is caught up. */
const AT_ONCE = 500;

/** Most events that a browser is sent which it missed; behind by more it reads anew. */
const MOST_MISSED = 2_000;

/** Streams of which browsers are told that something changed, and read it anew. */
const told: ReadonlySet<StreamKind> = new Set([
  ...(['absence', 'booking', 'meter', 'order', 'stock', 'tool', 'unit'] as const),
]);

/** Most jobs whose owner is remembered. */
const REMEMBERED = 10_000;

interface Parts {
  streams: EventStreams;
  settings: SettingsService;
}

/**
 * The live stream: every event any server stores, to every browser that looks, in the order of the record. One
 * connection listens; when it is lost, what was stored meanwhile is sent once there is one again.
 */
export function liveFeed(db: Database, databaseUrl: string, { streams, settings }: Parts, log: Logger) {
  const listeners = new Set<EventStream>();
  const owners = new Map<string, string>();
  let client: pg.Client | null = null;
  let stopped = false;
  let sentSeq = 0;
  let sending = Promise.resolve();

  /** The owner of a job's unit; neither changes. */
  async function ownerOf(jobId: string): Promise<string> {
    const known = owners.get(jobId);
    if (known) return known;
    const job = await db.job.findByPk(jobId, { include: [{ model: db.unit, as: 'unit' }] });
    if (owners.size >= REMEMBERED) owners.clear();
    const ownerId = job!.unit!.ownerId;
    owners.set(jobId, ownerId);
    return ownerId;
  }

  async function send(row: EntryRow, to: Iterable<EventStream>): Promise<void> {
    const id = Number(row.seq);
    if (told.has(row.stream)) {
      // What changed is fetched by whoever shows it; an owner's contact sees none of it.
      for (const stream of to)
        if (stream.viewer.owners === 'all') stream.send({ stream: row.stream }, { name: 'changed', id });
      return;
    }
    if (row.stream !== 'job') return;
    const message: LiveMessage = { jobId: row.streamId, event: toStored(toEntry(row)) };
    const owner = await ownerOf(row.streamId);
    for (const stream of to) if (seesOwner(stream.viewer, owner)) stream.send(message, { id });
  }

  /** Sends every event after the last one that was sent. */
  async function sendNew(): Promise<void> {
    for (;;) {
      const rows = await db.entry.findAll({
        where: { seq: { [Op.gt]: sentSeq } },
        order: ['seq'],
        limit: AT_ONCE,
      });
      for (const row of rows) {
        // First, so that a record that cannot be read holds up none of those after it.
        sentSeq = Number(row.seq);
        await send(row, listeners);
      }
      if (rows.length < AT_ONCE) break;
    }
  }

  /** Where the shop began anew, its record is shorter than what was sent. Never forward: nothing is left out. */
  async function notBeyondTheEnd(): Promise<void> {
    sentSeq = Math.min(sentSeq, await endOfRecord(db));
  }

  const logged = (what: string) => (error: unknown) => log.error({ err: error }, what);

  /** What another server, or this one, tells of: records, rights, settings. */
  function hear({ channel, payload = '' }: pg.Notification): void {
    if (channel === RIGHTS_CHANNEL) streams.recheck(payload).catch(logged('streams not checked'));
    else if (channel === SETTINGS_CHANNEL) lookAround();
    else announce();
  }

  /** Reads the settings again, and looks whether everybody is still let in: another shop may stand here now. */
  function lookAround(): void {
    settings.load().catch(logged('settings not read'));
    streams.recheck().catch(logged('streams not checked'));
    sending = sending.then(notBeyondTheEnd).catch(logged('the record was not looked at'));
  }

  /** However many records come while one lot is read, they are read as one lot after it. */
  let waiting = false;
  const announce = () => {
    if (waiting || stopped || listeners.size === 0) return;
    waiting = true;
    const next = () => {
      waiting = false;
      return stopped ? undefined : sendNew();
    };
    sending = sending.then(next).catch(logged('live events not sent'));
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
    next.on('notification', hear);
    try {
      await next.connect();
      await next.query(`listen ${CHANNEL}; listen ${RIGHTS_CHANNEL}; listen ${SETTINGS_CHANNEL}`);
      client = next;
      // What was stored, and changed, while nobody listened.
      lookAround();
      announce();
    } catch (error) {
      onLoss(error);
    }
  }

  /** From here on events are sent; what was there before is read by whoever opens a page. */
  async function start(): Promise<void> {
    sentSeq = await endOfRecord(db);
    await listen();
  }

  /**
   * Lets a stream in between two lots of events. A browser that comes back is sent what it missed, by the id of the last
   * event it has; where that is too long ago, or it is new, it is told to read anew.
   */
  async function join(stream: EventStream, lastSeen: number): Promise<void> {
    // While nobody looked, nothing was read.
    if (listeners.size === 0) sentSeq = await endOfRecord(db);
    const missed = sentSeq - lastSeen;
    const resumes = missed >= 0 && missed <= MOST_MISSED;
    if (resumes && missed > 0) {
      const rows = await db.entry.findAll({
        where: { seq: { [Op.gt]: lastSeen, [Op.lte]: sentSeq } },
        order: ['seq'],
      });
      for (const row of rows) await send(row, [stream]);
    }
    stream.send({}, { name: resumes ? 'resumed' : 'anew', id: sentSeq });
    if (stream.isOpen()) listeners.add(stream);
  }

  const router = Router();
  serveEvents(router, jobsRoutes.live, ({ req, res, viewer }) => {
    const stream = streams.open(res, viewer, () => listeners.delete(stream));
    const lastSeen = Number(req.get('last-event-id') ?? Number.NaN);
    sending = sending.then(() => join(stream, lastSeen)).catch(logged('a stream was not let in'));
  });

  return {
    router,
    start,
    /** Whether what other servers store is heard here. */
    isListening: () => client !== null,
    async stop(): Promise<void> {
      stopped = true;
      await sending;
      await client?.end();
    },
  };
}
