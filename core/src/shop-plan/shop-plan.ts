import { z } from 'zod';
import { defineCalculation, type Progress } from '../calculation/index.ts';
import { relax, type Relaxation } from './bound.ts';
import { decode, scheduleOf, workspaceOf, type Schedule } from './decode.ts';
import { exactPlan } from './exact.ts';
import { lateness, shopPlanInput, toProblem, type Problem, type ShopPlanInput } from './problem.ts';
import { firstOrders, search, sortedBy } from './search.ts';

const bookingSchema = z.object({
  job: z.string(),
  bay: z.string(),
  person: z.string(),
  startMin: z.number(),
  endMin: z.number(),
});
const outputSchema = z.object({
  bookings: z.array(bookingSchema),
  weightedLateness: z.number(),
  lowerBound: z.number(),
});
export type ShopPlan = z.output<typeof outputSchema>;

/** What a running plan reports. */
export interface PlanProgress extends Progress {
  /** Of the best plan so far. */
  weightedLateness: number;
  lowerBound: number;
}

/** Up to this many jobs the best plan is proved. */
const EXACT_UP_TO = 8;

/** Looks at a bay or a person that a search may take in all, so that no input makes it run without end. */
const MOST_LOOKS = 4e8;

/** How much is tried: about a third of a second up to 60 jobs, two seconds at 300. */
function effort(
  { tasks, bays, people }: Problem,
  asked: number | undefined,
): { tries: number; rounds: number } {
  const n = Math.max(1, tasks.length);
  const usualTries = Math.max(2000, Math.min(20_000, Math.round(2_400_000 / n)));
  const usualRounds = Math.max(60, Math.min(400, Math.round(120_000 / n)));
  const share = Math.max(0.1, Math.min(3, (asked ?? usualTries) / usualTries));
  const tries = Math.min(asked ?? usualTries, Math.ceil(MOST_LOOKS / (n * (bays + people))));
  return { tries, rounds: Math.round(usualRounds * share) };
}

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

function bookingsOf(input: ShopPlanInput, schedule: Schedule): ShopPlan['bookings'] {
  return input.jobs
    .map((job, i) => ({
      job: job.id,
      bay: input.bays[schedule.bay[i]!]!.id,
      person: input.people[schedule.person[i]!]!.id,
      startMin: schedule.start[i]!,
      endMin: schedule.start[i]! + job.minutes,
    }))
    .sort((a, b) => a.startMin - b.startMin || (a.job < b.job ? -1 : 1));
}

/**
 * Plans jobs on bays and people: one bay and one person for the whole of each job, nothing overlaps, least
 * weighted lateness. Simple orders come first, then those that a relaxation of the problem suggests, which
 * also gives the bound; a seeded search improves the best of them. Up to eight jobs it is proved to be the
 * best. Yields progress, so that whoever runs it can show it or stop.
 * @returns bookings in minutes, their weighted lateness, and a bound that no plan can beat
 * @source constructive and search: Vepsalainen and Morton 1987 (index from memory), simulated annealing;
 *   bound: Lagrangian relaxation, Fisher 1981
 * @throws BadInput for a job that no bay or nobody can take, or an id that stands twice
 */
export function* planShop(input: ShopPlanInput): Generator<PlanProgress, ShopPlan> {
  const problem = toProblem(input);
  const n = problem.tasks.length;
  const { tries, rounds } = effort(problem, input.tries);
  const best = new Best(problem);
  firstOrders(problem).forEach((order) => best.offer(order));
  const relaxing = relax(problem, () => best.cost, rounds);
  let relaxed = relaxing.next();
  for (; !relaxed.done; relaxed = relaxing.next()) {
    best.offerFrom(relaxed.value);
    const { round, bound } = relaxed.value;
    yield { done: (0.5 * round) / rounds, weightedLateness: best.cost, lowerBound: bound };
  }
  const { bound } = relaxed.value;
  const searching = search(problem, best.order, tries, input.seed);
  let searched = searching.next();
  for (; !searched.done && searched.value.cost > bound; searched = searching.next()) {
    const { tried, cost } = searched.value;
    yield { done: 0.5 + (0.5 * tried) / tries, weightedLateness: cost, lowerBound: bound };
  }
  const found = scheduleOf(problem, searched.value.order);
  const proved = n <= EXACT_UP_TO ? exactPlan(problem, found) : null;
  const schedule = proved ?? found;
  const weightedLateness = problem.tasks.reduce(
    (s, t, i) => s + lateness(t, schedule.start[i]! + t.minutes),
    0,
  );
  const lowerBound = proved ? weightedLateness : Math.max(0, Math.min(weightedLateness, bound));
  return { bookings: bookingsOf(input, schedule), weightedLateness, lowerBound };
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
  steps: planShop,
});
