import type { Stage } from '../procedure/index.ts';
import type { Job, WheelEnd } from './job.ts';

/** A longer silence is a break or another job, and counts for no stage. */
const LONGEST_GAP_MIN = 120;

/**
 * Minutes that each stage of a wheel end took so far: the time up to each record since the one before, on the
 * stage of the record. Two hours of silence or more are left out.
 * @source the record's own times; the limit is common practice, no source
 */
export function stageMinutes(job: Job, wheelEnd: WheelEnd): Partial<Record<Stage, number>> {
  const marks = [
    ...wheelEnd.records.map(({ at, stage }) => ({ at, stage })),
    ...wheelEnd.readings.map(({ at, round }) => ({
      at,
      stage: (round === 0 ? 'diagnose' : 'verify') as Stage,
    })),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
  const minutes: Partial<Record<Stage, number>> = {};
  let before = Date.parse(job.opened.at);
  for (const { at, stage } of marks) {
    const gap = (Date.parse(at) - before) / 60_000;
    if (gap < LONGEST_GAP_MIN) minutes[stage] = (minutes[stage] ?? 0) + gap;
    before = Date.parse(at);
  }
  return minutes;
}
