import { lateness, type Problem } from './problem.ts';

/** A plan in numbers: for each task its start, bay and person. */
export interface Schedule {
  start: Float64Array;
  bay: Int32Array;
  person: Int32Array;
  cost: number;
}

/** The one that is free latest but in time, of equals the least flexible: it leaves the others for what follows. */
function bestFit(
  candidates: readonly number[],
  free: Float64Array,
  start: number,
  use: readonly number[],
): number {
  let best = -1;
  for (const i of candidates) {
    if (free[i]! > start) continue;
    if (best < 0 || free[i]! > free[best]! || (free[i] === free[best] && use[i]! < use[best]!)) best = i;
  }
  return best;
}

function earliest(candidates: readonly number[], free: Float64Array): number {
  let at = Infinity;
  for (const i of candidates) if (free[i]! < at) at = free[i]!;
  return at;
}

/** Buffers that are used again for every decoding: the search decodes many thousand orders. */
export interface Workspace {
  bayFree: Float64Array;
  personFree: Float64Array;
}

export function workspaceOf(problem: Problem): Workspace {
  return { bayFree: new Float64Array(problem.bays), personFree: new Float64Array(problem.people) };
}

/**
 * Books tasks one after another in the given order, each as early as a fitting bay and person are free
 * together. Gives up and returns Infinity as soon as the cost passes `limit`.
 */
export function decode(
  problem: Problem,
  order: Int32Array,
  space: Workspace,
  limit: number,
  into?: Schedule,
): number {
  const { tasks, bayUse, personUse } = problem;
  space.bayFree.fill(0);
  space.personFree.fill(0);
  let cost = 0;
  for (const i of order) {
    const task = tasks[i]!;
    const start = Math.max(
      task.release,
      earliest(task.bays, space.bayFree),
      earliest(task.people, space.personFree),
    );
    const bay = bestFit(task.bays, space.bayFree, start, bayUse);
    const person = bestFit(task.people, space.personFree, start, personUse);
    const end = start + task.minutes;
    space.bayFree[bay] = end;
    space.personFree[person] = end;
    cost += lateness(task, end);
    if (cost > limit) return Infinity;
    if (into) {
      into.start[i] = start;
      into.bay[i] = bay;
      into.person[i] = person;
    }
  }
  if (into) into.cost = cost;
  return cost;
}

export function scheduleOf(problem: Problem, order: Int32Array): Schedule {
  const n = problem.tasks.length;
  const schedule: Schedule = {
    start: new Float64Array(n),
    bay: new Int32Array(n),
    person: new Int32Array(n),
    cost: 0,
  };
  decode(problem, order, workspaceOf(problem), Infinity, schedule);
  return schedule;
}
