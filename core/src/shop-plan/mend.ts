import { BadInput } from '../calculation/index.ts';
import { withOthersFixed, resourcesOf, usesOf, withUses } from './others-fixed.ts';
import { clearFrom, doneAt, openFrom } from './calendar.ts';
import { earliestStart, emptySchedule, type Schedule } from './decode.ts';
import { lateness, toProblem, type Problem, type ShopPlanInput, type Task } from './problem.ts';

/** Where a job stands in a plan. */
export interface Place {
  job: string;
  bay: string;
  people: string[];
  startMin: number;
  endMin: number;
}

/** What no longer holds of a place, or whom it makes room for. */
export type MovedBecause =
  { kind: 'release' | 'hours' | 'stay' | 'bay' | 'people' | 'tool' } | { kind: 'room'; jobs: string[] };

export interface Mended {
  /** Every job with its place now, moved or not. */
  places: Place[];
  moved: { job: string; from: Place; to: Place; because: MovedBecause }[];
  /** Jobs that found no place any more. */
  unplaced: string[];
  /** Weighted lateness before anything happened to the plan, and now. */
  before: number;
  after: number;
}

/** What a change costs, in minutes of lateness of a job of mean weight: other people, another bay, another time. */
const PRICE = { people: 60, bay: 120, time: 240 };

/** Looks at placing a job again that a mending may take. */
const MOST_LOOKS = 4000;

const copyOf = ({ start, end, bay, crew, cost }: Schedule): Schedule => ({
  ...{ start: start.slice(), end: end.slice(), bay: bay.slice(), crew: crew.slice(), cost },
});

/** @throws BadInput for a bay, somebody or a crew that cannot take the job */
function scheduleOfPlaces(input: ShopPlanInput, problem: Problem, places: readonly Place[]): Schedule {
  const schedule = emptySchedule(input.jobs.length);
  input.jobs.forEach((job, i) => {
    const place = places.find((p) => p.job === job.id);
    if (!place) throw new BadInput('stands nowhere in the plan', `jobs.${i}.id`);
    const bay = input.bays.findIndex((b) => b.id === place.bay);
    if (bay < 0) throw new BadInput('there is no such bay', 'places');
    const people = place.people.map((id) => problem.firstPerson + input.people.findIndex((p) => p.id === id));
    schedule.start[i] = place.startMin;
    schedule.end[i] = place.endMin;
    schedule.bay[i] = bay;
    schedule.crew[i] = problem.tasks[i]!.crews.findIndex(
      (c) => c.people.length === people.length && people.every((p) => c.people.includes(p)),
    );
  });
  return schedule;
}

/** What of a place does not hold; null when all of it does. */
function broken(problem: Problem, { start, end, bay, crew }: Schedule, i: number): MovedBecause | null {
  const task = problem.tasks[i]!;
  const [from, until] = [start[i]!, end[i]!];
  const taken = (r: number) => problem.taken[r] && clearFrom(problem.taken[r], from, until) > from;
  if (crew[i]! < 0) return { kind: 'people' };
  const { people, hours } = task.crews[crew[i]!]!;
  if (people.some(taken)) return { kind: 'people' };
  if (taken(bay[i]!) || !task.bays.includes(bay[i]!)) return { kind: 'bay' };
  if (task.tools.some(taken)) return { kind: 'tool' };
  if (from < task.release) return { kind: 'release' };
  if (task.gone && clearFrom(task.gone, from, until) > from) return { kind: 'stay' };
  return doneAt(hours, openFrom(hours, from), task.minutes) > until + 1e-6 ? { kind: 'hours' } : null;
}

/** A mending under way: the plan as it was, as it is, and which tasks are free to move. */
class Mending {
  readonly was: Schedule;
  private readonly problem: Problem;
  private readonly meanWeight: number;
  /** What the cheapest change of any task costs. */
  readonly leastPrice: number;
  looks = 0;

  constructor(problem: Problem, was: Schedule) {
    this.problem = problem;
    this.was = was;
    const { tasks } = problem;
    this.meanWeight = tasks.reduce((s, t) => s + t.weight, 0) / Math.max(1, tasks.length);
    this.leastPrice = this.meanWeight * PRICE.people;
  }

  private changePrice(i: number, start: number, bay: number, crew: number): number {
    const { was } = this;
    const minutes =
      (start === was.start[i] ? 0 : PRICE.time + 0.05 * Math.abs(start - was.start[i]!)) +
      (bay === was.bay[i] ? 0 : PRICE.bay) +
      (crew === was.crew[i] ? 0 : PRICE.people);
    return this.meanWeight * minutes;
  }

  costOf(plan: Schedule, i: number): number {
    const task = this.problem.tasks[i]!;
    if (plan.crew[i]! < 0) return lateness(task, this.problem.never);
    return lateness(task, plan.end[i]!) + this.changePrice(i, plan.start[i]!, plan.bay[i]!, plan.crew[i]!);
  }

  total(plan: Schedule): number {
    return this.problem.tasks.reduce((s, _, i) => s + this.costOf(plan, i), 0);
  }

  /** Puts a task where it costs least among all that is taken. */
  private put(plan: Schedule, among: Problem, i: number): void {
    this.looks++;
    const task = among.tasks[i]!;
    let least = Infinity;
    plan.crew[i] = plan.bay[i] = -1;
    plan.start[i] = plan.end[i] = Infinity;
    // As it was comes first: what cannot be cheaper is then not looked at.
    const first = <T>(list: readonly T[], was: T) => (list.includes(was) ? [was, ...list] : list);
    for (const c of first([...task.crews.keys()], this.was.crew[i]!)) {
      const crew = task.crews[c]!;
      for (const bay of first(task.bays, this.was.bay[i]!)) {
        for (const from of [Math.max(task.release, this.was.start[i]!), task.release]) {
          if (this.changePrice(i, this.was.start[i]!, bay, c) + lateness(task, from + task.minutes) >= least)
            break;
          const start = earliestStart(among, task, crew, bay, from);
          if (start === Infinity) continue;
          const end = doneAt(crew.hours, start, task.minutes);
          const cost = lateness(task, end) + this.changePrice(i, start, bay, c);
          if (cost < least) {
            least = cost;
            [plan.start[i], plan.end[i], plan.bay[i], plan.crew[i]] = [start, end, bay, c];
          }
          // Sooner than it was helps only what is late.
          if (lateness(task, end) === 0) break;
        }
      }
    }
  }

  /** The plan with some tasks put anew, one after another: by due date, by weight, as given or the other way round. */
  bestOf(order: readonly number[]): Schedule {
    const { tasks } = this.problem;
    const of = (key: (t: Task) => number) => order.toSorted((a, b) => key(tasks[a]!) - key(tasks[b]!));
    const orders = [[...order], of((t) => t.due), of((t) => -t.weight), [...order].reverse()];
    const different = [...new Map(orders.map((o) => [o.join(), o])).values()];
    const free = new Set(order);
    const rest = withOthersFixed(this.problem, usesOf(this.problem, this.was), (t) => free.has(t));
    const plans = different.map((tasksInOrder) => {
      const plan = copyOf(this.was);
      const taken = [...rest.taken];
      for (const i of tasksInOrder) {
        this.put(plan, { ...rest, taken }, i);
        const span = { fromMin: plan.start[i]!, untilMin: plan.end[i]! };
        for (const r of resourcesOf(this.problem, plan, i)) taken[r] = withUses(taken[r]!, [{ span }]);
      }
      plan.cost = this.total(plan);
      return plan;
    });
    return plans.reduce((a, b) => (b.cost < a.cost ? b : a));
  }

  /** What could be saved at most by moving others as well: what the moved tasks cost above staying where they were. */
  atStake(plan: Schedule, moved: ReadonlySet<number>): number {
    return [...moved].reduce(
      (s, i) => s + this.costOf(plan, i) - lateness(this.problem.tasks[i]!, this.was.end[i]!),
      0,
    );
  }

  /** Tasks that stand in the way of one of these from its old time to its new, in a bay or with somebody it could have. */
  rivals(plan: Schedule, of: ReadonlySet<number>): number[] {
    const { was, problem } = this;
    return [...problem.tasks.keys()].filter((k) => {
      if (of.has(k)) return false;
      const has = new Set(resourcesOf(problem, was, k));
      return [...of].some((i) => {
        const { bays, crews, tools } = problem.tasks[i]!;
        const [from, until] = [Math.min(was.start[i]!, plan.start[i]!), Math.max(was.end[i]!, plan.end[i]!)];
        const near = was.start[k]! < until && from < was.end[k]!;
        return near && [...bays, ...crews.flatMap((c) => c.people), ...tools].some((r) => has.has(r));
      });
    });
  }
}

/**
 * Mends a plan that no longer holds, and moves as little as it can: what still stands stays, unless moving
 * it saves more lateness than a change of plan is worth. Only the people are changed before the bay, the
 * bay before the time.
 *
 * @param input the shop as it is now: who is away, which bay or tool is taken longer, is `taken` there
 * @param places where the jobs of the input stand in the plan
 * @returns where every job stands now, which moved and why
 * @throws BadInput as `planShop`, and for a job that stands nowhere
 */
export function mendPlan(input: ShopPlanInput, places: readonly Place[]): Mended {
  const problem = toProblem(input);
  const was = scheduleOfPlaces(input, problem, places);
  const whys = input.jobs.map((_, i) => broken(problem, was, i));
  const mending = new Mending(problem, was);
  const free = input.jobs.flatMap((_, i) => (whys[i] ? [i] : []));
  let moved: ReadonlySet<number> = new Set(free);
  let best = free.length === 0 ? was : mending.bestOf(free);
  for (let better = free.length > 0; better;) {
    better = false;
    for (const i of mending.rivals(best, moved)) {
      if (mending.atStake(best, moved) <= mending.leastPrice || mending.looks >= MOST_LOOKS) break;
      if (moved.has(i)) continue;
      const plan = mending.bestOf([...moved, i]);
      if (plan.cost >= best.cost - 1e-6) continue;
      best = plan;
      moved = new Set([...moved, i]);
      better = true;
    }
  }
  return mendedOf(input, problem, was, best, whys, places);
}

function mendedOf(
  input: ShopPlanInput,
  problem: Problem,
  was: Schedule,
  now: Schedule,
  whys: readonly (MovedBecause | null)[],
  places: readonly Place[],
): Mended {
  const placeOf = (i: number): Place => ({
    job: input.jobs[i]!.id,
    bay: input.bays[now.bay[i]!]!.id,
    people: problem.tasks[i]!.crews[now.crew[i]!]!.people.map(
      (p) => input.people[p - problem.firstPerson]!.id,
    ),
    startMin: now.start[i]!,
    endMin: now.end[i]!,
  });
  const changed = (i: number) =>
    now.start[i] !== was.start[i] || now.bay[i] !== was.bay[i] || now.crew[i] !== was.crew[i];
  const all = [...input.jobs.keys()];
  const placed = all.filter((i) => now.crew[i]! >= 0);
  /** Jobs that now stand where this one stood. */
  const roomFor = (i: number) =>
    placed
      .filter((k) => k !== i && now.start[k]! < was.end[i]! && was.start[i]! < now.end[k]!)
      .filter((k) => resourcesOf(problem, now, k).some((r) => resourcesOf(problem, was, i).includes(r)))
      .map((k) => input.jobs[k]!.id);
  const sum = (plan: Schedule) =>
    problem.tasks.reduce((s, t, i) => s + lateness(t, Math.min(problem.never, plan.end[i]!)), 0);
  return {
    places: placed.map(placeOf),
    moved: placed.filter(changed).map((i) => ({
      job: input.jobs[i]!.id,
      from: places.find((p) => p.job === input.jobs[i]!.id)!,
      to: placeOf(i),
      because: whys[i] ?? { kind: 'room', jobs: roomFor(i) },
    })),
    unplaced: all.filter((i) => now.crew[i]! < 0).map((i) => input.jobs[i]!.id),
    before: sum(was),
    after: sum(now),
  };
}
