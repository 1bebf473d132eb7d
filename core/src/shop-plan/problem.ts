import { z } from 'zod';
import { BadInput } from '../calculation/index.ts';

const id = z.string().min(1).max(80);
const names = z.array(z.string().min(1).max(80)).max(100);
const minute = z.number().min(0).max(1e7);

export const shopPlanInput = z.object({
  bays: z
    .array(z.object({ id, kinds: names }))
    .min(1)
    .max(100),
  people: z
    .array(z.object({ id, skills: names }))
    .min(1)
    .max(500),
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
      }),
    )
    .max(2000),
  /** How many changes the search tries; more takes longer and may find a better plan. */
  tries: z.int().min(0).max(5_000_000).optional(),
  seed: z
    .int()
    .min(0)
    .max(2 ** 31)
    .default(1),
});
export type ShopPlanInput = z.output<typeof shopPlanInput>;

/** A job with the indices of the bays and people that can take it. */
export interface Task {
  minutes: number;
  release: number;
  due: number;
  weight: number;
  bays: number[];
  people: number[];
}

/** The problem in numbers, for the search and the bound. */
export interface Problem {
  tasks: Task[];
  bays: number;
  people: number;
  /** How many tasks a bay or person could take at all: the less, the less flexible. */
  bayUse: number[];
  personUse: number[];
}

function unique(list: readonly { id: string }[], path: string): void {
  const seen = new Set<string>();
  list.forEach(({ id: name }, i) => {
    if (seen.has(name)) throw new BadInput('is named twice', `${path}.${i}.id`);
    seen.add(name);
  });
}

/**
 * Checks the input and turns names into indices.
 * @throws BadInput for an id that stands twice, or a job that no bay or nobody can take
 */
export function toProblem({ bays, people, jobs }: ShopPlanInput): Problem {
  unique(bays, 'bays');
  unique(people, 'people');
  unique(jobs, 'jobs');
  const indices = <T>(list: readonly T[], fits: (item: T) => boolean) =>
    list.flatMap((item, i) => (fits(item) ? [i] : []));
  const tasks = jobs.map((job, i): Task => {
    const fittingBays = indices(bays, (b) => b.kinds.includes(job.bayKind));
    const fittingPeople = indices(people, (p) => p.skills.includes(job.skill));
    if (fittingBays.length === 0) throw new BadInput('no bay is of this kind', `jobs.${i}.bayKind`);
    if (fittingPeople.length === 0) throw new BadInput('nobody has this skill', `jobs.${i}.skill`);
    const { minutes, releaseMin, dueMin, weight } = job;
    return { minutes, release: releaseMin, due: dueMin, weight, bays: fittingBays, people: fittingPeople };
  });
  const use = (count: number, of: (t: Task) => number[]) =>
    Array.from({ length: count }, (_, i) => tasks.filter((t) => of(t).includes(i)).length);
  return {
    tasks,
    bays: bays.length,
    people: people.length,
    bayUse: use(bays.length, (t) => t.bays),
    personUse: use(people.length, (t) => t.people),
  };
}

/** Lateness of a task that ends at a minute, times its weight. */
export function lateness(task: Task, end: number): number {
  return task.weight * Math.max(0, end - task.due);
}
