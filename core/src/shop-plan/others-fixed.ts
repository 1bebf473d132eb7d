import { calendarOf, doneAt, openFrom, type Calendar, type Span } from './calendar.ts';
import { earliestStart, type Schedule } from './decode.ts';
import type { Problem, Task } from './problem.ts';

/** What keeps a job from an earlier start. */
export type Part = 'bay' | 'people' | 'tool';

function partOf({ firstPerson, firstTool }: Problem, resource: number): Part {
  if (resource < firstPerson) return 'bay';
  return resource < firstTool ? 'people' : 'tool';
}

/** What a task of a schedule takes; nothing when it found no place. */
export function resourcesOf({ tasks }: Problem, { bay, crew }: Schedule, i: number): number[] {
  if (crew[i]! < 0) return [];
  return [bay[i]!, ...tasks[i]!.crews[crew[i]!]!.people, ...tasks[i]!.tools];
}

const spansOf = (calendar: Calendar | null): Span[] =>
  calendar ? [...calendar.from].map((fromMin, k) => ({ fromMin, untilMin: calendar.until[k]! })) : [];

/** Which task has each resource when. */
export interface Uses {
  of: { task: number; span: Span }[][];
}

export function usesOf(problem: Problem, schedule: Schedule): Uses {
  const of: Uses['of'] = Array.from({ length: problem.resources }, () => []);
  problem.tasks.forEach((_, i) => {
    const span = { fromMin: schedule.start[i]!, untilMin: schedule.end[i]! };
    for (const r of resourcesOf(problem, schedule, i)) of[r]!.push({ task: i, span });
  });
  return { of };
}

export function withUses(own: Calendar | null, others: readonly { span: Span }[]): Calendar | null {
  return others.length === 0 ? own : calendarOf([...spansOf(own), ...others.map((u) => u.span)]);
}

/** The problem of some tasks alone, with all others where they are. */
export function withOthersFixed(problem: Problem, uses: Uses, but: (task: number) => boolean): Problem {
  const taken = problem.taken.map((own, r) =>
    withUses(
      own,
      uses.of[r]!.filter((u) => !but(u.task)),
    ),
  );
  return { ...problem, taken };
}

/** The problems of one task, with all others where they are, or as if they used no bay, nobody or no tool. */
export function withOthersFixedForEach(problem: Problem, schedule: Schedule, uses: Uses) {
  const full = problem.taken.map((own, r) => withUses(own, uses.of[r]!));
  return (task: number, ignored: Part): Problem => {
    const taken = full.map((all, r) => (partOf(problem, r) === ignored ? problem.taken[r]! : all));
    for (const r of resourcesOf(problem, schedule, task)) {
      if (partOf(problem, r) === ignored) continue;
      taken[r] = withUses(
        problem.taken[r]!,
        uses.of[r]!.filter((u) => u.task !== task),
      );
    }
    return { ...problem, taken };
  };
}

/** Whether a task could begin before a minute in some bay with some crew. */
export function canBeginBefore(problem: Problem, task: Task, minute: number): boolean {
  const from = task.release;
  return task.crews.some(
    (crew) =>
      openFrom(crew.hours, from) < minute &&
      task.bays.some((bay) => earliestStart(problem, task, crew, bay, from) < minute),
  );
}

/** The first start and the first end of a task with nothing else in the shop. */
export interface Alone {
  start: number;
  end: number;
}

/** When there is no place, `never` for both. */
export function aloneIn(problem: Problem, task: Task): Alone {
  const first = { start: problem.never, end: problem.never };
  for (const crew of task.crews) {
    for (const bay of task.bays) {
      const start = earliestStart(problem, task, crew, bay, task.release);
      if (start === Infinity) continue;
      first.start = Math.min(first.start, start);
      first.end = Math.min(first.end, doneAt(crew.hours, start, task.minutes));
    }
  }
  return first;
}
