export interface Point {
  x: number;
  y: number;
}

/** Above this many points the slopes are not listed but counted. */
const LIST_UP_TO = 1200;

/** x is taken to a billionth: nearer points have one x, and no slope between them. */
const PER_X = 1e9;

/** How many pairs with different x there are. */
function pairCount(points: readonly Point[]): number {
  const n = points.length;
  const same = new Map<number, number>();
  for (const { x } of points) same.set(x, (same.get(x) ?? 0) + 1);
  let tied = 0;
  for (const m of same.values()) tied += (m * (m - 1)) / 2;
  return (n * (n - 1)) / 2 - tied;
}

/** Sorts a piece of `values` in place and counts the pairs that stood the wrong way round (later one smaller). */
function countInversions(values: Float64Array, scratch: Float64Array): number {
  const n = values.length;
  let count = 0;
  for (let width = 1; width < n; width *= 2) {
    for (let lo = 0; lo < n; lo += 2 * width) {
      const mid = Math.min(lo + width, n);
      const hi = Math.min(lo + 2 * width, n);
      let i = lo;
      let j = mid;
      for (let k = lo; k < hi; k++) {
        if (i < mid && (j >= hi || values[i]! <= values[j]!)) scratch[k] = values[i++]!;
        else {
          count += mid - i;
          scratch[k] = values[j++]!;
        }
      }
    }
    values.set(scratch);
  }
  return count;
}

/** Slopes below `slope` among points sorted by x and, within one x, by y: pairs for which y − slope·x falls. */
function countBelow(
  sorted: readonly Point[],
  slope: number,
  values: Float64Array,
  scratch: Float64Array,
): number {
  sorted.forEach((p, i) => (values[i] = p.y - slope * p.x));
  return countInversions(values, scratch);
}

/** The slope of a given rank (from 0) by halving the interval in which it must lie. */
function slopeByCounting(sorted: readonly Point[], rank: number): number {
  const values = new Float64Array(sorted.length);
  const scratch = new Float64Array(sorted.length);
  let step = 1;
  while (countBelow(sorted, -step, values, scratch) > rank) step *= 4;
  let low = -step;
  step = 1;
  while (countBelow(sorted, step, values, scratch) <= rank) step *= 4;
  let high = step;
  for (let i = 0; i < 120 && high - low > Math.abs(high) * 1e-14; i++) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) break;
    if (countBelow(sorted, middle, values, scratch) > rank) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/**
 * Slopes of all pairs of points with different x, as a sorted list to be asked by rank. Long lists are
 * never built: the slope of a rank is found by counting, in n·log n.
 */
export function rankedSlopes(given: readonly Point[]): { count: number; at: (rank: number) => number } {
  const points = given.map((p) => ({ x: Math.round(p.x * PER_X) / PER_X, y: p.y }));
  const count = pairCount(points);
  if (points.length <= LIST_UP_TO) {
    const slopes = new Float64Array(count);
    let k = 0;
    points.forEach((a, i) => {
      for (let j = i + 1; j < points.length; j++) {
        const b = points[j]!;
        if (a.x !== b.x) slopes[k++] = (b.y - a.y) / (b.x - a.x);
      }
    });
    slopes.sort();
    return { count, at: (rank) => slopes[rank]! };
  }
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  return { count, at: (rank) => slopeByCounting(sorted, rank) };
}

/** Median of the slopes of all pairs; null when no two points differ in x. @source Theil 1950, Sen 1968 */
export function medianSlope(points: readonly Point[]): number | null {
  const { count, at } = rankedSlopes(points);
  if (count === 0) return null;
  return count % 2 === 1 ? at((count - 1) / 2) : (at(count / 2 - 1) + at(count / 2)) / 2;
}

/** Median of a list that is not empty. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
