import type { Alone } from './others-fixed.ts';
import { workedWithin, type Calendar } from './calendar.ts';
import { costWith, lateness, type Problem, type Task } from './problem.ts';

/** Resources of one kind that share their tasks, whatever else these need. */
interface Pool {
  /** Minutes it has to give in each bucket. */
  capacity: Float64Array;
  /** How many of it each task needs, whoever takes it. */
  need: Uint8Array;
  /** People are needed while they work; bays and tools from beginning to end, nights and breaks as well. */
  throughout: boolean;
}

const BUCKETS = 320;

/** Tasks that can use no more than a set of resources: for each such set that occurs, what each task needs of it. */
function poolsOf(problem: Problem, width: number): Pool[] {
  const { tasks, firstPerson, firstTool, resources } = problem;
  const pools = new Map<string, Pool>();
  const add = (
    members: readonly number[],
    throughout: boolean,
    needOf: (t: Task, set: Set<number>) => number,
  ) => {
    const set = new Set(members);
    const need = Uint8Array.from(tasks, (t) => needOf(t, set));
    if (need.reduce((s, v) => s + v, 0) <= set.size) return;
    pools.set([...set].join(), { need, throughout, capacity: capacityOf(problem, members, width) });
  };
  const span = (from: number, until: number) => Array.from({ length: until - from }, (_, i) => from + i);
  const within = (list: readonly number[], set: Set<number>) => list.filter((r) => set.has(r)).length;
  const bays = (t: Task, set: Set<number>) => (within(t.bays, set) === t.bays.length ? 1 : 0);
  const people = (t: Task, set: Set<number>) => Math.min(...t.crews.map((c) => within(c.people, set)));
  const leads = (t: Task) => t.crews.filter((c) => c.people.length === 1).flatMap((c) => c.people);
  for (const t of tasks) {
    add(t.bays, true, bays);
    if (leads(t).length > 0) add(leads(t), false, people);
  }
  if (tasks.length > 0) {
    add(span(0, firstPerson), true, bays);
    add(span(firstPerson, firstTool), false, people);
  }
  for (let r = firstTool; r < resources; r++) add([r], true, (t) => (t.tools.includes(r) ? 1 : 0));
  return [...pools.values()];
}

function capacityOf({ taken, hours }: Problem, members: readonly number[], width: number): Float64Array {
  const capacity = new Float64Array(BUCKETS);
  for (const r of members) {
    for (let k = 0; k < BUCKETS; k++) {
      const [from, until] = [k * width, (k + 1) * width];
      const open = hours[r] ? workedWithin(hours[r], from, until) : width;
      capacity[k]! += Math.max(0, open - (taken[r] ? workedWithin(taken[r], from, until) : 0));
    }
  }
  return capacity;
}

/**
 * A calendar cut where a bucket or a window ends. `worked[k]` minutes are worked before cut k, where the
 * clock says `leave[k]` to whoever ends there and `begin[k]` to whoever begins there; the piece after it
 * lies in `bucket[k]`. After the last cut it goes on without price, if the calendar does.
 */
interface Cuts {
  worked: Float64Array;
  leave: Float64Array;
  begin: Float64Array;
  bucket: Int32Array;
  goesOn: boolean;
}

function cutsOf({ from, until }: Calendar, width: number): Cuts {
  const worked: number[] = [];
  const leave: number[] = [];
  const begin: number[] = [];
  const bucket: number[] = [];
  const end = BUCKETS * width;
  let sum = 0;
  let left = 0;
  from.forEach((open, i) => {
    let at = open;
    for (let first = true; at < Math.min(until[i]!, end); first = false) {
      const k = Math.min(BUCKETS - 1, Math.floor(at / width + 1e-9));
      const next = Math.min(until[i]!, Math.max((k + 1) * width, at + 1e-9));
      worked.push(sum);
      leave.push(first && i > 0 ? left : at);
      begin.push(at);
      bucket.push(k);
      sum += next - at;
      left = at = next;
    }
  });
  const later = from.find((_, i) => until[i]! > end);
  worked.push(sum);
  leave.push(left);
  begin.push(later === undefined ? Infinity : Math.max(end, later));
  bucket.push(BUCKETS);
  return {
    worked: Float64Array.from(worked),
    leave: Float64Array.from(leave),
    begin: Float64Array.from(begin),
    bucket: Int32Array.from(bucket),
    goesOn: later !== undefined,
  };
}

/** What a group of tasks pays: up to each cut for its people, up to each bucket's edge for its bay and tools. */
interface Sums {
  people: Float64Array;
  place: Float64Array;
  width: number;
}

/** A start in worked minutes, and what it costs there. */
interface Cheapest {
  at: number;
  cost: number;
}

/** Moves along the cuts with a growing number of worked minutes. */
class Walker {
  private k = 0;
  private readonly cuts: Cuts;
  private readonly sums: Sums;

  constructor(cuts: Cuts, sums: Sums) {
    this.cuts = cuts;
    this.sums = sums;
  }

  /** The cut at or before some worked minutes; `leaving` takes the one before where both fit. */
  private go(worked: number, leaving: boolean): number {
    const { worked: at } = this.cuts;
    const last = at.length - 1;
    while (this.k < last && (leaving ? at[this.k + 1]! < worked : at[this.k + 1]! <= worked)) this.k++;
    while (this.k > 0 && (leaving ? at[this.k]! >= worked : at[this.k]! > worked)) this.k--;
    return this.k;
  }

  clock(worked: number, leaving: boolean): number {
    const k = this.go(worked, leaving);
    const { worked: at, begin } = this.cuts;
    return begin[k]! + worked - at[k]!;
  }

  people(worked: number): number {
    const k = this.go(worked, false);
    const { worked: at } = this.cuts;
    const { people } = this.sums;
    if (k >= at.length - 1) return people[k]!;
    const share = (worked - at[k]!) / (at[k + 1]! - at[k]!);
    return people[k]! + share * (people[k + 1]! - people[k]!);
  }

  place(clock: number): number {
    const { place, width } = this.sums;
    const at = clock / width;
    const i = Math.floor(at);
    return i >= BUCKETS ? place[BUCKETS]! : place[i]! + (at - i) * (place[i + 1]! - place[i]!);
  }
}

/** The start at which a task is cheapest: lateness plus the prices of the minutes it takes. */
function cheapest(task: Task, { cuts, release, due, least }: Track, sums: Sums): Cheapest {
  const { minutes } = task;
  const { worked } = cuts;
  const total = cuts.goesOn ? Infinity : worked.at(-1)!;
  const starts = new Walker(cuts, sums);
  const ends = new Walker(cuts, sums);
  let at = release;
  let cost = Infinity;
  /** @returns whether a later start can still be cheaper: prices are never negative, and lateness only grows */
  const look = (begin: number): boolean => {
    if (begin + minutes > total) return false;
    const leave = ends.clock(begin + minutes, true);
    const late = Math.max(least, lateness(task, leave));
    if (late >= cost) return false;
    const here =
      late +
      ends.people(begin + minutes) -
      starts.people(begin) +
      ends.place(leave) -
      ends.place(starts.clock(begin, false));
    if (here < cost) [at, cost] = [begin, here];
    return true;
  };
  look(release);
  if (due - minutes > release) look(due - minutes);
  // Cost is a straight line between these starts, so that the least is at one of them.
  for (let k = firstAtLeast(worked, release); k < worked.length && look(worked[k]!); k++);
  for (let k = firstAtLeast(worked, release + minutes); k < worked.length && look(worked[k]! - minutes); k++);
  return { at, cost };
}

function firstAtLeast(list: Float64Array, value: number): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle]! >= value) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Minutes of [from, until) in each bucket, added to `load`. */
function addSpan(load: Float64Array, from: number, until: number, width: number): void {
  for (let k = Math.floor(from / width); k < BUCKETS && k * width < until; k++)
    load[k]! += Math.min(until, (k + 1) * width) - Math.max(from, k * width);
}

/** Worked minutes of [from, until) in each bucket, `times` each, added to `load`. */
function addWorked(
  load: Float64Array,
  { worked, bucket }: Cuts,
  from: number,
  until: number,
  times: number,
): void {
  for (
    let k = Math.max(0, firstAtLeast(worked, from) - 1);
    k < worked.length - 1 && worked[k]! < until;
    k++
  ) {
    const minutes = Math.min(until, worked[k + 1]!) - Math.max(from, worked[k]!);
    if (minutes > 0) load[bucket[k]!]! += times * minutes;
  }
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

/** Tasks that need the same of every pool. */
interface Group {
  needs: { pool: number; need: number }[];
  members: number[];
}

function groupsOf(pools: readonly Pool[], count: number): Group[] {
  const groups = new Map<string, Group>();
  for (let i = 0; i < count; i++) {
    const needs = pools.flatMap((p, pool) => (p.need[i]! > 0 ? [{ pool, need: p.need[i]! }] : []));
    const key = JSON.stringify(needs);
    const group = groups.get(key) ?? { needs, members: [] };
    group.members.push(i);
    groups.set(key, group);
  }
  return [...groups.values()];
}

/**
 * A proved lower bound on the cost of any plan, better with every round.
 *
 * The rule that a pool of people, bays or tools serves no more tasks at once than it has members is taken
 * away and charged for instead: every minute has a price. Whatever the prices, the sum of each task's
 * cheapest place less what the pools would earn is at most the cost of the best plan. The prices are
 * improved step by step (subgradient), and the best bound seen is kept. The starts tell a planner what to
 * do first. For the greatest lateness and the number of late jobs it stays at each task alone in the shop.
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
  const width = (horizon + 1) / BUCKETS;
  const pools = problem.goal === 'weighted-lateness' ? poolsOf(problem, width) : [];
  if (pools.length === 0) return state;
  const prices = pools.map(() => new Float64Array(BUCKETS));
  const groups = groupsOf(pools, tasks.length);
  const loads = pools.map(() => new Float64Array(BUCKETS));
  const tracks = tracksOf(problem, alone, width);
  const patience = Math.max(4, Math.round(rounds / 20));
  let boldness = 1;
  let since = 0;
  let most = first;
  for (; state.round < rounds && state.bound < upper() - 1e-9; state.round++) {
    let bound = 0;
    for (const load of loads) load.fill(0);
    for (const { needs, members } of groups) {
      const perMinute = { people: new Float64Array(BUCKETS), place: new Float64Array(BUCKETS) };
      for (const { pool, need } of needs) {
        const of = pools[pool]!.throughout ? perMinute.place : perMinute.people;
        prices[pool]!.forEach((v, k) => (of[k]! += need * v));
      }
      const sumsOf = sumsFor(perMinute, width);
      for (const i of members) {
        const task = tasks[i]!;
        let best: Cheapest = { at: 0, cost: lateness(task, problem.never) };
        let on: Track | null = null;
        for (const track of tracks[i]!) {
          const here = cheapest(task, track, sumsOf(track.cuts));
          if (here.cost < best.cost) [best, on] = [here, track];
        }
        bound += best.cost;
        if (!on) continue;
        const walk = new Walker(on.cuts, sumsOf(on.cuts));
        const leave = walk.clock(best.at + task.minutes, true);
        starts[i] = walk.clock(best.at, false);
        for (const { pool, need } of needs) {
          if (pools[pool]!.throughout) addSpan(loads[pool]!, starts[i], leave, width);
          else addWorked(loads[pool]!, on.cuts, best.at, best.at + task.minutes, need);
        }
      }
    }
    pools.forEach(({ capacity }, p) => prices[p]!.forEach((v, k) => (bound -= v * capacity[k]!)));
    const share = state.round < 30 ? 0.3 : 0.03;
    state.meanStarts.forEach((mean, i) => (state.meanStarts[i] = mean + share * (starts[i]! - mean)));
    state.bound = Math.max(state.bound, bound);
    if (bound > most + Math.abs(most) * 1e-7) [most, since] = [bound, 0];
    else if (++since > patience) [boldness, since] = [boldness * 0.7, 0];
    raisePrices(pools, prices, loads, boldness * Math.max(1e-9, upper() - bound));
    yield state;
  }
  return state;
}

/** The hours of one of a task's crews, cut, with its release and due minute as worked minutes. */
interface Track {
  cuts: Cuts;
  release: number;
  due: number;
  /** The lateness it has at the least, times its weight. */
  least: number;
}

/** For each task the different hours in which its crews work. */
function tracksOf({ tasks }: Problem, alone: readonly Alone[], width: number): Track[][] {
  const cuts = new Map<Calendar, Cuts>();
  return tasks.map((task, i) =>
    [...new Set(task.crews.map((c) => c.hours))].map((hours) => {
      const own = cuts.get(hours) ?? cutsOf(hours, width);
      cuts.set(hours, own);
      return {
        cuts: own,
        release: workedWithin(hours, -Infinity, alone[i]!.start),
        due: workedWithin(hours, -Infinity, Math.max(0, task.due)),
        least: lateness(task, alone[i]!.end),
      };
    }),
  );
}

/** Running sums of prices, once for each calendar that is asked for. */
function sumsFor(
  perMinute: { people: Float64Array; place: Float64Array },
  width: number,
): (cuts: Cuts) => Sums {
  const place = new Float64Array(BUCKETS + 1);
  perMinute.place.forEach((v, k) => (place[k + 1] = place[k]! + v * width));
  const known = new Map<Cuts, Sums>();
  return (cuts) => {
    let sums = known.get(cuts);
    if (!sums) {
      const people = new Float64Array(cuts.worked.length);
      for (let k = 1; k < people.length; k++) {
        const minutes = cuts.worked[k]! - cuts.worked[k - 1]!;
        people[k] = people[k - 1]! + minutes * perMinute.people[cuts.bucket[k - 1]!]!;
      }
      sums = { people, place, width };
      known.set(cuts, sums);
    }
    return sums;
  };
}

/** Dearer where a pool is asked for more than it has, cheaper (never under nothing) where it stands idle. */
function raisePrices(
  pools: readonly Pool[],
  prices: Float64Array[],
  loads: readonly Float64Array[],
  reach: number,
): void {
  let norm = 0;
  pools.forEach(({ capacity }, p) =>
    loads[p]!.forEach((load, k) => {
      const over = load - capacity[k]!;
      if (over > 0 || prices[p]![k]! > 0) norm += over * over;
    }),
  );
  if (norm === 0) return;
  const step = reach / norm;
  pools.forEach(({ capacity }, p) =>
    prices[p]!.forEach((price, k) => {
      prices[p]![k] = Math.max(0, price + step * (loads[p]![k]! - capacity[k]!));
    }),
  );
}
