import { createHash, timingSafeEqual } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import {
  feedAnswerSchema,
  feedReadingSchema,
  type FeedReading,
  type FeedStand,
  type FeedTook,
} from '@lanternwright/contract/feed';
import { program, withoutRepeats } from '@lanternwright/core/record';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import type { BringMeters, ForUnit } from '../fleet/bring-meters.ts';
import { HttpProblem } from '../http/problem.ts';
import type { Clock } from '../shop/clock.ts';
import { unitsByName } from '../exchange/units-by-name.ts';

/** The one feed of the shop. */
const NAME = 'telematics';
const PATIENCE_MS = 10_000;
/** Answers that are fetched one after the other at one time. */
const MOST_ANSWERS = 200;
/** A device whose clock is this far ahead is not believed. */
const AHEAD_MS = 3_600_000;
const MOST_STRANGERS = 100;

const STAND = `
  select cursor, ${isoTime('asked_at')} as "askedAt", ${isoTime('answered_at')} as "answeredAt", trouble, kept, known,
    strangers from feed where name = $1`;

interface Row extends Omit<FeedStand, 'url' | 'pushes' | 'strangers'> {
  cursor: string | null;
  strangers: Record<string, number>;
}

export interface FeedSettings {
  /** Where a feed answers; null where none does. */
  url: string | null;
  /** What it and the shop know each other by. */
  secret: string | null;
}

const digest = (text: string) => createHash('sha256').update(text).digest();

/** What went wrong with an answer, in words for a supervisor. */
function troubleOf(error: unknown): string {
  if (error instanceof HttpProblem) return error.message;
  if (error instanceof Error && error.name === 'TimeoutError')
    return `It did not answer within ${PATIENCE_MS / 1000} seconds`;
  if (error instanceof TypeError) return 'Nobody answers there';
  return 'Its answer is no list of readings';
}

/** Readings that units tell by themselves, by way of a service: asked for, or pushed. */
export function feedService(db: Database, bring: BringMeters, { url, secret }: FeedSettings, clock: Clock) {
  async function row(lock = ''): Promise<Row> {
    await db.sequelize.query('insert into feed (name) values ($1) on conflict do nothing', { bind: [NAME] });
    const [found] = await db.sequelize.query<Row>(`${STAND} ${lock}`, {
      type: QueryTypes.SELECT,
      bind: [NAME],
    });
    return found!;
  }

  /** Readings that are some, and what of them is to be brought to which unit. */
  async function sorted(readings: readonly unknown[]) {
    const latest = clock.now().getTime() + AHEAD_MS;
    const good = readings.flatMap((r): FeedReading[] => {
      const read = feedReadingSchema.safeParse(r);
      const { success, data } = read;
      const says = success && (data.odometerKm !== undefined || data.engineHours !== undefined);
      return says && Date.parse(data.at) <= latest ? [data] : [];
    });
    const vehicles = [...new Set(good.map((r) => r.vehicle))];
    const byPlate = await unitsByName(
      db,
      vehicles.map((plate) => ({ plate, unit: '', owner: '' })),
    );
    const byUnit = await unitsByName(
      db,
      vehicles.map((unit) => ({ unit, plate: '', owner: '' })),
    );
    const unitOf = new Map(
      vehicles.map(
        (v, i) => [v, [byPlate[i], byUnit[i]].find((u) => typeof u === 'string') ?? null] as const,
      ),
    );
    const units = new Map<string, ForUnit>();
    const strangers: Record<string, number> = {};
    for (const { vehicle, at, odometerKm, engineHours } of good.sort(
      (a, b) => Date.parse(a.at) - Date.parse(b.at),
    )) {
      const unitId = unitOf.get(vehicle);
      if (!unitId) {
        strangers[vehicle] = (strangers[vehicle] ?? 0) + 1;
        continue;
      }
      const unit = units.get(unitId) ?? { unitId, distanceIn: 'km' as const, reads: [] };
      unit.reads.push([clock.dayOf(at), odometerKm ?? null, engineHours ?? null]);
      units.set(unitId, unit);
    }
    return { units: [...units.values()], strangers, refused: readings.length - good.length };
  }

  /** Takes readings, and the place to go on from, in one transaction: after a fault they come again and are known. */
  async function take(readings: readonly unknown[], next: string | null): Promise<FeedTook> {
    return inTransaction(db, async () => {
      // Two servers that ask at once do it one after the other.
      const before = await row('for update');
      const { units, strangers, refused } = await sorted(readings);
      const asked = { by: program, at: clock.now().toISOString() };
      const { kept, known } = await bring.take(units, 'meter-feed', asked, {
        source: 'feed',
        choose: withoutRepeats,
      });
      const all = { ...before.strangers };
      for (const [vehicle, times] of Object.entries(strangers))
        if (vehicle in all || Object.keys(all).length < MOST_STRANGERS)
          all[vehicle] = (all[vehicle] ?? 0) + times;
      await db.sequelize.query(
        `update feed set cursor = coalesce($2, cursor), answered_at = $3, trouble = null, kept = kept + $4,
           known = known + $5, strangers = $6 ::jsonb where name = $1`,
        { bind: [NAME, next, asked.at, kept, known, JSON.stringify(all)] },
      );
      return { kept, known, refused };
    });
  }

  async function fetched(cursor: string | null) {
    const address = new URL('readings', url!.endsWith('/') ? url! : `${url!}/`);
    if (cursor !== null) address.searchParams.set('after', cursor);
    const answer = await fetch(address, {
      headers: secret === null ? {} : { authorization: `Bearer ${secret}` },
      signal: AbortSignal.timeout(PATIENCE_MS),
      redirect: 'error',
    });
    if (!answer.ok) throw new HttpProblem(502, 'Feed', `It answers with ${answer.status}`);
    return feedAnswerSchema.parse(await answer.json());
  }

  async function stand(): Promise<FeedStand> {
    const { askedAt, answeredAt, trouble, kept, known, strangers } = await row();
    return {
      ...{ url, pushes: secret !== null, askedAt, answeredAt, trouble, kept, known },
      strangers: Object.entries(strangers)
        .map(([vehicle, times]) => ({ vehicle, times }))
        .sort((a, b) => b.times - a.times),
    };
  }

  return {
    stand,

    /** Asks the feed until it has no more; what goes wrong is kept, to be seen. Nothing is taken twice. */
    async ask(): Promise<FeedStand> {
      if (url === null) return stand();
      await row();
      await db.sequelize.query('update feed set asked_at = $2 where name = $1', {
        bind: [NAME, clock.now().toISOString()],
      });
      try {
        for (let i = 0; i < MOST_ANSWERS; i++) {
          const { readings, next, more } = await fetched((await row()).cursor);
          await take(readings, next);
          if (!more) break;
        }
      } catch (error) {
        await db.sequelize.query('update feed set trouble = $2 where name = $1', {
          bind: [NAME, troubleOf(error)],
        });
      }
      return stand();
    },

    /** @param token what the feed says it is known by @throws HttpProblem 401 where it is not known */
    async push(readings: readonly unknown[], token: string | undefined): Promise<FeedTook> {
      const said = /^Bearer (.+)$/.exec(token ?? '')?.[1];
      if (secret === null || said === undefined || !timingSafeEqual(digest(said), digest(secret)))
        throw new HttpProblem(
          401,
          'Not known',
          'The feed is not known here: send its secret as a bearer token.',
        );
      return take(readings, null);
    },
  };
}
export type FeedService = ReturnType<typeof feedService>;
