import { QueryTypes } from 'sequelize';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import type { Person } from '@lanternwright/contract/people';
import type { Database } from '../database/connect.ts';
import type { Viewer } from '../http/viewer.ts';
import type { SettingsService } from '../shop/settings.ts';

/** Channel on which every change of a person's rights is announced; the payload is the person's id. */
export const RIGHTS_CHANNEL = 'rights';

export interface Standing extends Person {
  owners: string[];
  units: ReaderUnits | null;
}

const COLUMNS = `p.id, p.name, p.login, p.role, p.units, coalesce(
  (select array_agg(o.owner_id order by o.owner_id) from person_owner o where o.person_id = p.id), '{}') as owners`;
const STANDING = `select ${COLUMNS} from person p where p.id = :personId and p.switched_off_at is null`;

/** A session, and with it whoever it is of as they stand now; for the store of sessions. */
export const SESSION_WITH_STANDING = `
  select s.sess, to_json(w) as standing from session s
  left join lateral (
    select ${COLUMNS} from person p where p.id = (s.sess ->> 'personId') ::uuid and p.switched_off_at is null
  ) w on true
  where s.sid = $1 and s.expire >= to_timestamp($2)`;

const SESSION = `
  select 1 from session where sid = :sessionId and sess ->> 'personId' = :personId
    and (sess -> 'cookie' ->> 'expires') ::timestamptz > now()`;

/** What people may see by who they are now, and the end of what they might. */
export function rightsService(db: Database, settings: Pick<SettingsService, 'current'>) {
  async function standing(personId: string): Promise<Standing | null> {
    const [row] = await db.sequelize.query<Standing>(STANDING, {
      type: QueryTypes.SELECT,
      replacements: { personId },
    });
    return row ?? null;
  }

  function viewerFrom(found: Standing | null, by: Viewer['by'], sessionId: string): Viewer | null {
    if (!found) return null;
    const { owners, units, ...person } = found;
    return {
      person,
      owners: person.role === 'owner-contact' ? owners : 'all',
      units: units ?? settings.current().units,
      by,
      sessionId,
    };
  }

  const viewer = async (personId: string, by: Viewer['by'], sessionId: string): Promise<Viewer | null> =>
    viewerFrom(await standing(personId), by, sessionId);

  return {
    /** Somebody signed in, as they stand now; null when they are switched off or gone. */
    viewer,
    standing,
    viewerFrom,

    /** Whether a viewer is still signed in, and may see what they did. */
    async stillHolds({ person, owners, by, sessionId }: Viewer): Promise<boolean> {
      const now = await viewer(person.id, by, sessionId);
      if (now?.person.role !== person.role || String(now.owners) !== String(owners)) return false;
      const rows = await db.sequelize.query(SESSION, {
        type: QueryTypes.SELECT,
        replacements: { sessionId, personId: person.id },
      });
      return rows.length > 0;
    },

    /** Ends the sessions of a person, but for one. */
    async endSessions(personId: string, butNot = ''): Promise<void> {
      await db.sequelize.query(
        `delete from session where sess ->> 'personId' = :personId and sid <> :butNot`,
        {
          replacements: { personId, butNot },
        },
      );
    },

    /** Tells every server that a person's rights are others now. In a transaction it is told when that is kept. */
    async announce(personId: string): Promise<void> {
      await db.sequelize.query('select pg_notify(:channel, :personId)', {
        replacements: { channel: RIGHTS_CHANNEL, personId },
      });
    },
  };
}
export type RightsService = ReturnType<typeof rightsService>;
