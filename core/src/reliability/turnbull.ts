import type { Life } from './units.ts';

/** Share of all failures that lies after `from` and not after `to`; `to` is infinite for what nobody saw fail. */
export interface Mass {
  from: number;
  to: number;
  share: number;
}

const MOST_ROUNDS = 20_000;
/** Shares that change by less than this are settled. */
const SETTLED = 1e-11;
/** A share under this is none: the rounds bring it to zero and never reach it. */
const NONE = 1e-7;

/** A first or last place of what is known of a life; at one time an exact failure begins first, then all ends, then visits. */
interface Edge {
  time: number;
  order: 0 | 1 | 2;
}

const begins = ({ from, to }: Life): Edge => ({ time: from, order: from === to ? 0 : 2 });
const sorted = (edges: Edge[]) => edges.sort((a, b) => a.time - b.time || a.order - b.order);

/** The narrowest intervals in which failures can lie: a beginning with an end right after it. @source Turnbull 1976 */
function innermost(lives: readonly Life[]): { from: Edge; to: number }[] {
  const ends = lives.map(({ to }): Edge => ({ time: to, order: 1 }));
  // Where watching began ends what lies before it.
  const entries = lives.flatMap(({ entry }): Edge[] => (entry > 0 ? [{ time: entry, order: 1 }] : []));
  const edges = sorted([...lives.map(begins), ...ends, ...entries]);
  return edges.flatMap((from, i) => {
    const to = edges[i + 1];
    return from.order !== 1 && to?.order === 1 ? [{ from, to: to.time }] : [];
  });
}

/** First place in a sorted list that fits. */
function firstThat(count: number, fits: (i: number) => boolean): number {
  let low = 0;
  let high = count;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (fits(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * The most likely shares of failures over time where some were only found between two visits, and some units were known
 * only from an age on. By self-consistency: every unit is shared out over where its failure can lie, in proportion to the
 * shares so far, until they settle.
 * @returns only intervals with a share, in order; shares add to 1
 * @source Turnbull 1976, the empirical distribution with censored and truncated data
 */
export function turnbull(lives: readonly Life[]): Mass[] {
  const cells = innermost(lives);
  const m = cells.length;
  const isBefore = (a: Edge, b: Edge) => a.time < b.time || (a.time === b.time && a.order < b.order);
  const places = lives.map((life) => {
    const at = begins(life);
    return {
      first: firstThat(m, (i) => !isBefore(cells[i]!.from, at)),
      end: firstThat(m, (i) => cells[i]!.to > life.to),
      watched: life.entry > 0 ? firstThat(m, (i) => cells[i]!.to > life.entry) : 0,
    };
  });
  let shares = new Float64Array(m).fill(1 / m);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = roundOf(shares, places);
    let change = 0;
    for (let j = 0; j < m; j++) change = Math.max(change, Math.abs(next[j]! - shares[j]!));
    shares = next;
    if (change < SETTLED) break;
  }
  const kept = cells.flatMap(({ from, to }, j) =>
    shares[j]! > NONE ? [{ from: from.time, to, share: shares[j]! }] : [],
  );
  const all = kept.reduce((sum, { share }) => sum + share, 0);
  return kept.map((mass) => ({ ...mass, share: mass.share / all }));
}

/** One round: each unit, and those like it that failed unseen before watching began, shared out over the cells. */
function roundOf(
  shares: Float64Array,
  places: readonly { first: number; end: number; watched: number }[],
): Float64Array<ArrayBuffer> {
  const m = shares.length;
  const upTo = new Float64Array(m + 1);
  for (let j = 0; j < m; j++) upTo[j + 1] = upTo[j]! + shares[j]!;
  // What each cell is multiplied by, kept as its changes from cell to cell.
  const changes = new Float64Array(m + 1);
  let units = 0;
  for (const { first, end, watched } of places) {
    const within = 1 / (upTo[end]! - upTo[first]!);
    changes[first]! += within;
    changes[end]! -= within;
    units += 1;
    if (watched > 0) {
      const unseen = 1 / (upTo[m]! - upTo[watched]!);
      changes[0]! += unseen;
      changes[watched]! -= unseen;
      units += upTo[watched]! * unseen;
    }
  }
  const next = new Float64Array(m);
  let times = 0;
  for (let j = 0; j < m; j++) {
    times += changes[j]!;
    next[j] = (Math.max(0, times) * shares[j]!) / units;
  }
  return next;
}
