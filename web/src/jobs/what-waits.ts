import type { JobSummary, WheelEndStand } from '@lanternwright/contract/jobs';

/** Findings that wait for a supervisor, from every open job. */
export function findingsAsked(jobs: readonly JobSummary[]) {
  return jobs.flatMap((job) =>
    job.wheelEnds.flatMap((w) => w.asks.map((q) => ({ job, position: w.position, q }))),
  );
}

/** Jobs with the wheel ends on which only the release is left. */
export function releasesWaiting(jobs: readonly JobSummary[]): { job: JobSummary; ends: WheelEndStand[] }[] {
  return jobs.flatMap((job) => {
    const ends = job.wheelEnds.filter((w) => !w.released && w.waitsForRelease);
    return ends.length > 0 && !job.stopped ? [{ job, ends }] : [];
  });
}
