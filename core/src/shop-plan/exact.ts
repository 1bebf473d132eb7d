import type { Schedule } from './decode.ts';
import { lateness, type Problem } from './problem.ts';

/** Most nodes looked at before the exact search gives up. */
const MOST_NODES = 1_500_000;

/**
 * The best plan there is, by branch and bound: tasks in the order of their starts, each with every bay and
 * person. Some best plan has every task as early as its place allows, so none is missed.
 * @returns the best schedule, or null when it was not proved within the bounded number of nodes
 */
export function exactPlan(problem: Problem, upper: Schedule): Schedule | null {
  const { tasks } = problem;
  const n = tasks.length;
  const bayFree = new Float64Array(problem.bays);
  const personFree = new Float64Array(problem.people);
  const start = new Float64Array(n);
  const bay = new Int32Array(n);
  const person = new Int32Array(n);
  let best: Schedule = upper;
  let nodes = 0;

  /** What the tasks left cost at the least, each on its own as early as the floor and its resources allow. */
  const least = (left: number, floor: number): number => {
    let sum = 0;
    for (let i = 0; i < n; i++) {
      if (!(left & (1 << i))) continue;
      const t = tasks[i]!;
      let b = Infinity;
      let p = Infinity;
      for (const k of t.bays) b = Math.min(b, bayFree[k]!);
      for (const k of t.people) p = Math.min(p, personFree[k]!);
      sum += lateness(t, Math.max(t.release, floor, b, p) + t.minutes);
    }
    return sum;
  };

  const place = (left: number, floor: number, after: number, cost: number): boolean => {
    if (left === 0) {
      if (cost < best.cost) best = { start: start.slice(), bay: bay.slice(), person: person.slice(), cost };
      return true;
    }
    for (let i = 0; i < n; i++) {
      if (!(left & (1 << i))) continue;
      const t = tasks[i]!;
      for (const b of t.bays) {
        for (const p of t.people) {
          if (++nodes > MOST_NODES) return false;
          const at = Math.max(t.release, bayFree[b]!, personFree[p]!);
          // Starts do not fall along the order; of equal starts the lower index comes first.
          if (at < floor || (at === floor && i < after)) continue;
          const [wasBay, wasPerson] = [bayFree[b]!, personFree[p]!];
          bayFree[b] = personFree[p] = at + t.minutes;
          const costHere = cost + lateness(t, at + t.minutes);
          const rest = left & ~(1 << i);
          let goOn = true;
          if (costHere + least(rest, at) < best.cost - 1e-9) {
            start[i] = at;
            bay[i] = b;
            person[i] = p;
            goOn = place(rest, at, i, costHere);
          }
          bayFree[b] = wasBay;
          personFree[p] = wasPerson;
          if (!goOn) return false;
        }
      }
    }
    return true;
  };
  return place((1 << n) - 1, 0, -1, 0) ? best : null;
}
