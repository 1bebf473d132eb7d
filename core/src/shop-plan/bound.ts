import { addSpan, addWorked, bucketsOf, firstAtLeast, type Buckets } from './buckets.ts';
import type { Alone } from './others-fixed.ts';
import { poolsAndTracks, type Needs, type Pool, type Track } from './pools.ts';
import { costWith, lateness, type Problem, type Task } from './problem.ts';

/**
 * What those pay that need the same: for every piece of their hours the price of a minute, and what the minutes before
 * it cost. Bay and tools (`place`) are paid by the clock, people by worked minutes.
 */
interface Sums {
  people: Float64Array;
  peoplePerMinute: Float64Array;
  placeAtBegin: Float64Array;
  placePerMinute: Float64Array;
}

/** A start in worked minutes, when that is by the clock, and what it costs there. */
interface Cheapest {
  at: number;
  begin: number;
  leave: number;
  cost: number;
}

/** The start at which a task is cheapest: lateness plus the prices of the minutes it takes. Written into `found`. */
function cheapest(task: Task, { cuts, release, due, least }: Track, sums: Sums, found: Cheapest): void {
  const { minutes } = task;
  const { worked, begin } = cuts;
  const { people, peoplePerMinute, placeAtBegin, placePerMinute } = sums;
  const last = worked.length - 1;
  const total = cuts.goesOn ? Infinity : worked[last]!;
  found.cost = Infinity;
  let low = 0;
  let high = 0;
  /** @returns whether a later start can still be cheaper: prices are never negative, and lateness only grows */
  const look = (from: number): boolean => {
    const until = from + minutes;
    if (until > total) return false;
    while (high < last && worked[high + 1]! < until) high++;
    while (high > 0 && worked[high]! >= until) high--;
    const over = until - worked[high]!;
    // Who ends where a piece ends leaves before the break.
    const left = begin[high]! + over;
    const late = Math.max(least, lateness(task, left));
    if (late >= found.cost) return false;
    while (low < last && worked[low + 1]! <= from) low++;
    while (low > 0 && worked[low]! > from) low--;
    const into = from - worked[low]!;
    const here =
      late +
      (people[high]! + over * peoplePerMinute[high]!) -
      (people[low]! + into * peoplePerMinute[low]!) +
      (placeAtBegin[high]! + over * placePerMinute[high]!) -
      (placeAtBegin[low]! + into * placePerMinute[low]!);
    if (here < found.cost) {
      found.at = from;
      found.begin = begin[low]! + into;
      found.leave = left;
      found.cost = here;
    }
    return true;
  };
  look(release);
  if (due - minutes > release) look(due - minutes);
  // Cost is a straight line between these starts, so that the least is at one of them.
  for (let k = firstAtLeast(worked, release); k <= last && look(worked[k]!); k++);
  for (let k = firstAtLeast(worked, release + minutes); k <= last && look(worked[k]! - minutes); k++);
}

/** Where a running relaxation stands. */
export interface Relaxation {
  round: number;
  /** No plan costs less. */
  bound: number;
  /** Where each task would start at the prices of this round, minutes. */
  starts: Float64Array;
  /** The same, averaged over the rounds so far with more weight on the later ones. */
  meanStarts: Float64Array;
}

/**
 * A proved lower bound on the cost of any plan, better with every round.
 *
 * The rule that a pool of people, bays or tools serves no more tasks at once than it has members is taken
 * away and charged for instead: every minute has a price. Whatever the prices, the sum of each task's
 * cheapest place less what the pools would earn is at most the cost of the best plan. The prices are
 * improved step by step (subgradient) until that gains nothing, and the best bound seen is kept. The starts
 * tell a planner what to do first. For the greatest lateness and the number of late jobs it stays at each
 * task alone in the shop. A shop that is overloaded for weeks has plans farther from it: a bay that its own
 * people leave for a break is idle there, and tasks that fit between breaks exactly are to be had in parts only.
 *
 * @param alone of each task
 * @param upper cost of the best plan known so far, to size the steps
 * @param horizon minute by which a good plan has ended
 * @param rounds how many times the prices are improved
 * @source Lagrangian relaxation of the time-indexed formulation: Fisher 1981; Sousa and Wolsey 1992
 */
export function* relax(
  problem: Problem,
  alone: readonly Alone[],
  upper: () => number,
  horizon: number,
  rounds: number,
): Generator<Relaxation, Relaxation> {
  const { tasks } = problem;
  const starts = Float64Array.from(tasks, (t) => t.release);
  const first = tasks.reduce((sum, t, i) => costWith(problem.goal, sum, t, alone[i]!.end), 0);
  const state = { round: 0, bound: first, starts, meanStarts: Float64Array.from(starts) };
  if (problem.goal !== 'weighted-lateness' || tasks.length === 0) return state;
  const buckets = bucketsOf(new Set(tasks.flatMap((t) => t.crews.map((c) => c.hours))), horizon + 1);
  const { pools, needs, tracks } = poolsAndTracks(problem, alone, buckets);
  const prices = pools.map(() => new Float64Array(buckets.count));
  const sums = needs.map(emptySums);
  const loads = pools.map(() => new Float64Array(buckets.count));
  const changes = pools.map(() => new Float64Array(buckets.count));
  let best: Cheapest = { at: 0, begin: 0, leave: 0, cost: 0 };
  let here: Cheapest = { ...best };
  let boldness = 1;
  let since = 0;
  let most = first;
  for (; state.round < rounds && boldness > LEAST && state.bound < upper() - 1e-9; state.round++) {
    let bound = 0;
    for (const load of loads) load.fill(0);
    needs.forEach((of, n) => refresh(sums[n]!, of, pools, prices, buckets));
    for (let i = 0; i < tasks.length; i++) {
      const task = tasks[i]!;
      best.cost = lateness(task, problem.never);
      let on: Track | null = null;
      for (const track of tracks[i]!) {
        cheapest(task, track, sums[track.needs]!, here);
        if (here.cost >= best.cost) continue;
        [best, here] = [here, best];
        on = track;
      }
      bound += best.cost;
      if (!on) continue;
      starts[i] = best.begin;
      for (const { pool, need } of needs[on.needs]!.of) {
        if (pools[pool]!.throughout) addSpan(loads[pool]!, best.begin, best.leave, buckets);
        else addWorked(loads[pool]!, on.cuts, best.at, best.at + task.minutes, need);
      }
    }
    pools.forEach(({ capacity }, p) => prices[p]!.forEach((v, k) => (bound -= v * capacity[k]!)));
    const share = state.round < 30 ? 0.3 : 0.03;
    state.meanStarts.forEach((mean, i) => (state.meanStarts[i] = mean + share * (starts[i]! - mean)));
    state.bound = Math.max(state.bound, bound);
    if (bound > most + Math.abs(most) * 1e-7) [most, since] = [bound, 0];
    else if (++since > PATIENCE) [boldness, since] = [boldness * 0.7, 0];
    raisePrices(pools, { prices, loads, changes }, buckets, boldness * Math.max(1e-9, upper() - bound));
    yield state;
  }
  return state;
}

function emptySums({ cuts }: Needs): Sums {
  const pieces = () => new Float64Array(cuts.worked.length);
  return {
    ...{ people: pieces(), peoplePerMinute: pieces() },
    ...{ placeAtBegin: pieces(), placePerMinute: pieces() },
  };
}

/** Brings sums up to the prices of a round. */
function refresh(
  sums: Sums,
  { cuts, of }: Needs,
  pools: readonly Pool[],
  prices: readonly Float64Array[],
  { edges, count }: Buckets,
): void {
  const { worked, bucket } = cuts;
  const { people, peoplePerMinute, placeAtBegin, placePerMinute } = sums;
  const place = new Float64Array(count + 1);
  peoplePerMinute.fill(0);
  for (const { pool, need } of of) {
    const price = prices[pool]!;
    if (pools[pool]!.throughout) for (let k = 0; k < count; k++) place[k]! += need * price[k]!;
    else for (let k = 0; k < bucket.length - 1; k++) peoplePerMinute[k]! += need * price[bucket[k]!]!;
  }
  for (let k = 1; k < people.length; k++)
    people[k] = people[k - 1]! + (worked[k]! - worked[k - 1]!) * peoplePerMinute[k - 1]!;
  for (let k = 0; k < bucket.length; k++) placePerMinute[k] = place[bucket[k]!]!;
  for (let k = 0, sum = 0; k <= count; k++) {
    const price = place[k]!;
    place[k] = sum;
    if (k < count) sum += price * (edges[k + 1]! - edges[k]!);
  }
  // Every piece begins where a bucket does.
  for (let k = 0; k < bucket.length; k++) placeAtBegin[k] = place[bucket[k]!]!;
}

/** Rounds without a better bound before the steps get shorter, and how short the last ones are. */
const PATIENCE = 10;
const LEAST = 0.01;

/** How much of the last change of the prices goes on in the next one. */
const MOMENTUM = 0.7;

/**
 * Dearer where a pool is asked for more than it has, cheaper (never under nothing) where it stands idle; by how much a
 * minute, so that wide buckets do not lead. What the last round changed goes on a while: rounds that undo each other
 * come to rest.
 * @param changes of the round before, written over
 * @source deflected subgradient: Camerini, Fratta and Maffioli 1975, its share from trials
 */
function raisePrices(
  pools: readonly Pool[],
  { prices, loads, changes }: Record<'prices' | 'loads' | 'changes', Float64Array[]>,
  { edges, count }: Buckets,
  reach: number,
): void {
  let norm = 0;
  pools.forEach(({ capacity }, p) => {
    const [price, load, change] = [prices[p]!, loads[p]!, changes[p]!];
    for (let k = 0; k < count; k++) {
      const width = edges[k + 1]! - edges[k]!;
      const next = (load[k]! - capacity[k]!) / width + MOMENTUM * change[k]!;
      change[k] = price[k]! <= 0 && next < 0 ? 0 : next;
      norm += change[k]! * change[k]! * width;
    }
  });
  if (norm === 0) return;
  const step = reach / norm;
  pools.forEach((_, p) => {
    const [price, change] = [prices[p]!, changes[p]!];
    for (let k = 0; k < count; k++) price[k] = Math.max(0, price[k]! + step * change[k]!);
  });
}
