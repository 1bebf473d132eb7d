import { DecodedOrder } from './decode.ts';
import type { Problem } from './problem.ts';

/** Where a running search stands; the caller may stop asking for more at any time. */
export interface SearchProgress {
  tried: number;
  cost: number;
  order: Int32Array;
}

/** Park–Miller numbers: the same seed gives the same plan on every machine. */
function randomFrom(seed: number): () => number {
  let state = (seed % 2147483646) + 1;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

/** Tasks by a key, the least first; equals as they stand in the problem. */
export const sortedBy = (problem: Problem, key: (i: number) => number) =>
  Int32Array.from([...problem.tasks.keys()].sort((a, b) => key(a) - key(b) || a - b));

/**
 * Order by apparent tardiness cost: at each step the task with most weight per minute, discounted by the
 * slack it still has. The clock moves with the resources.
 * @source Vepsalainen and Morton 1987, look-ahead parameter from memory
 */
function byUrgency(problem: Problem, lookAhead: number): Int32Array {
  const { tasks } = problem;
  const left = new Set(tasks.keys());
  const mean = tasks.reduce((s, t) => s + t.minutes, 0) / Math.max(1, tasks.length);
  const machines = Math.max(1, Math.min(problem.firstPerson, problem.firstTool - problem.firstPerson));
  const order = new Int32Array(tasks.length);
  let busy = 0;
  for (let k = 0; k < tasks.length; k++) {
    const now = busy / machines;
    let best = -1;
    let most = -Infinity;
    for (const i of left) {
      const t = tasks[i]!;
      const slack = Math.max(0, t.due - t.minutes - now);
      const wait = Math.max(0, t.release - now);
      const index = Math.log(t.weight / t.minutes + 1e-12) - (slack + wait * 2) / (lookAhead * mean);
      if (index > most) [most, best] = [index, i];
    }
    order[k] = best;
    left.delete(best);
    busy += tasks[best]!.minutes;
  }
  return order;
}

/**
 * Order for the fewest late tasks: by due date, and whenever one would be late the longest so far goes to
 * the end. The best there is for one bay and equal weights.
 * @source Moore 1968, with Hodgson's form of it
 */
function onTimeFirst(problem: Problem): Int32Array {
  const kept: number[] = [];
  const late: number[] = [];
  const minutes = (i: number) => problem.tasks[i]!.minutes;
  let clock = 0;
  for (const i of sortedBy(problem, (k) => problem.tasks[k]!.due)) {
    kept.push(i);
    clock += minutes(i);
    if (clock <= problem.tasks[i]!.due) continue;
    const longest = kept.reduce((a, b) => (minutes(b) > minutes(a) ? b : a));
    kept.splice(kept.indexOf(longest), 1);
    late.push(longest);
    clock -= minutes(longest);
  }
  return Int32Array.from([...kept, ...late]);
}

/** Orders that cost nothing to find: by due date, latest start, release, weight, number in time, urgency. */
export function firstOrders(problem: Problem): Int32Array[] {
  const { tasks } = problem;
  const of = (i: number) => tasks[i]!;
  return [
    sortedBy(problem, (i) => of(i).due),
    sortedBy(problem, (i) => of(i).due - of(i).minutes),
    sortedBy(problem, (i) => of(i).release),
    sortedBy(problem, (i) => of(i).minutes / (of(i).weight + 1e-9)),
    onTimeFirst(problem),
    ...[0.5, 1, 2, 4].map((lookAhead) => byUrgency(problem, lookAhead)),
  ];
}

/** Takes the task at `from` out and puts it in at `to`. */
function moved(order: Int32Array, from: number, to: number, into: Int32Array): void {
  into.set(order);
  const task = order[from]!;
  if (from < to) into.copyWithin(from, from + 1, to + 1);
  else into.copyWithin(to + 1, to, from);
  into[to] = task;
}

function swapped(order: Int32Array, a: number, b: number, into: Int32Array): void {
  into.set(order);
  into[a] = order[b]!;
  into[b] = order[a]!;
}

const REPORT_EVERY = 500;

/** Heat at the start, as a part of the mean cost of a task; and at the end, as a part of that. From trials. */
const WARMTH = 0.05;
const COOLED = 0.01;
/** Tries between two looks at the time. */
const LOOK_EVERY = 50;

/**
 * Improves an order by moving and swapping tasks, at first also to somewhat worse plans, then only to
 * better ones (simulated annealing). Bounded by `tries`, seeded, and so repeatable; yields now and then
 * so that the caller can show progress or stop.
 * @param gone the part of the time there is that has gone: it cools by that, where that is more than the part of the tries
 */
export function* search(
  problem: Problem,
  first: Int32Array,
  tries: number,
  seed: number,
  gone: () => number = () => 0,
): Generator<SearchProgress, SearchProgress> {
  const current = new DecodedOrder(problem, first);
  const best = { order: Int32Array.from(first), cost: current.cost };
  const n = problem.tasks.length;
  const random = randomFrom(seed);
  const index = (limit: number) => Math.floor(random() * limit);
  const candidate = new Int32Array(n);
  const hot = Math.max(1, best.cost / Math.max(1, n)) * WARMTH;
  const near = Math.max(2, Math.min(15, Math.ceil(n / 8)));
  let tried = 0;
  let share = 0;
  for (; tried < tries && best.cost > 0 && n > 1; tried++) {
    const from = index(n);
    const reach = random() < 0.2 ? n : near;
    const to = Math.max(0, Math.min(n - 1, from + index(2 * reach + 1) - reach));
    if (to === from) continue;
    if (random() < 0.5) moved(current.order, from, to, candidate);
    else swapped(current.order, from, to, candidate);
    if (tried % LOOK_EVERY === 0) share = Math.max(tried / tries, gone());
    const heat = hot * COOLED ** share;
    const limit = current.cost - heat * Math.log(1 - random());
    const begin = Math.min(from, to);
    if (current.costOf(candidate, begin, Math.max(from, to), limit) <= limit) {
      current.take(candidate, begin);
      if (current.cost < best.cost) {
        best.cost = current.cost;
        best.order.set(candidate);
      }
    }
    if (tried % REPORT_EVERY === 0) yield { tried, ...best };
  }
  return { tried, ...best };
}
