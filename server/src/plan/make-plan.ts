import { addDays } from '@lanternwright/core/interval';
import type { Mended, Place, ShopPlan, ShopPlanInput } from '@lanternwright/core/shop-plan';
import {
  ANY,
  dayBegins,
  momentOfMinute,
  placeOf,
  describeBecause,
  describeMove,
  describeWorks,
  hoursTogether,
  shopPlanInputOf,
  visitTime,
  workedIn,
  type NotBefore,
  type PlanShop,
  type Taken,
  type TimeSpan,
  type Visit,
  type WorkTime,
} from '@lanternwright/core/work-plan';
import type { Booked, ProposalResult, Proposed } from '@lanternwright/contract/plan';
import { refused } from '../http/problem.ts';
import type { Clock } from '../shop/clock.ts';
import type { SettingsService } from '../shop/settings.ts';
import { takenBy, type ShopAhead, type UnitHead } from './shop-ahead.ts';

/** How far a plan looks, and how long before its day a unit may come: sooner wastes its interval. */
const AHEAD_DAYS = 84;
const SOONER_DAYS = 14;
/** What is due within so many days after the first is done on the same visit. */
const ONE_VISIT_DAYS = 60;
/** A wheel end out of its band comes before everything that is due by its interval alone. @source common practice, no source */
const OUT_OF_BAND_WEIGHT = 1000;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** How long a unit that should have left its bay is thought to stay yet. */
const STAYS_YET_MS = 2 * HOUR_MS;
const LEAST_MIN = 15;

/** A visit with the words that go with it. */
interface Planned {
  unit: UnitHead;
  jobId: string | null;
  visit: Visit;
  notBefore: NotBefore;
  what: string;
  works: Booked['works'];
  time: WorkTime;
  dueOn: string | null;
  /** How many it would be, were each work done on its own day. */
  visits: number;
}

/** What one unit comes for, with the day that decides. */
interface Visitor {
  unit: UnitHead;
  dueOn: string;
  due: (Booked['works'][number] & { dueOn: string; outOfBand: boolean })[];
}

/** What is due and what is to be looked after, each unit once: a retorque is done where the unit comes anyway. */
function together(
  due: Awaited<ReturnType<ShopAhead['dueVisits']>>,
  after: Awaited<ReturnType<ShopAhead['lookedAfter']>>,
): Visitor[] {
  const visitors = new Map<string, Visitor>();
  for (const d of due) {
    const works = d.due.flatMap(({ position, work, dueOn, dueBy }) =>
      dueOn === null ? [] : [{ position, work, dueOn, outOfBand: dueBy === 'out-of-band' }],
    );
    visitors.set(d.unit.id, { unit: d.unit, dueOn: d.dueOn, due: works });
  }
  for (const { unit, due: works } of after) {
    const known = visitors.get(unit.id);
    const wanted = works.filter(
      (w) => !known?.due.some((x) => x.position === w.position && x.work === w.work),
    );
    const all = [...(known?.due ?? []), ...wanted.map((w) => ({ ...w, outOfBand: false }))];
    const dueOn = all.map((w) => w.dueOn).sort()[0]!;
    visitors.set(unit.id, { unit, dueOn, due: all });
  }
  return [...visitors.values()];
}

type Stand = Proposed['to'];
interface PlanPeople extends PlanShop {
  people: { id: string; name: string; hours: TimeSpan[] | undefined }[];
}

interface Earliest {
  now: number;
  taken: readonly Taken[];
  visit: Visit;
  notBefore: NotBefore;
}

/** Who works a plan out. */
interface Runs {
  plan: (shop: ShopPlanInput) => Promise<ShopPlan>;
  mendWith: (shop: ShopPlanInput, places: Place[]) => Promise<Mended>;
}

/** A time that can be promised: with nothing else moved, with others moved, or later than it was asked for. */
export interface PromisedTime extends Pick<Proposed, 'to' | 'because'> {
  holds: 'free' | 'moving' | 'late';
  moved: Proposed[];
}

export const inHours = ({ low, usual, high, measured }: WorkTime) => ({
  ...{ low: low / 60, usual: usual / 60, high: high / 60 },
  measured,
});

const iso = (ms: number) => new Date(ms).toISOString();

/** A booking without people keeps its place in the plan through nobody, who is always there. */
const NOBODY = 'nobody ';

function standOf(now: number, names: ReadonlyMap<string, string>, place: Omit<Place, 'job'>): Stand {
  const people = place.people.filter((p) => !p.startsWith(NOBODY));
  return {
    ...{ bayId: place.bay, people, names: people.map((p) => names.get(p) ?? '') },
    from: iso(momentOfMinute(now, place.startMin)),
    until: iso(momentOfMinute(now, place.endMin)),
  };
}

/** Makes plans of the shop as it stands: of what is due, and of what no longer holds. */
export function planMaker(settings: SettingsService, ahead: ShopAhead, clock: Clock) {
  async function shopFrom(now: number, taken: readonly Taken[]): Promise<PlanPeople> {
    const until = now + AHEAD_DAYS * DAY_MS;
    const [people, away] = await Promise.all([ahead.people(now, until), ahead.away(now, until)]);
    const hours = ahead.hours(now, until);
    const { bays } = settings.current();
    if (bays.length === 0) throw refused('Add the bays of the shop in the settings', 'kind');
    if (hours.length === 0) throw refused('Enter the hours of the shop in the settings', 'kind');
    if (people.length === 0) throw refused('There is no technician to plan for', 'kind');
    return { now, bays, people, hours, taken: [...taken, ...away] };
  }

  /** Days from the end of a day to a moment, begun ones too; 0 where it is not after it. */
  const daysAfter = (day: string, ms: number) =>
    Math.max(0, Math.ceil((ms - dayBegins(day, settings.current().zone, 1)) / DAY_MS));

  /** What is to come in: units on which something is due, and open jobs that stand nowhere. */
  async function plannedVisits(now: number, days: number, owner: string | null): Promise<Planned[]> {
    const today = clock.today();
    const [due, after, jobs, measured] = await Promise.all([
      ahead.dueVisits(addDays(today, days), owner),
      ahead.lookedAfter(owner),
      ahead.waitingJobs(owner),
      ahead.measured(),
    ]);
    const { zone } = settings.current();
    const endOfDay = (day: string) => dayBegins(day, zone, 1);
    const fromDue = together(due, after).map((d): Planned => {
      const last = addDays(d.dueOn > today ? d.dueOn : today, ONE_VISIT_DAYS);
      const mine = d.due.filter((x) => x.dueOn <= last);
      const ends = [...new Set(mine.map((x) => x.position))].map((position) => ({
        works: mine.filter((x) => x.position === position).map((x) => x.work),
      }));
      const time = visitTime(ends, d.unit.kind, measured);
      const from = Math.max(now, endOfDay(d.dueOn) - SOONER_DAYS * DAY_MS);
      const overdue = mine.filter((x) => x.dueOn < today).length;
      const outOfBand = mine.some((x) => x.outOfBand);
      return {
        ...{ unit: d.unit, jobId: null, time, what: describeWorks(mine), dueOn: d.dueOn },
        works: mine.map(({ position, work }) => ({ position, work })),
        notBefore: from > now ? 'interval' : 'now',
        visits: new Set(mine.map((x) => x.dueOn)).size,
        visit: {
          ...{
            id: d.unit.id,
            unitId: d.unit.id,
            minutes: time.usual,
            people: 1,
            tools: [],
            from,
            // Out of its band it is late from the first hour, and not only at the end of today.
            due: outOfBand ? from : endOfDay(d.dueOn),
          },
          weight: 1 + overdue + (outOfBand ? OUT_OF_BAND_WEIGHT : 0),
        },
      };
    });
    const known = new Set<string>();
    const fromJobs = jobs.flatMap((j): Planned[] => {
      if (known.has(j.unit.id)) return [];
      known.add(j.unit.id);
      const time = visitTime(j.ends, j.unit.kind, measured);
      const from = j.partsBy === null ? now : Math.max(now, dayBegins(j.partsBy, zone, 0));
      return [
        {
          ...{ unit: j.unit, jobId: j.jobId, time, what: j.title, dueOn: null, visits: 1 },
          notBefore: from > now ? 'part' : 'now',
          works: [],
          visit: {
            ...{
              id: j.unit.id,
              unitId: j.unit.id,
              minutes: time.usual,
              people: 1,
              tools: [],
              from,
              due: from + 2 * DAY_MS,
            },
            weight: 2,
          },
        },
      ];
    });
    return [...fromJobs, ...fromDue.filter((v) => !known.has(v.unit.id))];
  }

  async function propose(
    { days, owner }: { days: number; owner?: string | undefined },
    run: (shop: ShopPlanInput) => Promise<ShopPlan>,
  ): Promise<ProposalResult> {
    const now = ahead.begin();
    const booked = await ahead.bookings(now, now + AHEAD_DAYS * DAY_MS);
    const shop = await shopFrom(now, booked.flatMap(takenBy));
    const visits = await plannedVisits(now, days, owner ?? null);
    const plan = await run(
      shopPlanInputOf(
        shop,
        visits.map((v) => v.visit),
      ),
    );
    const of = new Map(visits.map((v) => [v.unit.id, v]));
    const names = new Map(shop.people.map((p) => [p.id, p.name]));
    const nameOf = (unitId: string) => of.get(unitId)?.unit.name ?? 'another';
    return {
      rows: plan.bookings.map((b) => {
        const v = of.get(b.job)!;
        return {
          ...{ unit: v.unit, jobId: v.jobId, bookingId: null, seenVersion: null, tools: [], was: null },
          works: v.works,
          ...{ to: standOf(now, names, b), what: v.what, hours: inHours(v.time) },
          because: describeBecause(b.because, v.notBefore, nameOf),
          lateDays: v.dueOn === null ? 0 : daysAfter(v.dueOn, momentOfMinute(now, b.endMin)),
        };
      }),
      unplaced: plan.unplaced.map((id) => ({
        unit: of.get(id)!.unit,
        why: 'It finds no time in which people work, a bay is free and the unit is here.',
      })),
      gap: plan.cost > 0 ? 1 - plan.lowerBound / plan.cost : null,
      visitsSaved: visits.reduce((s, v) => s + v.visits - 1, 0),
    };
  }

  /** Minutes of a booking in which all of its people work; where it has none, in which the shop does. */
  const workedMin = ({ hours, people }: PlanPeople, { from, until, people: own }: Booked) => {
    const crew = own.map((id) => people.find((p) => p.id === id)?.hours ?? hours);
    const together = hoursTogether(crew.length > 0 ? crew : [hours]);
    return workedIn(together, { from: Date.parse(from), until: Date.parse(until) }) / 60_000;
  };

  /** What should have left its bay by now and has not: nobody knows when it will. */
  async function stuck(now: number, booked: readonly Booked[]): Promise<Booked[]> {
    const [past, waiting] = await Promise.all([
      ahead.bookings(now - 7 * DAY_MS, now),
      ahead.waitingJobs(null),
    ]);
    const open = new Set(waiting.map((j) => j.jobId));
    const last = new Map(past.flatMap((b) => (b.jobId !== null && open.has(b.jobId) ? [[b.jobId, b]] : [])));
    return [...last.values()]
      .filter((b) => !booked.some((x) => x.id === b.id))
      .map((b) => ({ ...b, until: iso(now + STAYS_YET_MS) }));
  }

  /** What of the bookings no plan moves, as what is taken, and those that may move. */
  async function movable(now: number, shop: PlanPeople): Promise<{ taken: Taken[]; free: Booked[] }> {
    const booked = await ahead.bookings(now, now + AHEAD_DAYS * DAY_MS);
    const fixed = (b: Booked) =>
      b.locked || Date.parse(b.from) < now || b.people.length > 2 || workedMin(shop, b) < LEAST_MIN;
    return {
      taken: [...booked.filter(fixed), ...(await stuck(now, booked))].flatMap(takenBy),
      free: booked.filter((b) => !fixed(b)),
    };
  }

  /** @param more what is taken besides what is booked */
  async function mend(
    run: (shop: ShopPlanInput, places: Place[]) => Promise<Mended>,
    more: readonly Taken[] = [],
  ): Promise<ProposalResult> {
    const now = ahead.begin();
    const shop = await shopFrom(now, []);
    const planned = new Set(shop.people.map((p) => p.id));
    const { taken, free } = await movable(now, shop);
    /** Who stays with a booking whatever happens: nobody, or somebody who is not planned otherwise. */
    const own = (b: Booked) =>
      b.people.length === 0 ? NOBODY + b.id : b.people.find((p) => !planned.has(p));
    const others = new Set(free.flatMap((b) => own(b) ?? []));
    const input = shopPlanInputOf(
      {
        ...shop,
        people: [...shop.people, ...[...others].map((id) => ({ id }))],
        taken: [...shop.taken, ...taken, ...more],
      },
      free.map((b) => {
        const people = b.people.length > 1 ? 2 : 1;
        return {
          ...{ id: b.id, unitId: b.unitId, people, minutes: workedMin(shop, b) * people, tools: b.tools },
          ...{ from: now, due: Date.parse(b.until), weight: 1, exact: true as const },
        };
      }),
    );
    const mended = await run(
      {
        ...input,
        people: input.people.map((p) => (others.has(p.id) ? { ...p, skills: [p.id] } : p)),
        jobs: input.jobs.map((job, i) => ({ ...job, skill: own(free[i]!) ?? ANY })),
      },
      free.map((b) =>
        placeOf(now, {
          ...{ id: b.id, bayId: b.bayId, people: b.people.length === 0 ? [NOBODY + b.id] : b.people },
          ...{ from: Date.parse(b.from), until: Date.parse(b.until) },
        }),
      ),
    );
    const names = new Map([
      ...shop.people.map((p): [string, string] => [p.id, p.name]),
      ...free.flatMap((b) => b.people.map((p, i): [string, string] => [p, b.names[i] ?? ''])),
    ]);
    const of = new Map(free.map((b) => [b.id, b]));
    const nameOf = (id: string) => of.get(id)?.unit.name ?? 'another';
    return {
      rows: mended.moved.map((m) => {
        const b = of.get(m.job)!;
        const to = standOf(now, names, m.to);
        return {
          ...{ unit: b.unit, jobId: b.jobId, bookingId: b.id, seenVersion: b.version, tools: b.tools },
          was: { bayId: b.bayId, people: b.people, names: b.names, from: b.from, until: b.until },
          ...{ to, because: describeMove(m.because, nameOf), what: b.job?.title ?? '', hours: null },
          lateDays: Math.max(0, Math.ceil((Date.parse(to.until) - Date.parse(b.until)) / DAY_MS)),
        };
      }),
      unplaced: mended.unplaced.map((id) => ({
        unit: of.get(id)!.unit,
        why: 'It finds no other time: move it by hand, or call its owner.',
      })),
      ...{ gap: null, visitsSaved: 0 },
    };
  }

  /** The earliest time of one visit, with nothing moved that is taken already; null where there is none. */
  async function earliest(
    { now, taken, visit, notBefore }: Earliest,
    run: (shop: ShopPlanInput) => Promise<ShopPlan>,
  ): Promise<Pick<Proposed, 'to' | 'because'> | null> {
    const shop = await shopFrom(now, taken);
    const names = new Map(shop.people.map((p) => [p.id, p.name]));
    const [found] = (await run(shopPlanInputOf(shop, [visit]))).bookings;
    return found
      ? {
          to: standOf(now, names, found),
          because: describeBecause(found.because, notBefore, () => 'another'),
        }
      : null;
  }

  /**
   * The earliest time that can be promised for some work, with its parts; where it must be sooner, what has to move.
   * @param asked the visit, and the moment by which it is to be finished
   */
  async function promise(
    { visit, notBefore, by }: { visit: Omit<Visit, 'from' | 'due'>; notBefore: number; by: number | null },
    { plan, mendWith }: Runs,
  ): Promise<PromisedTime | null> {
    const now = ahead.begin();
    const from = Math.max(now, notBefore);
    const wanted = { ...visit, from, due: from };
    const asked = { now, visit: wanted, notBefore: from > now ? ('part' as const) : ('now' as const) };
    const booked = await ahead.bookings(now, now + AHEAD_DAYS * DAY_MS);
    const free = await earliest({ ...asked, taken: booked.flatMap(takenBy) }, plan);
    const inTime = (time: typeof free) => time !== null && (by === null || Date.parse(time.to.until) <= by);
    if (inTime(free)) return { ...free!, holds: 'free', moved: [] };
    const { taken } = await movable(now, await shopFrom(now, []));
    const sooner = by === null ? null : await earliest({ ...asked, taken }, plan);
    if (sooner && inTime(sooner)) {
      const mended = await mend(
        mendWith,
        takenBy({ ...sooner.to, unitId: visit.unitId, tools: [...visit.tools] }),
      );
      // Nobody is turned away for a promise to another.
      if (mended.unplaced.length === 0) return { ...sooner, holds: 'moving', moved: mended.rows };
    }
    return free && { ...free, holds: 'late', moved: [] };
  }

  return {
    propose,
    mend,
    promise,
    daysAfter,
    /** @throws HttpProblem 422 where the settings lack what a plan needs */
    mustBeAble: async () => void (await shopFrom(ahead.begin(), [])),
    plannedVisits: (days: number) => plannedVisits(ahead.begin(), days, null),
  };
}
export type PlanMaker = ReturnType<typeof planMaker>;
