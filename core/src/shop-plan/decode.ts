import { clearFrom, doneAt, openFrom, workFrom, type Span } from './calendar.ts';
import { costWith, type Crew, type Problem, type Task } from './problem.ts';

/** A plan in numbers: for each task its start and end (Infinity when it found no place), bay and crew. */
export interface Schedule {
  start: Float64Array;
  end: Float64Array;
  bay: Int32Array;
  crew: Int32Array;
  cost: number;
}

/** From when each resource is free. Used again for every decoding: the search decodes many thousand orders. */
export type Workspace = Float64Array;

export const workspaceOf = (problem: Problem): Workspace => new Float64Array(problem.resources);

/** Of the bays that are free then, the one that is free latest, of equals the least flexible: the others are left for what follows. */
function bestBay({ bays }: Task, free: Workspace, start: number, use: readonly number[]): number {
  let best = -1;
  for (let k = 0; k < bays.length; k++) {
    const i = bays[k]!;
    if (free[i]! > start) continue;
    if (best < 0 || free[i]! > free[best]! || (free[i] === free[best] && use[i]! < use[best]!)) best = i;
  }
  return best;
}

/** Until when something of a task is taken that lies across it; `start` when nothing is. */
function inTheWay(
  { taken }: Problem,
  task: Task,
  crew: Crew,
  bay: number,
  start: number,
  end: number,
): number {
  let until = task.gone ? clearFrom(task.gone, start, end) : start;
  const own = taken[bay];
  if (own) until = Math.max(until, clearFrom(own, start, end));
  const lead = taken[crew.lead];
  if (lead) until = Math.max(until, clearFrom(lead, start, end));
  const helper = crew.helper < 0 ? null : taken[crew.helper];
  if (helper) until = Math.max(until, clearFrom(helper, start, end));
  for (let k = 0; k < task.tools.length; k++) {
    const of = taken[task.tools[k]!];
    if (of) until = Math.max(until, clearFrom(of, start, end));
  }
  return until;
}

/** The first start of a task, not before a minute, with this crew in this bay; Infinity when there is none. */
export function earliestStart(problem: Problem, task: Task, crew: Crew, bay: number, from: number): number {
  let start = openFrom(crew.hours, from);
  while (start < Infinity) {
    const end = doneAt(crew.hours, start, task.minutes);
    if (end === Infinity) return Infinity;
    const clear = inTheWay(problem, task, crew, bay, start, end);
    if (clear === start) return start;
    start = openFrom(crew.hours, clear);
  }
  return start;
}

/** From when the crew and tools of a task, and whatever it waits for, are there. */
export function readyAt(task: Task, crew: Crew, free: Workspace): number {
  let at = task.release;
  for (const p of crew.people) at = Math.max(at, free[p]!);
  for (const t of task.tools) at = Math.max(at, free[t]!);
  return at;
}

/** Where a task goes. */
interface Place {
  start: number;
  end: number;
  bay: number;
  crew: number;
}

const work: Span = { fromMin: 0, untilMin: 0 };

/**
 * Places one task as early as its bays, crews and tools are free together: with the crew that is done first,
 * of equals the one that is free latest, then the least flexible.
 */
function place(problem: Problem, task: Task, free: Workspace, into: Place): void {
  const { minutes, crews } = task;
  into.start = into.end = Infinity;
  into.bay = into.crew = -1;
  let least = Infinity;
  for (let k = 0; k < task.bays.length; k++) {
    const at = free[task.bays[k]!]!;
    if (at < least) least = at;
  }
  let first = task.release;
  for (let k = 0; k < task.tools.length; k++) {
    const at = free[task.tools[k]!]!;
    if (at > first) first = at;
  }
  let late = 0;
  for (let nth = 0; nth < crews.length; nth++) {
    const crew = crews[nth]!;
    const { lead, helper } = crew;
    let sum = free[lead]!;
    let ready = sum > first ? sum : first;
    if (helper >= 0) {
      const at = free[helper]!;
      sum += at;
      if (at > ready) ready = at;
    }
    const from = ready > least ? ready : least;
    if (from + minutes > into.end) continue;
    // With the same hours, whoever begins later is done no sooner.
    if (from > into.start && crew.hours === crews[into.crew]!.hours) continue;
    workFrom(crew.hours, from, minutes, work);
    const { fromMin: start, untilMin: end } = work;
    if (end > into.end || end === Infinity) continue;
    if (end === into.end && (sum < late || (sum === late && crew.use >= crews[into.crew]!.use))) continue;
    const bay = bestBay(task, free, start, problem.use);
    if (inTheWay(problem, task, crew, bay, start, end) === start) {
      into.start = start;
      into.end = end;
      into.bay = bay;
      into.crew = nth;
      late = sum;
      continue;
    }
    for (const b of task.bays) {
      const later = earliestStart(problem, task, crew, b, Math.max(ready, free[b]!));
      const done = later === Infinity ? Infinity : doneAt(crew.hours, later, minutes);
      if (done > into.end || done === Infinity || (done === into.end && sum <= late)) continue;
      [into.start, into.end, into.bay, into.crew] = [later, done, b, nth];
      late = sum;
    }
  }
}

const found: Place = { start: Infinity, end: Infinity, bay: -1, crew: -1 };

/** Books one task after those that are booked. @returns its end, or the problem's `never` */
function book(problem: Problem, task: Task, free: Workspace): number {
  place(problem, task, free, found);
  const { end, bay, crew } = found;
  if (crew < 0) return problem.never;
  free[bay] = end;
  const { lead, helper } = task.crews[crew]!;
  free[lead] = end;
  if (helper >= 0) free[helper] = end;
  for (let k = 0; k < task.tools.length; k++) free[task.tools[k]!] = end;
  return end;
}

/**
 * Books tasks one after another in the given order, each as early as a fitting bay, crew and its tools are
 * free together. Gives up and returns Infinity as soon as the cost passes `limit`.
 */
export function decode(
  problem: Problem,
  order: Int32Array,
  free: Workspace,
  limit: number,
  into?: Schedule,
): number {
  free.fill(0);
  let cost = 0;
  for (const i of order) {
    const task = problem.tasks[i]!;
    cost = costWith(problem.goal, cost, task, book(problem, task, free));
    if (cost > limit) return Infinity;
    if (into) {
      into.start[i] = found.start;
      into.end[i] = found.end;
      into.bay[i] = found.bay;
      into.crew[i] = found.crew;
    }
  }
  if (into) into.cost = cost;
  return cost;
}

/**
 * An order with what is free and what it costs before each of its places, so that a change is decoded from
 * where it begins to where it makes no difference any more.
 */
export class DecodedOrder {
  readonly order: Int32Array;
  /** The end of each task. */
  readonly ends: Float64Array;
  private readonly problem: Problem;
  private readonly free: Workspace;
  private readonly before: Float64Array;
  private readonly costs: Float64Array;

  constructor(problem: Problem, order: Int32Array) {
    const n = order.length;
    this.problem = problem;
    this.order = Int32Array.from(order);
    this.ends = new Float64Array(n);
    this.free = workspaceOf(problem);
    this.before = new Float64Array((n + 1) * problem.resources);
    this.costs = new Float64Array(n + 1);
    this.take(order, 0);
  }

  get cost(): number {
    return this.costs[this.order.length]!;
  }

  private same(place: number): boolean {
    const { free, before } = this;
    const at = place * free.length;
    for (let r = 0; r < free.length; r++) if (free[r] !== before[at + r]) return false;
    return true;
  }

  private goTo(place: number): void {
    const { resources } = this.problem;
    this.free.set(this.before.subarray(place * resources, (place + 1) * resources));
  }

  /** What an order costs that differs from place `first` to place `last`; Infinity above `limit`. */
  costOf(order: Int32Array, first: number, last: number, limit: number): number {
    const { problem, free, costs } = this;
    const adds = problem.goal !== 'greatest-lateness';
    this.goTo(first);
    let cost = costs[first]!;
    for (let k = first; k < order.length; k++) {
      if (adds && k > last && this.same(k)) return cost + this.cost - costs[k]!;
      const task = problem.tasks[order[k]!]!;
      cost = costWith(problem.goal, cost, task, book(problem, task, free));
      if (cost > limit) return Infinity;
    }
    return cost;
  }

  /** Makes an order that differs from place `first` on the one at hand. */
  take(order: Int32Array, first: number): void {
    const { problem, free, costs, before } = this;
    this.order.set(order);
    this.goTo(first);
    for (let k = first; k < order.length; k++) {
      before.set(free, k * free.length);
      const task = problem.tasks[order[k]!]!;
      const end = book(problem, task, free);
      this.ends[order[k]!] = end;
      costs[k + 1] = costWith(problem.goal, costs[k]!, task, end);
    }
    before.set(free, order.length * free.length);
  }
}

export function emptySchedule(tasks: number): Schedule {
  return {
    start: new Float64Array(tasks).fill(Infinity),
    end: new Float64Array(tasks).fill(Infinity),
    bay: new Int32Array(tasks).fill(-1),
    crew: new Int32Array(tasks).fill(-1),
    cost: 0,
  };
}

export function scheduleOf(problem: Problem, order: Int32Array): Schedule {
  const schedule = emptySchedule(problem.tasks.length);
  decode(problem, order, workspaceOf(problem), Infinity, schedule);
  return schedule;
}
