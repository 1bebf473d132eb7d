import { z } from 'zod';
import { defineCalculation, type Progress } from '../calculation/index.ts';
import { aloneIn } from './others-fixed.ts';
import { relax, type Relaxation } from './bound.ts';
import { decode, scheduleOf, workspaceOf, type Schedule } from './decode.ts';
import { exactPlan } from './exact.ts';
import { lateness, shopPlanInput, toProblem, type Problem, type ShopPlanInput } from './problem.ts';
import { firstOrders, search, sortedBy } from './search.ts';
import { becauses, becauseSchema } from './why.ts';

const bookingSchema = z.object({
  job: z.string(),
  bay: z.string(),
  /** Who has the skill. */
  person: z.string(),
  people: z.array(z.string()),
  startMin: z.number(),
  endMin: z.number(),
  lateMin: z.number(),
  because: becauseSchema,
});
const outputSchema = z.object({
  bookings: z.array(bookingSchema),
  /** Jobs for which there is no place while people work and the unit is there. */
  unplaced: z.array(z.string()),
  weightedLateness: z.number(),
  /** Of the goal: the weighted lateness, the greatest, or the number late. */
  cost: z.number(),
  lowerBound: z.number(),
});
export type ShopPlan = z.output<typeof outputSchema>;

/** What a running plan reports. */
export interface PlanProgress extends Progress {
  /** Of the best plan so far. */
  cost: number;
  lowerBound: number;
}

/** Up to this many jobs the best plan is proved. */
const EXACT_UP_TO = 8;

/** Looks at a bay or a person that a search may take in all, so that no input makes it run without end. */
const MOST_LOOKS = 4e8;

/** How much is tried: about a third of a second up to 60 jobs, some seconds at 300. */
function effort({ tasks, resources }: Problem, asked: number | undefined): { tries: number; rounds: number } {
  const n = Math.max(1, tasks.length);
  const usualTries = Math.max(2000, Math.min(20_000, Math.round(2_400_000 / n)));
  const usualRounds = Math.max(60, Math.min(400, Math.round(120_000 / n)));
  const share = Math.max(0.1, Math.min(3, (asked ?? usualTries) / usualTries));
  const crews = tasks.reduce((s, t) => s + t.crews.length, 0) / n;
  const tries = Math.min(asked ?? usualTries, Math.ceil(MOST_LOOKS / (n * (resources + crews))));
  return { tries, rounds: Math.round(usualRounds * share) };
}

/** Rounds of the relaxation between two that suggest orders: one is much like the next. */
const OFFER_EVERY = 2;

/** The best of some orders, with its cost. */
class Best {
  order: Int32Array = new Int32Array();
  cost = Infinity;
  private readonly problem: Problem;
  private readonly space;

  constructor(problem: Problem) {
    this.problem = problem;
    this.space = workspaceOf(problem);
  }

  offer(order: Int32Array): void {
    const cost = decode(this.problem, order, this.space, this.cost);
    if (cost < this.cost) [this.order, this.cost] = [order, cost];
  }

  /** Orders that a relaxation suggests: by its starts, its middles and its ends. */
  offerFrom({ starts, meanStarts }: Relaxation): void {
    for (const times of [starts, meanStarts]) {
      for (const part of [0, 0.5, 1]) {
        this.offer(sortedBy(this.problem, (i) => times[i]! + part * this.problem.tasks[i]!.minutes));
      }
    }
  }
}

function planOf(input: ShopPlanInput, problem: Problem, schedule: Schedule, bound: number): ShopPlan {
  const because = becauses(input, problem, schedule);
  const placed = (i: number) => schedule.crew[i]! >= 0;
  const bookings = input.jobs.flatMap((job, i) => {
    if (!placed(i)) return [];
    const people = problem.tasks[i]!.crews[schedule.crew[i]!]!.people.map(
      (p) => input.people[p - problem.firstPerson]!.id,
    );
    const endMin = schedule.end[i]!;
    return {
      job: job.id,
      bay: input.bays[schedule.bay[i]!]!.id,
      person: people[0]!,
      people,
      startMin: schedule.start[i]!,
      endMin,
      lateMin: Math.max(0, endMin - job.dueMin),
      because: because[i]!,
    };
  });
  const { cost } = schedule;
  return {
    bookings: bookings.sort((a, b) => a.startMin - b.startMin || (a.job < b.job ? -1 : 1)),
    unplaced: input.jobs.flatMap((job, i) => (placed(i) ? [] : [job.id])),
    weightedLateness: problem.tasks.reduce(
      (s, t, i) => s + lateness(t, placed(i) ? schedule.end[i]! : problem.never),
      0,
    ),
    cost,
    lowerBound: Math.max(0, Math.min(cost, bound)),
  };
}

/**
 * Plans jobs on bays and people: one bay, one or two people and the tools it needs for the whole of each
 * job, nothing overlaps, least cost for the goal. Work rests while its people do not work, and then keeps
 * its bay and tools. Simple orders come first, then those that a relaxation of the problem suggests, which
 * also gives the bound; a seeded search improves the best of them. Up to eight jobs it is proved to be the
 * best. Yields progress, so that whoever runs it can show it or stop.
 * @param used asked now and then: the part of the time there is that has gone. At half of it the search
 *   begins, at 1 the best so far will do
 * @returns bookings in minutes with what decided each start, their cost, and a bound that no plan can beat
 * @source constructive and search: Vepsalainen and Morton 1987 (index from memory), simulated annealing;
 *   bound: Lagrangian relaxation, Fisher 1981
 * @throws BadInput for a job that no bay, nobody or no tool can take, or an id that stands twice
 */
export function* planShop(
  input: ShopPlanInput,
  used: () => number = () => 0,
): Generator<PlanProgress, ShopPlan> {
  const problem = toProblem(input);
  const n = problem.tasks.length;
  const { tries, rounds } = effort(problem, input.tries);
  const best = new Best(problem);
  firstOrders(problem).forEach((order) => best.offer(order));
  const ends = scheduleOf(problem, best.order).end.filter((end) => end < Infinity);
  const alone = problem.tasks.map((t) => aloneIn(problem, t));
  const relaxing = relax(problem, alone, () => best.cost, Math.max(0, ...ends), rounds);
  let relaxed = relaxing.next();
  for (; !relaxed.done && used() < 0.5; relaxed = relaxing.next()) {
    const { round, bound } = relaxed.value;
    if (round % OFFER_EVERY === 0) best.offerFrom(relaxed.value);
    yield { done: (0.5 * round) / rounds, cost: best.cost, lowerBound: bound };
  }
  const { bound } = relaxed.value;
  const before = used();
  const gone = () => (used() - before) / Math.max(1e-9, 1 - before);
  const searching = search(problem, best.order, tries, input.seed, gone);
  let searched = searching.next();
  for (; !searched.done && searched.value.cost > bound && used() < 1; searched = searching.next()) {
    const { tried, cost } = searched.value;
    yield { done: 0.5 + (0.5 * tried) / tries, cost, lowerBound: bound };
  }
  const found = scheduleOf(problem, searched.value.order);
  const proved = n <= EXACT_UP_TO ? exactPlan(problem, found) : null;
  return planOf(input, problem, proved ?? found, proved ? proved.cost : bound);
}

/** Runs a plan to its end at once. */
export function planShopNow(input: ShopPlanInput): ShopPlan {
  const running = planShop(input);
  for (;;) {
    const step = running.next();
    if (step.done) return step.value;
  }
}

/** `shop-plan`: who does which job where and when. */
export const shopPlanCalculation = defineCalculation({
  name: 'shop-plan',
  title: 'Shop plan',
  summary:
    'Books jobs on bays and people so that what is due most gets done in time, and says how good the plan is.',
  inputSchema: shopPlanInput,
  outputSchema,
  sources: [
    { text: 'Vepsalainen and Morton 1987, apparent tardiness cost', mark: 'from-memory' },
    { text: 'Fisher 1981, Lagrangian relaxation', mark: 'published' },
  ],
  example: {
    bays: [
      { id: 'Bay 1', kinds: ['heavy'] },
      { id: 'Bay 2', kinds: ['heavy', 'light'] },
    ],
    people: [
      { id: 'D. Achterberg', skills: ['hubs', 'brakes'] },
      { id: 'M. Pellow', skills: ['hubs'] },
    ],
    jobs: [
      {
        id: 'Tern 418',
        minutes: 240,
        releaseMin: 0,
        dueMin: 300,
        weight: 3,
        bayKind: 'heavy',
        skill: 'hubs',
      },
      {
        id: 'Heather 5',
        minutes: 90,
        releaseMin: 0,
        dueMin: 120,
        weight: 1,
        bayKind: 'light',
        skill: 'hubs',
      },
      {
        id: 'Valley 27',
        minutes: 180,
        releaseMin: 60,
        dueMin: 360,
        weight: 2,
        bayKind: 'heavy',
        skill: 'brakes',
      },
    ],
  },
  compute: planShopNow,
  steps: (input) => planShop(input),
});
