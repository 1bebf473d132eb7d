import { oppositeOf } from '../axle-plan/index.ts';
import { componentOf, PLANNED } from '../inspection/index.ts';
import { judgedParts, renewedParts } from './findings.ts';
import { wheelEndAt, type Job, type WheelEnd } from './job.ts';

/** Parts of a wheel end that failed: judged for replacement, or decided so by the supervisor. Titles. */
function failedParts(wheelEnd: WheelEnd): string[] {
  const planned = [...judgedParts(wheelEnd).values()].filter((j) => j.finding.seen === PLANNED.id);
  const spared = new Set(planned.map((j) => j.finding.component));
  return [...renewedParts(wheelEnd)]
    .filter((id) => !spared.has(id))
    .map((id) => componentOf(id)?.title ?? id);
}

/**
 * The pair rule: what failed on one side is looked at on the other, which has run as far on the same parts.
 * @returns the other side and what failed here, or null when nothing failed or the other side is in the job
 * @source common practice, no single source
 */
export function otherSideDue(job: Job, wheelEnd: WheelEnd): { position: string; parts: string[] } | null {
  const position = oppositeOf(wheelEnd.position);
  const parts = failedParts(wheelEnd);
  return parts.length === 0 || wheelEndAt(job, position) ? null : { position, parts };
}
