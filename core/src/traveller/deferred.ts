import type { Position } from '../axle-plan/index.ts';
import type { Work } from '../stack/index.ts';
import { wheelEndsEver, type Job, type Trace, type WheelEnd } from './job.ts';
import { worksWanted } from './open-again.ts';

/** A work that an owner wants done later. */
export interface DeferredWork {
  axleId: string;
  position: Position;
  work: Work;
  /** The day of the answer, and the day until which it waits. */
  on: string;
  until: string;
}

const rowOf = ({ axleId, position }: WheelEnd, work: Work, { at }: Trace, until: string): DeferredWork => ({
  ...{ axleId, position, work, until },
  on: at.slice(0, 10),
});

/** Works that were deferred one by one, by the last answer about each, and not taken back into the job since. */
function deferredLines(w: WheelEnd): DeferredWork[] {
  const last = new Map(w.plan.unwanted.map((u) => [u.work, u]));
  const wanted = worksWanted(w);
  return [...last.values()].flatMap((u) =>
    u.answer === 'defer' && u.until && !wanted.includes(u.work) ? [rowOf(w, u.work, u, u.until)] : [],
  );
}

/**
 * What an owner deferred in a job, one work at a time or the whole estimate: due on the day that was agreed, until
 * some job has done it. Nothing of a job that was opened in error.
 */
export function deferredWorks(job: Job): DeferredWork[] {
  if (job.stopped?.as === 'void') return [];
  const lines = wheelEndsEver(job).flatMap(deferredLines);
  const { answer } = job.money;
  if (answer?.answer !== 'defer' || !answer.until) return lines;
  const { until } = answer;
  const whole = job.wheelEnds.flatMap((w) =>
    w.release ? [] : worksWanted(w).map((work) => rowOf(w, work, answer, until)),
  );
  return [...lines, ...whole];
}
