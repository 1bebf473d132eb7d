import { randomBytes, randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import { QueryTypes } from 'sequelize';
import { notOfOneOwner, programCapabilities, type ProgramCapability } from '@lanternwright/core/access';
import type { NewToken, Token } from '@lanternwright/contract/programs';
import type { Database } from '../database/connect.ts';
import { isoTime } from '../database/sql-time.ts';
import { HttpProblem, notFound, refused } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import { sha256 } from '../record/link.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';

/** How every key begins, so that one that was left lying about is known for what it is. */
const PREFIX = 'lw_';
const A_DAY_MS = 86_400_000;
const MOST_SHOWN = 200;

const LIST = `
  select t.id, t.name, t.capabilities, m.name as "madeBy", e.name as "endedBy",
    case when o.id is not null then json_build_object('id', o.id, 'name', o.name) end as owner,
    ${isoTime('t.made_at')} as "madeAt", ${isoTime('t.ends_at')} as "endsAt", ${isoTime('t.ended_at')} as "endedAt",
    ${isoTime(`date_trunc('minute', t.last_used_at)`)} as "lastUsedAt"
  from program_token t join person m on m.id = t.made_by
  left join person e on e.id = t.ended_by left join owner o on o.id = t.owner_id
  order by t.ended_at is not null, t.made_at desc limit ${MOST_SHOWN}`;

interface Held {
  id: string;
  name: string;
  capabilities: string[];
  ownerId: string | null;
}

/** A key that holds, and what it may; its use is noted once a minute. */
const HELD = `
  select t.id, t.name, t.capabilities, t.owner_id as "ownerId",
    t.last_used_at is null or t.last_used_at < $2 ::timestamptz - interval '1 minute' as stale
  from program_token t where t.secret_hash = $1 and t.ended_at is null and t.ends_at > $2`;

/** Told to whoever comes with a key that does not hold. @source RFC 6750, section 3.1 */
class NotHeld extends HttpProblem {
  constructor() {
    super(401, 'Key not valid', 'This key is not valid, or it has ended. Ask a supervisor for another.', {
      extra: { code: 'key-not-valid' },
    });
  }
}

/** Keys of programs: made and ended by a supervisor, each for what it is given, until its day. */
export function tokensService(db: Database, settings: Pick<SettingsService, 'current'>, clock: Clock) {
  /** Who comes with a key. @throws HttpProblem 401 where it does not hold */
  async function viewerWith(secret: string): Promise<Viewer> {
    const now = clock.now().toISOString();
    const [row] = await db.sequelize.query<Held & { stale: boolean }>(HELD, {
      type: QueryTypes.SELECT,
      bind: [sha256(secret), now],
    });
    if (!row) throw new NotHeld();
    if (row.stale)
      await db.sequelize.query('update program_token set last_used_at = $2 where id = $1', {
        bind: [row.id, now],
      });
    return {
      person: { id: row.id, name: row.name, login: '', role: 'program' },
      owners: row.ownerId === null ? 'all' : [row.ownerId],
      units: settings.current().units,
      by: 'key',
      sessionId: '',
      // What a later version takes away from programs, a key of today does not keep.
      given: new Set(row.capabilities.filter((c): c is ProgramCapability => c in programCapabilities)),
    };
  }

  /** Whoever comes with a key is no one else, whatever cookie comes with it. */
  const admit: RequestHandler = async (req, res, next) => {
    const [, secret] = /^Bearer +(\S+)$/i.exec(req.get('authorization') ?? '') ?? [];
    if (secret?.startsWith(PREFIX)) {
      res.set('WWW-Authenticate', 'Bearer error="invalid_token"');
      res.locals['viewer'] = await viewerWith(secret);
      res.removeHeader('WWW-Authenticate');
    }
    next();
  };

  return {
    admit,

    list: () => db.sequelize.query<Token>(LIST, { type: QueryTypes.SELECT }),

    /** The key is told once, and never again. @throws HttpProblem 422 */
    async make({ name, capabilities, ownerId, days }: NewToken, { person }: Viewer) {
      const wide = ownerId === null ? [] : notOfOneOwner(capabilities);
      if (wide.length > 0)
        throw refused(
          `For one owner, choose units and jobs only. These are of the whole shop: ${wide.map((c) => programCapabilities[c]).join('; ')}`,
          'capabilities',
        );
      if (ownerId !== null) {
        const rows = await db.sequelize.query('select 1 from owner where id = $1', {
          type: QueryTypes.SELECT,
          bind: [ownerId],
        });
        if (rows.length === 0) throw refused('There is no such owner', 'ownerId');
      }
      const id = randomUUID();
      const secret = `${PREFIX}${randomBytes(32).toString('base64url')}`;
      const now = clock.now();
      await db.sequelize.query(
        `insert into program_token (id, name, secret_hash, capabilities, owner_id, made_by, made_at, ends_at)
         values ($1, $2, $3, $4 ::text[], $5, $6, $7, $8)`,
        {
          bind: [
            ...[id, name, sha256(secret), [...new Set(capabilities)], ownerId, person.id],
            ...[now.toISOString(), new Date(now.getTime() + days * A_DAY_MS).toISOString()],
          ],
        },
      );
      return { id, token: secret };
    },

    async end(id: string, { person }: Viewer): Promise<{ id: string }> {
      const rows = await db.sequelize.query(
        'update program_token set ended_at = $2, ended_by = $3 where id = $1 and ended_at is null returning id',
        { type: QueryTypes.SELECT, bind: [id, clock.now().toISOString(), person.id] },
      );
      if (rows.length === 0) throw notFound('key');
      return { id };
    },
  };
}
export type TokensService = ReturnType<typeof tokensService>;
