import { randomBytes, randomUUID } from 'node:crypto';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { QueryTypes } from 'sequelize';
import type { Booked, Calendar, MadeCalendar, NewCalendar } from '@lanternwright/contract/plan';
import type { Config } from '../config.ts';
import type { Database } from '../database/connect.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound, refused } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import { sha256 } from '../record/link.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import { bookedWhere } from './bookings.ts';

const LIST = `
  select c.id, c.what, ${isoTime('c.made_at')} as "madeAt", c.of, coalesce(p.name, o.name, '') as name,
    m.name as "madeBy"
  from calendar c join person m on m.id = c.made_by
  left join person p on c.what = 'person' and p.id ::text = c.of
  left join owner o on c.what = 'owner' and o.id ::text = c.of
  where c.revoked_at is null order by c.made_at desc limit 200`;

/** What a feed shows: from a month ago to a year on. */
const SPAN = `b.during && tstzrange(now() - interval '31 days', now() + interval '366 days')`;
const ofWhat = {
  shop: `$1 ::text is not null`,
  bay: 'b.bay_id = $1',
  person: '$1 ::uuid = any(b.people)',
  owner: 'o.id = $1 ::uuid',
} as const;

/** iCalendar feeds of the bookings: for the shop, a bay, a person or an owner, at an address that is its own key. */
export function calendarsService(
  db: Database,
  settings: SettingsService,
  { shopAddress }: Pick<Config, 'shopAddress'>,
  clock: Clock,
) {
  const bayName = (id: string) => settings.current().bays.find((b) => b.id === id)?.name ?? '';
  const shopName = () => settings.current().name;

  /** @throws HttpProblem 422 for whom or what is not there */
  async function nameOf({ what, of }: NewCalendar): Promise<string> {
    if (what === 'shop') return shopName();
    if (what === 'bay') {
      const name = bayName(of);
      if (name === '') throw refused('There is no such bay', 'of');
      return name;
    }
    const [row] = await db.sequelize.query<{ name: string }>(
      `select name from ${what} where id ::text = $1`,
      {
        type: QueryTypes.SELECT,
        bind: [of],
      },
    );
    if (!row) throw refused(`There is no such ${what}`, 'of');
    return row.name;
  }

  return {
    async list(): Promise<Calendar[]> {
      const rows = await db.sequelize.query<Calendar & { of: string }>(LIST, { type: QueryTypes.SELECT });
      return rows.map(({ of, ...row }) => ({
        ...row,
        name: row.what === 'bay' ? bayName(of) : row.what === 'shop' ? shopName() : row.name,
      }));
    },

    /** Its address is told once, and never again. */
    async make(wanted: NewCalendar, { person }: Viewer): Promise<MadeCalendar> {
      await nameOf(wanted);
      const secret = randomBytes(24).toString('base64url');
      const id = randomUUID();
      await db.sequelize.query(
        `insert into calendar (id, secret_hash, what, of, made_by, made_at) values ($1, $2, $3, $4, $5, $6)`,
        { bind: [id, sha256(secret), wanted.what, wanted.of, person.id, clock.now().toISOString()] },
      );
      return { id, address: `${shopAddress ?? ''}/api/calendars/${secret}.ics` };
    },

    async revoke(id: string): Promise<{ id: string }> {
      const rows = await db.sequelize.query(
        'update calendar set revoked_at = now() where id = $1 and revoked_at is null returning id',
        { type: QueryTypes.SELECT, bind: [id] },
      );
      if (rows.length === 0) throw notFound('calendar');
      return { id };
    },

    /** The feed at a secret address, as iCalendar. @source RFC 5545 */
    async feed(secret: string): Promise<string> {
      const [calendar] = await db.sequelize.query<NewCalendar>(
        'select what, of from calendar where secret_hash = $1 and revoked_at is null',
        { type: QueryTypes.SELECT, bind: [sha256(secret)] },
      );
      if (!calendar) throw notFound('calendar');
      const { what, of } = calendar;
      const bookings = await db.sequelize.query<Booked>(bookedWhere(`${SPAN} and ${ofWhat[what]}`), {
        type: QueryTypes.SELECT,
        bind: [of],
      });
      const name = what === 'shop' ? shopName() : `${shopName()}, ${await nameOf(calendar)}`;
      const feed = ical({ name, method: ICalCalendarMethod.PUBLISH, ttl: 15 * 60 });
      for (const b of bookings) {
        // An owner is told where their unit is, not who of the shop works on it.
        const who = what === 'owner' || b.names.length === 0 ? '' : b.names.join(', ');
        feed.createEvent({
          id: b.id,
          sequence: b.version,
          start: new Date(b.from),
          end: new Date(b.until),
          summary: b.job ? `${b.unit.name}: ${b.job.title}` : b.unit.name,
          location: bayName(b.bayId),
          description: [b.unit.owner.name, who, b.note].filter(Boolean).join('\n'),
        });
      }
      return feed.toString();
    },
  };
}
export type CalendarsService = ReturnType<typeof calendarsService>;
