import { positionsOf, type PlacedAxle, type Position, type UnitKind } from '../axle-plan/index.ts';
import { forecastDue, useOf, type Forecast, type RunPoint } from '../interval/index.ts';
import { stackOfSheet, type IntervalFigure } from '../procedure/index.ts';
import { convert } from '../quantity/index.ts';
import { worksOf, type Work } from '../stack/index.ts';
import { shortenedBy, type Duty, type SaidDuty } from './duty.ts';
import { intervalsOf } from './usual-intervals.ts';

/** Works that another has done as well: whoever has the hub off renews the seal, sets the bearings and fills it anew. */
const alsoDone: Partial<Record<Work, readonly Work[]>> = {
  'wheel-off': ['check'],
  adjust: ['check', 'oil-level'],
  brakes: ['check'],
  linings: ['brakes', 'check'],
  seal: ['adjust', 'check', 'oil-level'],
  sleeve: ['seal', 'adjust', 'check', 'oil-level'],
  repack: ['seal', 'adjust', 'check', 'oil-level'],
  bearings: ['repack', 'seal', 'adjust', 'check', 'oil-level'],
  hub: ['seal', 'adjust', 'check', 'oil-level'],
  'unit-hub': ['bearings', 'seal', 'check'],
};

/** Everything that is done once these works are. @source common practice, no source */
export function doneWith(works: readonly Work[]): Work[] {
  return [...new Set(works.flatMap((work) => [work, ...(alsoDone[work] ?? [])]))];
}

/** A work that was done on a wheel end, on a day. */
export interface ServiceDone {
  axleId: string;
  position: Position;
  works: readonly Work[];
  date: string;
}

/** What is done where a wheel end was left out of its band; the first of these that it can have. */
const putsInBand = ['adjust', 'unit-hub', 'bearings', 'check'] as const satisfies readonly Work[];

/** A wheel end whose last reading is out of its band, and the day of that reading. */
interface OutOfBand {
  axleId: string;
  position: Position;
  date: string;
}

/** A work that the owner answered on a day to have done later, and when. */
interface Deferred {
  axleId: string;
  position: Position;
  work: Work;
  on: string;
  until: string;
}

/** What a unit's axles, its past and its meters say of what comes. */
export interface UnitPast {
  kind: UnitKind;
  /** What makes its work come sooner. */
  duty: readonly SaidDuty[];
  axles: readonly PlacedAxle[];
  done: readonly ServiceDone[];
  outOfBand: readonly OutOfBand[];
  deferred: readonly Deferred[];
  /** Believed readings in the order of their days. */
  distance: readonly RunPoint[];
  hours: readonly RunPoint[];
}

/** A work that is wanted on a wheel end: at intervals, since its last reading was out of its band, or as its owner answered. */
export interface Due extends Omit<Forecast, 'missing' | 'by'> {
  axleId: string;
  position: Position;
  work: Work;
  /** When it was done last; null where nobody has said. */
  lastOn: string | null;
  by: Forecast['by'] | 'out-of-band' | 'deferred';
  /** Duties that made it come sooner. */
  shortened: Duty[];
  /** What nobody has said, and what the day or a closer one hangs on. */
  missing: ('last' | 'distance' | 'hours')[];
}

const limitsOf = ({ distance, months, hours }: IntervalFigure) => ({
  km: distance && convert(distance.value, distance.unit, 'km'),
  months,
  hours: hours && hours.value,
});

/**
 * What is due on a unit, per wheel end and work, with the day and a range of days from the unit's own use. It hangs on no
 * today: only when the past changes does it change.
 */
export function unitDue(past: UnitPast): Due[] {
  const { kind, duty, axles, done, outOfBand, distance, hours } = past;
  const last = new Map<string, string>();
  for (const { axleId, position, works, date } of done)
    for (const work of doneWith(works)) {
      const key = `${axleId} ${position} ${work}`;
      if (date > (last.get(key) ?? '')) last.set(key, date);
    }
  const runs = {
    distance: { points: distance, use: useOf(distance) },
    hours: { points: hours, use: useOf(hours) },
  };
  return axles.flatMap((axle) => {
    const can = worksOf(stackOfSheet(axle.sheet, axle) ?? []);
    return positionsOf([axle]).flatMap((position) => {
      const left = outOfBand.find((o) => o.axleId === axle.id && o.position === position);
      const mends = left && putsInBand.find((work) => can.includes(work));
      const atOnce =
        left && mends ? [dueSince(left, mends, last.get(`${axle.id} ${position} ${mends}`))] : [];
      const waiting = stillDeferred(
        past.deferred.filter((d) => d.axleId === axle.id && d.position === position),
        (work) => last.get(`${axle.id} ${position} ${work}`),
      ).filter((d) => can.includes(d.work) && d.work !== mends);
      const isNamed = (work: Work) => work === mends || waiting.some((d) => d.work === work);
      const atIntervals = intervalsOf(axle, kind)
        .filter((i) => can.includes(i.work) && !isNamed(i.work))
        .map((interval): Due => {
          const { work } = interval;
          const { interval: limits, by } = shortenedBy(work, limitsOf(interval), duty);
          const on = { axleId: axle.id, position, work, shortened: by };
          const lastOn = last.get(`${axle.id} ${position} ${work}`) ?? null;
          if (lastOn === null)
            return { ...on, lastOn, date: null, earliest: null, latest: null, by: null, missing: ['last'] };
          return { ...on, lastOn, ...forecastDue(limits, lastOn, runs) };
        });
      return [...atOnce, ...waiting, ...atIntervals];
    });
  });
}

/** Work on a wheel end that was left out of its band: due from that day on, until it is measured in band. */
const dueSince = ({ axleId, position, date }: OutOfBand, work: Work, lastOn: string | undefined): Due => ({
  ...{ axleId, position, work, lastOn: lastOn ?? null },
  ...{ date, earliest: date, latest: date, by: 'out-of-band' },
  ...{ missing: [], shortened: [] },
});

/** What was deferred and not done since, each work as it was answered last, on the day that was agreed. */
function stillDeferred(deferred: readonly Deferred[], lastOn: (work: Work) => string | undefined): Due[] {
  const byDay = deferred.toSorted((a, b) => (a.on < b.on ? -1 : 1));
  return [...new Map(byDay.map((d) => [d.work, d])).values()].flatMap(
    ({ axleId, position, work, on, until }) => {
      const last = lastOn(work) ?? null;
      if (last !== null && last >= on) return [];
      const day = { date: until, earliest: until, latest: until, by: 'deferred' as const };
      return [{ axleId, position, work, lastOn: last, ...day, missing: [], shortened: [] }];
    },
  );
}
