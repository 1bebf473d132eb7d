import { z } from 'zod';
import { withOthersFixedForEach, canBeginBefore, usesOf, type Part, type Uses } from './others-fixed.ts';
import { openFrom } from './calendar.ts';
import type { Schedule } from './decode.ts';
import type { Problem, ShopPlanInput } from './problem.ts';

/**
 * Why a job does not begin earlier: it may not yet; nobody who can do it works before; the unit is not
 * there; what it needs is booked; or a part of the shop that other jobs have until then. In a very large
 * shop not every job is explained.
 */
export const becauseSchema = z.object({
  kind: z.enum(['release', 'hours', 'stay', 'taken', 'bay', 'people', 'tool', 'several', 'unexplained']),
  /** The jobs that have it until then. */
  jobs: z.array(z.string()).optional(),
});
export type Because = z.output<typeof becauseSchema>;

const PARTS: readonly Part[] = ['bay', 'people', 'tool'];

/** Jobs that end at this start, or the last before it, on what the task takes of a part. */
function before(input: ShopPlanInput, uses: Uses, numbers: readonly number[], start: number): string[] {
  const ended = numbers
    .flatMap((r) => uses.of[r]!)
    .filter((u) => u.span.untilMin <= start + 1e-6)
    .sort((a, b) => b.span.untilMin - a.span.untilMin);
  const last = ended[0]?.span.untilMin;
  return [...new Set(ended.filter((u) => u.span.untilMin === last).map((u) => input.jobs[u.task]!.id))].slice(
    0,
    3,
  );
}

/** Bays times crews that are looked at for reasons: what comes after is not explained. */
const MOST_LOOKS = 3e6;

/** @returns for each job of a schedule what decided its start, as the names of the input have it */
export function becauses(input: ShopPlanInput, problem: Problem, schedule: Schedule): Because[] {
  const uses = usesOf(problem, schedule);
  const othersFixed = withOthersFixedForEach(problem, schedule, uses);
  let looks = 0;
  return problem.tasks.map((task, i): Because => {
    const start = schedule.start[i]! - 1e-9;
    if (task.release >= start) return { kind: 'release' };
    looks += task.bays.length * task.crews.length;
    if (looks > MOST_LOOKS) return { kind: 'unexplained' };
    if (!canBeginBefore(problem, task, start)) {
      if (task.gone && canBeginBefore(problem, { ...task, gone: null }, start)) return { kind: 'stay' };
      const works = Math.min(...task.crews.map((c) => openFrom(c.hours, task.release)));
      return { kind: works < start ? 'taken' : 'hours' };
    }
    for (const part of PARTS) {
      if (!canBeginBefore(othersFixed(i, part), task, start)) continue;
      const numbers = { bay: task.bays, people: task.crews.flatMap((c) => c.people), tool: task.tools }[part];
      return { kind: part, jobs: before(input, uses, [...new Set(numbers)], start) };
    }
    return { kind: 'several' };
  });
}
