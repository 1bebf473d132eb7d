import { createTransport } from 'nodemailer';
import type { Floor } from '@lanternwright/contract/plan';
import { morningMailSchema, type MorningMail, type MorningStand } from '@lanternwright/contract/shop';
import { QueryTypes } from 'sequelize';
import type { Config } from '../config.ts';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { HttpProblem } from '../http/problem.ts';
import type { FollowUps } from '../jobs/follow-ups.ts';
import type { AbsencesService } from '../plan/absences.ts';
import type { FloorService } from '../plan/floor.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import { morningText } from './summary.ts';

const PATIENCE_MS = 15_000;
const DAYS_AHEAD = 7;

interface Neighbours {
  settings: SettingsService;
  floor: FloorService;
  absences: AbsencesService;
  followUps: FollowUps;
}

/** Monday is 0. @param day YYYY-MM-DD */
const weekdayOf = (day: string) => (new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7;

/** The summary of a morning, by mail to whom the shop has named. */
export function morningService(
  db: Database,
  { settings, floor, absences, followUps }: Neighbours,
  { mail, shopAddress }: Pick<Config, 'mail' | 'shopAddress'>,
  clock: Clock,
) {
  const format = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-GB', { timeZone: settings.current().zone, ...options });

  function formatClock(iso: string): string {
    const at = new Date(iso);
    const time = format({ hour: '2-digit', minute: '2-digit' }).format(at);
    return clock.dayOf(iso) === clock.today() ? time : `${format({ weekday: 'short' }).format(at)} ${time}`;
  }

  /** Who gets it, and when; nobody until somebody is named. */
  async function wanted(): Promise<MorningMail> {
    const row = await db.setting.findByPk('morning');
    return row ? morningMailSchema.parse(row.value) : { at: '06:30', to: [] };
  }

  async function text(): Promise<string> {
    const { name, bays } = settings.current();
    const now = clock.now();
    const everybody = { owners: 'all' } as const;
    const [{ text: floorJson }, follow, due, away] = await Promise.all([
      floor.floor(everybody),
      followUps(1, everybody, db),
      floor.due({ page: 1, state: 'known', within: DAYS_AHEAD }),
      absences.between(now.toISOString(), new Date(now.getTime() + 12 * 3_600_000).toISOString()),
    ]);
    const stands = JSON.parse(floorJson) as Floor;
    return morningText({
      ...{ shop: name, bays, floor: stands, followUps: follow, due, away, formatClock },
      day: format({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }).format(now),
      now: now.toISOString(),
      today: clock.today(),
      formatDay: (date) =>
        format({ day: 'numeric', month: 'short', year: 'numeric' }).format(new Date(`${date}T12:00:00Z`)),
      address: shopAddress ?? null,
    });
  }

  /** @throws HttpProblem 503 where no mail is set, 502 where it is not taken */
  async function send(): Promise<void> {
    const { name } = settings.current();
    const { to } = await wanted();
    if (!mail)
      throw new HttpProblem(
        503,
        'No mail',
        'No mail server is set: whoever looks after the server sets SMTP_URL.',
      );
    if (to.length === 0)
      throw new HttpProblem(422, 'Nobody', 'No addresses are set for the morning’s summary.');
    const url = new URL(mail.url);
    for (const limit of ['connectionTimeout', 'greetingTimeout', 'socketTimeout'])
      url.searchParams.set(limit, String(PATIENCE_MS));
    const transport = createTransport(url.href, { from: { name, address: mail.from } });
    const day = clock.today();
    const summary = await text();
    try {
      await transport.sendMail({
        to,
        subject: `${name}, ${format({ weekday: 'long', day: 'numeric', month: 'long' }).format(clock.now())}`,
        text: summary,
        // Sent twice, it is one mail.
        messageId: `<morning-${day}@${mail.from.split('@')[1]}>`,
      });
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      throw new HttpProblem(502, 'Mail not taken', `The mail server did not take it: ${why}`);
    } finally {
      transport.close();
    }
  }

  /** Whether the shop works today and it is time. */
  async function isTime(): Promise<boolean> {
    const { week, holidays } = settings.current();
    const { at, to } = await wanted();
    const today = clock.today();
    const works = week[weekdayOf(today)]!.length > 0 && !holidays.some((h) => h.date === today);
    const time = format({ hour: '2-digit', minute: '2-digit' }).format(clock.now());
    return mail !== null && to.length > 0 && works && time >= at;
  }

  async function stand(): Promise<MorningStand> {
    const [last] = await db.sequelize.query<{ sentAt: string }>(
      `select ${isoTime('sent_at')} as "sentAt" from morning_sent order by day desc limit 1`,
      { type: QueryTypes.SELECT },
    );
    return { ...(await wanted()), mail: mail !== null, sentAt: last?.sentAt ?? null };
  }

  return {
    send,

    /** Sends it once a morning, whichever server is first; what fails is tried again at the next turn. */
    async run(): Promise<void> {
      if (!(await isTime())) return;
      await inTransaction(db, async () => {
        const first = await db.sequelize.query(
          'insert into morning_sent (day, sent_at) values ($1, $2) on conflict do nothing returning day',
          { type: QueryTypes.SELECT, bind: [clock.today(), clock.now().toISOString()] },
        );
        if (first.length > 0) await send();
      });
    },

    stand,

    async change(next: MorningMail): Promise<MorningStand> {
      await db.setting.upsert({ name: 'morning', value: next });
      return stand();
    },
  };
}
export type MorningService = ReturnType<typeof morningService>;
