/** One meter of a unit. */
export type MeterOf = 'distance' | 'hours';

/** A meter as it was read on a day: km, or hours. */
export interface MeterPoint {
  date: string;
  value: number;
  /** Its place in the order in which readings were told. */
  nth: number;
  /** How much it counts against those it contradicts. */
  weight: number;
}

/** An old meter ended at `last` and another began at `first`. */
export interface MeterSwap {
  date: string;
  last: number;
  first: number;
  /** How many readings had been told before it. */
  after: number;
}

/** A reading, counted across every swap before it. */
export interface JoinedPoint extends MeterPoint {
  /** What the unit has run in all, as far as meters tell. */
  total: number;
  /** It does not fit the readings around it: less than an earlier one, or more than later ones that weigh more. */
  doubtful: boolean;
}

/** Whether a reading was taken on the meter that a swap began: on a later day, or told later of the same day. */
const isAfter = ({ date, nth }: MeterPoint, swap: MeterSwap) =>
  date > swap.date || (date === swap.date && nth >= swap.after);

/**
 * The run of readings that never goes back and weighs most; of two as heavy, the one that was complete first.
 * @param points in the order of their days
 * @returns whether each belongs to it
 * @source heaviest non-decreasing subsequence, by a tree of greatest prefixes: Fenwick 1994
 */
function fits(points: readonly { total: number; weight: number }[]): boolean[] {
  const sorted = [...new Set(points.map((p) => p.total))].sort((a, b) => a - b);
  const rank = new Map(sorted.map((total, i) => [total, i + 1]));
  const weighs: number[] = [];
  const before: (number | undefined)[] = [];
  /** At each place of the tree the point that ends the heaviest run of those below it. */
  const tree: (number | undefined)[] = [];
  const heavier = (a: number | undefined, b: number | undefined) =>
    b === undefined || (a !== undefined && weighs[a]! >= weighs[b]!) ? a : b;
  let last: number | undefined;
  points.forEach(({ total, weight }, i) => {
    const at = rank.get(total)!;
    let under: number | undefined;
    for (let k = at; k > 0; k -= k & -k) under = heavier(under, tree[k]);
    before[i] = under;
    weighs[i] = weight + (under === undefined ? 0 : weighs[under]!);
    for (let k = at; k <= sorted.length; k += k & -k) tree[k] = heavier(tree[k], i);
    last = heavier(last, i);
  });
  const kept = new Set<number>();
  for (let i = last; i !== undefined; i = before[i]) kept.add(i);
  return points.map((_, i) => kept.has(i));
}

/**
 * Readings of one meter of a unit in the order of their days, counted across swaps, each with whether it is believed.
 * @param points in any order
 * @param swaps in any order
 */
export function joinMeter(points: readonly MeterPoint[], swaps: readonly MeterSwap[]): JoinedPoint[] {
  const sorted = [...points].sort((a, b) => (a.date === b.date ? a.nth - b.nth : a.date < b.date ? -1 : 1));
  const joined = sorted.map((point) => ({
    ...point,
    total: swaps.filter((s) => isAfter(point, s)).reduce((total, s) => total + s.last - s.first, point.value),
  }));
  const believed = fits(joined);
  return joined.map((point, i) => ({ ...point, doubtful: !believed[i] }));
}
