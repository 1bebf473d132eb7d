import type { UnitKind } from '../axle-plan/index.ts';
import type { Work } from '../stack/index.ts';

/** Minutes on one wheel end, from few to many. */
export interface WorkTime {
  low: number;
  usual: number;
  high: number;
  /** How many of this shop's own jobs it stands on; 0 where it is what is usual. */
  measured: number;
}

/** A time that this shop took for a work on a kind of unit: quartiles of its released wheel ends. */
export interface MeasuredTime extends WorkTime {
  work: Work;
  kind: UnitKind;
}

/** From so many on a shop's own times are believed. */
const ENOUGH = 5;

/** Minutes a unit costs besides its wheel ends: in, on stands, down, out. Common practice, no source. */
export const IN_AND_OUT_MIN = 30;

/**
 * What a work usually takes on one wheel end, minutes. Also the order in which one work holds another: whoever
 * renews bearings has the seal off as well.
 * @source common practice, no source
 */
const usualMinutes: Record<Work, number> = {
  'oil-level': 8,
  retorque: 10,
  check: 25,
  'wheel-off': 30,
  adjust: 45,
  studs: 60,
  brakes: 90,
  linings: 100,
  seal: 105,
  sleeve: 120,
  repack: 120,
  shaft: 120,
  bearings: 150,
  hub: 150,
  'unit-hub': 150,
  'spindle-bearing': 150,
  'knuckle-seal': 180,
  spindle: 210,
  swivels: 210,
  kingpin: 240,
};

/** The work of some that takes longest: the others are mostly done on its way. */
export const heaviest = (works: readonly Work[]): Work | null =>
  works.reduce<Work | null>((a, b) => (a === null || usualMinutes[b] > usualMinutes[a] ? b : a), null);

/** How long a work takes on one wheel end of a kind of unit: this shop's own times, else what is usual, with half and double its spread. */
export function workTime(work: Work, kind: UnitKind, measured: readonly MeasuredTime[]): WorkTime {
  const own = measured.find((m) => m.work === work && m.kind === kind && m.measured >= ENOUGH);
  if (own) return { low: own.low, usual: own.usual, high: own.high, measured: own.measured };
  const usual = usualMinutes[work];
  return { low: 0.75 * usual, usual, high: 1.5 * usual, measured: 0 };
}

/**
 * How long a visit takes, wheel end by wheel end, one after another.
 * @param wheelEnds each with its works, and which part of them is left, 0 to 1: all, if left out
 */
export function visitTime(
  wheelEnds: readonly { works: readonly Work[]; left?: number }[],
  kind: UnitKind,
  measured: readonly MeasuredTime[],
): WorkTime {
  const times = wheelEnds.flatMap(({ works, left = 1 }) => {
    const work = heaviest(works);
    if (!work) return [];
    const { low, usual, high, measured: times } = workTime(work, kind, measured);
    return [{ low: left * low, usual: left * usual, high: left * high, measured: times }];
  });
  const sum = (of: (t: WorkTime) => number) => IN_AND_OUT_MIN + times.reduce((s, t) => s + of(t), 0);
  return {
    low: sum((t) => t.low),
    usual: sum((t) => t.usual),
    high: sum((t) => t.high),
    measured: times.length > 0 ? Math.min(...times.map((t) => t.measured)) : 0,
  };
}
