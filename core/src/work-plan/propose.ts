import type { Place, ShopPlanInput } from '../shop-plan/index.ts';
import type { TimeSpan } from './hours.ts';

export type Claimed = 'bay' | 'person' | 'unit' | 'tool';

/** What is booked or away, milliseconds since 1970. */
export interface Taken extends TimeSpan {
  what: Claimed;
  of: string;
}

/** A unit that is to come in, for all that is due on it. */
export interface Visit {
  /** Names the job in the plan: the unit, or its booking. */
  id: string;
  unitId: string;
  minutes: number;
  people: 1 | 2;
  tools: readonly string[];
  /** Not before, as when a part arrives; milliseconds since 1970. */
  from: number;
  due: number;
  weight: number;
  /** It takes its minutes to the minute, as what is booked already does; else whole quarters of an hour. */
  exact?: true;
}

export interface PlanShop {
  /** The first moment that is planned; ms. */
  now: number;
  bays: readonly { id: string }[];
  /** Each with when they work, where that is not when the shop does. */
  people: readonly { id: string; hours?: readonly TimeSpan[] | undefined }[];
  /** When the shop works. */
  hours: readonly TimeSpan[];
  taken: readonly Taken[];
}

/** Any bay takes any unit, and everybody who is planned can do the work. */
export const ANY = 'any';
const MIN_MS = 60_000;
const QUARTER_MIN = 15;

const minuteOf = (now: number, ms: number) => Math.round((ms - now) / MIN_MS);
export const momentOfMinute = (now: number, minute: number) => now + minute * MIN_MS;

const wholeMinutes = ({ minutes, people, exact }: Visit) =>
  exact
    ? Math.max(1, Math.floor(minutes / people))
    : QUARTER_MIN * Math.max(1, Math.ceil(minutes / people / QUARTER_MIN));

/**
 * The input of a shop plan, its bays, people, tools and jobs by id. Work is planned in quarters of an hour.
 */
export function shopPlanInputOf(
  { now, bays, people, hours, taken }: PlanShop,
  visits: readonly Visit[],
): ShopPlanInput {
  // What is taken is taken for every minute it touches, and work is done in whole minutes only.
  const ahead = (list: readonly TimeSpan[], first: typeof Math.floor, last: typeof Math.ceil) =>
    list
      .map(({ from, until }) => ({
        fromMin: Math.max(0, first((from - now) / MIN_MS)),
        untilMin: Math.max(0, last((until - now) / MIN_MS)),
      }))
      .filter((s) => s.untilMin > s.fromMin);
  const takenOf = (what: Claimed, of: string) =>
    ahead(
      taken.filter((t) => t.what === what && t.of === of),
      Math.floor,
      Math.ceil,
    );
  const works = people.map((p) => ahead(p.hours ?? hours, Math.ceil, Math.floor));
  const end = Math.max(0, ...works.map((spans) => spans.at(-1)?.untilMin ?? 0));
  const jobs = visits.map((v) => {
    const away = takenOf('unit', v.unitId).sort((a, b) => a.fromMin - b.fromMin);
    const stays = [];
    let at = 0;
    for (const gone of away) {
      if (gone.fromMin > at) stays.push({ fromMin: at, untilMin: gone.fromMin });
      at = Math.max(at, gone.untilMin);
    }
    if (end > at) stays.push({ fromMin: at, untilMin: end });
    return {
      id: v.id,
      minutes: wholeMinutes(v),
      releaseMin: Math.max(0, Math.ceil((v.from - now) / MIN_MS)),
      dueMin: minuteOf(now, v.due),
      weight: v.weight,
      bayKind: ANY,
      skill: ANY,
      people: v.people,
      tools: [...v.tools],
      ...(away.length > 0 ? { stays } : {}),
    };
  });
  return {
    bays: bays.map(({ id }) => ({ id, kinds: [ANY], taken: takenOf('bay', id) })),
    people: people.map(({ id }, nth) => ({
      id,
      skills: [ANY],
      works: works[nth]!,
      taken: takenOf('person', id),
    })),
    tools: [...new Set(visits.flatMap((v) => v.tools))].map((id) => ({ id, taken: takenOf('tool', id) })),
    jobs,
    seed: 1,
  };
}

/** Where a booking stands, in minutes. */
export function placeOf(
  now: number,
  booking: { id: string; bayId: string; people: readonly string[]; from: number; until: number },
): Place {
  return {
    job: booking.id,
    bay: booking.bayId,
    people: [...booking.people],
    startMin: minuteOf(now, booking.from),
    endMin: minuteOf(now, booking.until),
  };
}
