import { lateness, type Problem, type Task } from './problem.ts';

/** A set of tasks that share `capacity` people or bays, whatever else they need. */
interface Pool {
  capacity: number;
  members: Set<number>;
}

const BUCKETS = 320;

/** Tasks that can use no more than a set of resources: for each such set that occurs, all tasks within it. */
function poolsOf(tasks: readonly Task[], total: number, of: (t: Task) => number[]): Pool[] {
  const sets = new Map<string, number[]>();
  for (const t of tasks) sets.set(of(t).join(), of(t));
  sets.set(
    'all',
    Array.from({ length: total }, (_, i) => i),
  );
  const pools = [...sets.values()].map((resources): Pool => {
    const inside = new Set(resources);
    const members = tasks.flatMap((t, i) => (of(t).every((r) => inside.has(r)) ? [i] : []));
    return { capacity: resources.length, members: new Set(members) };
  });
  return pools.filter((p) => p.members.size > p.capacity);
}

/** Price per minute of a pool, constant in each bucket, and its running sum at the buckets' edges. */
interface Prices {
  perMinute: Float64Array;
  sum: Float64Array;
}

/** The start at which a task is cheapest: lateness plus the prices of the minutes it takes. */
function cheapest(task: Task, sum: Float64Array, width: number): { start: number; cost: number } {
  const { minutes, release, due, weight } = task;
  const last = sum[BUCKETS]!;
  const at = (place: number) => {
    const i = Math.floor(place);
    return i >= BUCKETS ? last : sum[i]! + (place - i) * (sum[i + 1]! - sum[i]!);
  };
  let start = release;
  let cost = Infinity;
  /** @returns whether a later start can still be cheaper: prices are never negative, and lateness only grows */
  const look = (begin: number): boolean => {
    const late = weight * Math.max(0, begin + minutes - due);
    if (late >= cost) return false;
    const here = late + at((begin + minutes) / width) - at(begin / width);
    if (here < cost) [start, cost] = [begin, here];
    return true;
  };
  look(release);
  if (due - minutes > release) look(due - minutes);
  // Cost is a straight line between these starts, so that the least is at one of them.
  for (let k = Math.ceil(release / width); k <= BUCKETS && look(k * width); k++);
  for (let k = Math.ceil((release + minutes) / width); k <= BUCKETS && look(k * width - minutes); k++);
  look(Math.max(release, BUCKETS * width));
  return { start, cost };
}

/** Minutes of [start, end) in each bucket, added to `load`. */
function addLoad(load: Float64Array, start: number, end: number, width: number): void {
  for (let k = Math.floor(start / width); k < BUCKETS && k * width < end; k++) {
    load[k]! += Math.min(end, (k + 1) * width) - Math.max(start, k * width);
  }
}

/** Where a running relaxation stands. */
export interface Relaxation {
  round: number;
  /** No plan has less weighted lateness. */
  bound: number;
  /** Where each task would start at the prices of this round, minutes. */
  starts: Float64Array;
  /** The same, averaged over the rounds so far with more weight on the later ones. */
  meanStarts: Float64Array;
}

/**
 * A proved lower bound on the weighted lateness of any plan, better with every round.
 *
 * The rule that a pool of people or bays serves no more tasks at once than it has members is taken away
 * and charged for instead: every minute has a price. Whatever the prices, the sum of each task's cheapest
 * place less what the pools would earn is at most the cost of the best plan. The prices are improved step
 * by step (subgradient), and the best bound seen is kept. The starts tell a planner what to do first.
 *
 * @param upper cost of the best plan known so far, to size the steps
 * @param rounds how many times the prices are improved
 * @source Lagrangian relaxation of the time-indexed formulation: Fisher 1981; Sousa and Wolsey 1992
 */
export function* relax(
  problem: Problem,
  upper: () => number,
  rounds: number,
): Generator<Relaxation, Relaxation> {
  const { tasks } = problem;
  const alone = tasks.reduce((s, t) => s + lateness(t, t.release + t.minutes), 0);
  const starts = Float64Array.from(tasks, (t) => t.release);
  const state = { round: 0, bound: alone, starts, meanStarts: Float64Array.from(starts) };
  const pools = [
    ...poolsOf(tasks, problem.people, (t) => t.people),
    ...poolsOf(tasks, problem.bays, (t) => t.bays),
  ];
  if (pools.length === 0) return state;
  const work = tasks.reduce((s, t) => s + t.minutes, 0);
  const latest = tasks.reduce((m, t) => Math.max(m, t.release), 0);
  const width = (latest + work / Math.min(...pools.map((p) => p.capacity)) + 1) / BUCKETS;
  const prices = pools.map((): Prices => ({
    perMinute: new Float64Array(BUCKETS),
    sum: new Float64Array(BUCKETS + 1),
  }));
  const groups = groupsOf(pools, tasks.length);
  const loads = pools.map(() => new Float64Array(BUCKETS));
  const patience = Math.max(4, Math.round(rounds / 20));
  let boldness = 1;
  let since = 0;
  for (; state.round < rounds && state.bound < upper() - 1e-9; state.round++) {
    let bound = 0;
    for (const load of loads) load.fill(0);
    for (const group of groups) {
      const sum = new Float64Array(BUCKETS + 1);
      for (const p of group.pools) prices[p]!.sum.forEach((v, k) => (sum[k]! += v));
      for (const i of group.members) {
        const { start, cost } = cheapest(tasks[i]!, sum, width);
        bound += cost;
        starts[i] = start;
        for (const p of group.pools) addLoad(loads[p]!, start, start + tasks[i]!.minutes, width);
      }
    }
    pools.forEach((pool, p) => (bound -= pool.capacity * prices[p]!.sum[BUCKETS]!));
    const share = state.round < 30 ? 0.3 : 0.03;
    state.meanStarts.forEach((mean, i) => (state.meanStarts[i] = mean + share * (starts[i]! - mean)));
    if (bound > state.bound + Math.abs(state.bound) * 1e-7) [state.bound, since] = [bound, 0];
    else if (++since > patience) [boldness, since] = [boldness * 0.7, 0];
    raisePrices(pools, prices, loads, width, boldness * Math.max(1e-9, upper() - bound));
    yield state;
  }
  return state;
}

/** Tasks that pay to the same pools. */
function groupsOf(pools: readonly Pool[], count: number): { pools: number[]; members: number[] }[] {
  const groups = new Map<string, { pools: number[]; members: number[] }>();
  for (let i = 0; i < count; i++) {
    const mine = pools.flatMap((p, k) => (p.members.has(i) ? [k] : []));
    const group = groups.get(mine.join()) ?? { pools: mine, members: [] };
    group.members.push(i);
    groups.set(mine.join(), group);
  }
  return [...groups.values()];
}

/** Dearer where a pool is asked for more than it has, cheaper (never under nothing) where it stands idle. */
function raisePrices(
  pools: readonly Pool[],
  prices: Prices[],
  loads: readonly Float64Array[],
  width: number,
  reach: number,
): void {
  let norm = 0;
  pools.forEach((pool, p) =>
    loads[p]!.forEach((load, k) => {
      const over = load - pool.capacity * width;
      if (over > 0 || prices[p]!.perMinute[k]! > 0) norm += over * over;
    }),
  );
  if (norm === 0) return;
  const step = reach / norm;
  pools.forEach((pool, p) => {
    const { perMinute, sum } = prices[p]!;
    for (let k = 0; k < BUCKETS; k++) {
      perMinute[k] = Math.max(0, perMinute[k]! + step * (loads[p]![k]! - pool.capacity * width));
      sum[k + 1] = sum[k]! + perMinute[k]! * width;
    }
  });
}
