import pgSession from 'connect-pg-simple';
import session from 'express-session';
import type pg from 'pg';
import type { Logger } from 'pino';
import { SESSION_WITH_STANDING, type Standing } from './rights.ts';

/** How often a session's end is put off: a write with every request would be the dearest part of most. */
const PUT_OFF_MS = 5 * 60_000;
/** Most sessions that are remembered; when there are more, some are put off a little early. */
const REMEMBERED = 5_000;

const PgStore = pgSession(session);

/** Sessions in PostgreSQL, for every server. */
class SessionStore extends PgStore {
  private readonly own: pg.Pool;

  constructor(pool: pg.Pool, log: Logger) {
    super({ pool, errorLog: (...words: unknown[]) => log.error({ words }, 'session store') });
    this.own = pool;
  }

  private readonly putOff = new Map<string, number>();
  private readonly standings = new Map<string, Standing | null>();

  /** Reads a session and whoever it is of in one go. */
  override get(sid: string, done: (error: unknown, data?: session.SessionData | null) => void): void {
    this.own
      .query<{ sess: session.SessionData; standing: Standing | null }>({
        name: 'session',
        text: SESSION_WITH_STANDING,
        values: [sid, Date.now() / 1000],
      })
      .then(
        ({ rows: [row] }) => {
          if (!row) return done(null, null);
          this.standings.set(sid, row.standing);
          done(null, row.sess);
        },
        (error: unknown) => done(error),
      );
  }

  /** Who a session is of, as read with it; undefined where another request of the session has taken it. */
  standingOf(sid: string): Standing | null | undefined {
    const standing = this.standings.get(sid);
    this.standings.delete(sid);
    return standing;
  }

  override touch(sid: string, data: session.SessionData, done?: () => void): void {
    const now = Date.now();
    if (now - (this.putOff.get(sid) ?? 0) < PUT_OFF_MS) {
      done?.();
      return;
    }
    if (this.putOff.size >= REMEMBERED) this.putOff.clear();
    this.putOff.set(sid, now);
    super.touch(sid, data, done);
  }
}

export function sessionStore(pool: pg.Pool, log: Logger): SessionStore {
  return new SessionStore(pool, log);
}
