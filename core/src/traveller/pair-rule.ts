import { oppositeOf } from '../axle-plan/index.ts';
import { components, type Disposition } from '../inspection/index.ts';
import { wheelEndAt, type Job, type WheelEnd } from './job.ts';

const failed: readonly Disposition[] = ['replace', 'replace-set', 'replace-pair'];

/** Parts of a wheel end that failed: judged for replacement, or decided so by the supervisor. Titles. */
function failedParts(wheelEnd: WheelEnd): string[] {
  const judged = wheelEnd.records.filter((r) => r.data?.kind === 'judge').at(-1)?.data;
  const findings =
    judged?.kind === 'judge' ? judged.findings.filter((f) => failed.includes(f.disposition)) : [];
  const decided = wheelEnd.decisions.filter((d) => failed.includes(d.decision));
  const ids = new Set([...findings, ...decided].map((f) => f.component));
  return components.filter((c) => ids.has(c.id)).map((c) => c.title);
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
