import { z } from 'zod';
import { BadInput } from '../calculation/index.ts';
import { always, calendarOf, shared, type Calendar, type Span } from './calendar.ts';

const id = z.string().min(1).max(80);
const names = z.array(z.string().min(1).max(80)).max(100);
const minute = z.number().min(0).max(1e7);
const span = z
  .object({ fromMin: minute, untilMin: minute })
  .refine((s) => s.untilMin > s.fromMin, { message: 'must end after it begins', path: ['untilMin'] });
const spans = z.array(span).max(2000);

export const goals = {
  'weighted-lateness': 'Least lateness in all, by weight',
  'greatest-lateness': 'The greatest lateness as small as can be',
  'number-late': 'As few late jobs as can be, by weight',
} as const;

export const shopPlanInput = z.object({
  bays: z
    .array(z.object({ id, kinds: names, taken: spans.optional() }))
    .min(1)
    .max(100),
  people: z
    .array(
      z.object({
        id,
        skills: names,
        /** Shifts without their breaks; always when left out. Work rests outside them. */
        works: spans.optional(),
        /** Away or booked elsewhere: no work may lie across it. */
        taken: spans.optional(),
      }),
    )
    .min(1)
    .max(500),
  /** Tools and places that exist once. */
  tools: z
    .array(z.object({ id, taken: spans.optional() }))
    .max(200)
    .optional(),
  jobs: z
    .array(
      z.object({
        id,
        minutes: z.number().positive().max(1e6),
        releaseMin: minute,
        dueMin: z.number().min(-1e7).max(1e7),
        weight: z.number().nonnegative().max(1e6),
        bayKind: z.string().min(1).max(80),
        skill: z.string().min(1).max(80),
        /** How many work on it together, one of them with the skill. */
        people: z.int().min(1).max(2).optional(),
        tools: z.array(id).max(10).optional(),
        /** When the unit may stand in the shop: from coming to leaving within one of these. */
        stays: spans.optional(),
      }),
    )
    .max(2000),
  goal: z.enum(Object.keys(goals) as [keyof typeof goals, ...(keyof typeof goals)[]]).optional(),
  /** How many changes the search tries; more takes longer and may find a better plan. */
  tries: z.int().min(0).max(5_000_000).optional(),
  seed: z
    .int()
    .min(0)
    .max(2 ** 31)
    .default(1),
});
export type ShopPlanInput = z.output<typeof shopPlanInput>;
type Goal = keyof typeof goals;

/** One or two people who can do a task, and when all of them work. */
export interface Crew {
  people: number[];
  /** The one with the skill, and the other; -1 where there is none. */
  lead: number;
  helper: number;
  hours: Calendar;
  /** How many tasks its people could do. */
  use: number;
}

/** A job with the numbers of the bays, crews and tools that can take it. */
export interface Task {
  minutes: number;
  release: number;
  due: number;
  weight: number;
  bays: number[];
  crews: Crew[];
  tools: number[];
  /** When it may not stand in the shop; null when it always may. */
  gone: Calendar | null;
}

/** The problem in numbers: bays, then people, then tools are counted through as resources. */
export interface Problem {
  tasks: Task[];
  goal: Goal;
  resources: number;
  firstPerson: number;
  firstTool: number;
  /** When each resource is booked or away; null when never. */
  taken: (Calendar | null)[];
  hours: (Calendar | null)[];
  /** How many tasks a resource could take at all: the less, the less flexible. */
  use: number[];
  /** The end that counts for a task that finds no place. */
  never: number;
}

function unique(list: readonly { id: string }[], path: string): void {
  const seen = new Set<string>();
  list.forEach(({ id: name }, i) => {
    if (seen.has(name)) throw new BadInput('is named twice', `${path}.${i}.id`);
    seen.add(name);
  });
}

/** The spans between some spans. */
function between(list: readonly Span[]): Calendar {
  const open = calendarOf(list);
  const gaps: Span[] = [];
  let at = -Infinity;
  open.from.forEach((from, i) => {
    gaps.push({ fromMin: at, untilMin: from });
    at = open.until[i]!;
  });
  return calendarOf([...gaps, { fromMin: at, untilMin: Infinity }]);
}

/** Calendars that say the same are one, so that what is reckoned for one holds for all who have it. */
function calendarsByText(): (list: readonly Span[] | undefined) => Calendar {
  const known = new Map<string, Calendar>();
  return (list) => {
    if (!list) return always;
    const key = JSON.stringify(list);
    const calendar = known.get(key) ?? calendarOf(list);
    known.set(key, calendar);
    return calendar;
  };
}

/** One or two people for each task, at least one of them with the skill. */
function crewsOf(
  hours: readonly Calendar[],
): (able: readonly number[], size: number) => Pick<Crew, 'people' | 'hours'>[] {
  const pairs = new Map<Calendar, Map<Calendar, Calendar>>();
  const both = (a: Calendar, b: Calendar) => {
    const of = pairs.get(a) ?? new Map<Calendar, Calendar>();
    pairs.set(a, of);
    const calendar = of.get(b) ?? shared(a, b);
    of.set(b, calendar);
    return calendar;
  };
  return (able, size) => {
    if (size === 1) return able.map((p) => ({ people: [p], hours: hours[p]! }));
    return able.flatMap((lead) =>
      hours.flatMap((h, p) =>
        p === lead || (able.includes(p) && p < lead)
          ? []
          : [{ people: [lead, p], hours: both(hours[lead]!, h) }],
      ),
    );
  };
}

/**
 * Checks the input and turns names into indices.
 * @throws BadInput for an id that stands twice, or a job that no bay, nobody or no tool can take
 */
export function toProblem({ bays, people, tools = [], jobs, goal }: ShopPlanInput): Problem {
  unique(bays, 'bays');
  unique(people, 'people');
  unique(tools, 'tools');
  unique(jobs, 'jobs');
  const indices = <T>(list: readonly T[], fits: (item: T) => boolean) =>
    list.flatMap((item, i) => (fits(item) ? [i] : []));
  const calendar = calendarsByText();
  const hours = people.map((p) => calendar(p.works));
  const crews = crewsOf(hours);
  const firstPerson = bays.length;
  const firstTool = firstPerson + people.length;
  const tasks = jobs.map((job, i): Task => {
    const fittingBays = indices(bays, (b) => b.kinds.includes(job.bayKind));
    const able = indices(people, (p) => p.skills.includes(job.skill));
    if (fittingBays.length === 0) throw new BadInput('no bay is of this kind', `jobs.${i}.bayKind`);
    if (able.length === 0) throw new BadInput('nobody has this skill', `jobs.${i}.skill`);
    const fittingCrews = crews(able, job.people ?? 1);
    if (fittingCrews.length === 0) throw new BadInput('there are not so many people', `jobs.${i}.people`);
    return {
      minutes: job.minutes,
      release: job.releaseMin,
      due: job.dueMin,
      weight: job.weight,
      bays: fittingBays,
      crews: fittingCrews.map(({ people: [lead = 0, helper], hours: together }) => ({
        people: [lead, ...(helper === undefined ? [] : [helper])].map((p) => firstPerson + p),
        lead: firstPerson + lead,
        helper: helper === undefined ? -1 : firstPerson + helper,
        hours: together,
        use: 0,
      })),
      tools: [...new Set(job.tools ?? [])].map((name, nth) => {
        const k = tools.findIndex((t) => t.id === name);
        if (k < 0) throw new BadInput('there is no such tool', `jobs.${i}.tools.${nth}`);
        return firstTool + k;
      }),
      gone: job.stays ? between(job.stays) : null,
    };
  });
  const all = [...bays, ...people, ...tools];
  const use = new Array<number>(all.length).fill(0);
  for (const t of tasks)
    for (const r of new Set([...t.bays, ...t.crews.flatMap((c) => c.people), ...t.tools])) use[r]!++;
  for (const t of tasks) for (const c of t.crews) c.use = c.people.reduce((s, p) => s + use[p]!, 0);
  const ends = [...all.flatMap((r) => r.taken ?? []), ...people.flatMap((p) => p.works ?? [])].map(
    (s) => s.untilMin,
  );
  const last = Math.max(0, ...ends, ...tasks.flatMap((t) => [t.release, t.due]));
  return {
    tasks,
    goal: goal ?? 'weighted-lateness',
    resources: all.length,
    firstPerson,
    firstTool,
    taken: all.map((r) => (r.taken?.length ? calendar(r.taken) : null)),
    hours: all.map((_, r) => (r >= firstPerson && r < firstTool ? hours[r - firstPerson]! : null)),
    use,
    never: 2 * (last + tasks.reduce((s, t) => s + t.minutes, 0)),
  };
}

/** Lateness of a task that ends at a minute, times its weight. */
export function lateness(task: Task, end: number): number {
  return task.weight * Math.max(0, end - task.due);
}

/** The cost of a plan so far with one more task that ends at a minute. */
export function costWith(goal: Goal, cost: number, task: Task, end: number): number {
  if (goal === 'weighted-lateness') return cost + lateness(task, end);
  if (goal === 'number-late') return end > task.due ? cost + task.weight : cost;
  return Math.max(cost, end - task.due);
}
