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

/** What a unit's axles, its past and its meters say of what comes. */
export interface UnitPast {
  kind: UnitKind;
  /** What makes its work come sooner. */
  duty: readonly SaidDuty[];
  axles: readonly PlacedAxle[];
  done: readonly ServiceDone[];
  /** Believed readings in the order of their days. */
  distance: readonly RunPoint[];
  hours: readonly RunPoint[];
}

/** A work that is wanted on a wheel end at intervals. */
export interface Due extends Omit<Forecast, 'missing'> {
  axleId: string;
  position: Position;
  work: Work;
  /** When it was done last; null where nobody has said. */
  lastOn: string | null;
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
export function unitDue({ kind, duty, axles, done, distance, hours }: UnitPast): Due[] {
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
    return positionsOf([axle]).flatMap((position) =>
      intervalsOf(axle, kind)
        .filter((i) => can.includes(i.work))
        .map((interval): Due => {
          const { work } = interval;
          const { interval: limits, by } = shortenedBy(work, limitsOf(interval), duty);
          const on = { axleId: axle.id, position, work, shortened: by };
          const lastOn = last.get(`${axle.id} ${position} ${work}`) ?? null;
          if (lastOn === null)
            return { ...on, lastOn, date: null, earliest: null, latest: null, by: null, missing: ['last'] };
          return { ...on, lastOn, ...forecastDue(limits, lastOn, runs) };
        }),
    );
  });
}
