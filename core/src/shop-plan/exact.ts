import { doneAt } from './calendar.ts';
import { earliestStart, emptySchedule, readyAt, workspaceOf, type Schedule } from './decode.ts';
import { costWith, type Problem } from './problem.ts';

/** Most nodes looked at before the exact search gives up. */
const MOST_NODES = 1_500_000;

/**
 * The best plan there is, by branch and bound: tasks in the order of their starts, each with every bay and
 * crew. Some best plan has every task as early as its place allows, so none is missed.
 * @returns the best schedule, or null when it was not proved within the bounded number of nodes
 */
export function exactPlan(problem: Problem, upper: Schedule): Schedule | null {
  const { tasks, goal, never } = problem;
  const n = tasks.length;
  const free = workspaceOf(problem);
  const now = emptySchedule(n);
  let best: Schedule = upper;
  let nodes = 0;

  const endOf = (i: number, crew: number, start: number) =>
    start === Infinity ? never : doneAt(tasks[i]!.crews[crew]!.hours, start, tasks[i]!.minutes);
  const startOf = (i: number, bay: number, crew: number) => {
    const t = tasks[i]!;
    const ready = readyAt(t, t.crews[crew]!, free);
    return earliestStart(problem, t, t.crews[crew]!, bay, Math.max(ready, free[bay]!));
  };
  /** The cost with the tasks left, each on its own as early as its resources allow. */
  const least = (left: number, cost: number): number => {
    let sum = cost;
    for (let i = 0; i < n; i++) {
      if (!(left & (1 << i))) continue;
      let end = never;
      for (const b of tasks[i]!.bays)
        tasks[i]!.crews.forEach((_, c) => (end = Math.min(end, endOf(i, c, startOf(i, b, c)))));
      sum = costWith(goal, sum, tasks[i]!, end);
      if (sum >= best.cost) return sum;
    }
    return sum;
  };

  const place = (left: number, floor: number, after: number, cost: number): boolean => {
    if (left === 0) {
      if (cost < best.cost)
        best = {
          ...{ start: now.start.slice(), end: now.end.slice(), bay: now.bay.slice(), crew: now.crew.slice() },
          cost,
        };
      return true;
    }
    for (let i = 0; i < n; i++) {
      if (!(left & (1 << i))) continue;
      const t = tasks[i]!;
      for (const b of t.bays) {
        for (let c = 0; c < t.crews.length; c++) {
          if (++nodes > MOST_NODES) return false;
          const at = startOf(i, b, c);
          // Starts do not fall along the order; of equal starts the lower index comes first.
          if (at < floor || (at === floor && i < after)) continue;
          const end = endOf(i, c, at);
          const used = at === Infinity ? [] : [b, ...t.crews[c]!.people, ...t.tools];
          const was = used.map((r) => free[r]!);
          for (const r of used) free[r] = end;
          const costHere = costWith(goal, cost, t, end);
          const rest = left & ~(1 << i);
          let goOn = true;
          if (least(rest, costHere) < best.cost - 1e-9) {
            now.start[i] = at;
            now.end[i] = at === Infinity ? Infinity : end;
            now.bay[i] = at === Infinity ? -1 : b;
            now.crew[i] = at === Infinity ? -1 : c;
            goOn = place(rest, at, i, costHere);
          }
          used.forEach((r, k) => (free[r] = was[k]!));
          if (!goOn) return false;
        }
      }
    }
    return true;
  };
  return place((1 << n) - 1, 0, -1, 0) ? best : null;
}
