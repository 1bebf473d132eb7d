import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';
import { lowerBound } from './bound.ts';
import { scheduleOf, type Schedule } from './decode.ts';
import { exactPlan } from './exact.ts';
import { lateness, shopPlanInput, toProblem, type ShopPlanInput } from './problem.ts';
import { search } from './search.ts';

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
export interface PlanProgress {
  tried: number;
  tries: number;
  weightedLateness: number;
}

/** Up to this many jobs the best plan is proved. */
const EXACT_UP_TO = 8;
/** Work that answers within about a third of a second: tries × jobs. */
const USUAL_WORK = 2_400_000;
const BOUND_ROUNDS = { quick: 60, thorough: 400 } as const;

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
 * weighted lateness. A constructive plan improved by a bounded, seeded search; up to eight jobs it is
 * proved to be the best. Yields progress, so that whoever runs it can show it or stop.
 * @returns bookings in minutes, their weighted lateness, and a bound that no plan can beat
 * @source constructive and search: Vepsalainen and Morton 1987 (index from memory), simulated annealing;
 *   bound: Lagrangian relaxation, Fisher 1981
 * @throws BadInput for a job that no bay or nobody can take, or an id that stands twice
 */
export function* planShop(input: ShopPlanInput): Generator<PlanProgress, ShopPlan> {
  const problem = toProblem(input);
  const n = problem.tasks.length;
  const usual = Math.max(2000, Math.min(20_000, Math.round(USUAL_WORK / Math.max(1, n))));
  const running = search(problem, input.tries ?? usual, input.seed);
  let step = running.next();
  while (!step.done) {
    yield { tried: step.value.tried, tries: step.value.tries, weightedLateness: step.value.cost };
    step = running.next();
  }
  const found = scheduleOf(problem, step.value.order);
  const proved = n <= EXACT_UP_TO ? exactPlan(problem, found) : null;
  const schedule = proved ?? found;
  const weightedLateness = problem.tasks.reduce(
    (s, t, i) => s + lateness(t, schedule.start[i]! + t.minutes),
    0,
  );
  const rounds = (input.tries ?? usual) > usual ? BOUND_ROUNDS.thorough : BOUND_ROUNDS.quick;
  const bound = proved
    ? weightedLateness
    : Math.min(weightedLateness, lowerBound(problem, weightedLateness, rounds));
  return { bookings: bookingsOf(input, schedule), weightedLateness, lowerBound: bound };
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
});
