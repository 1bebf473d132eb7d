import type { WheelEnd } from './job.ts';

/** Whether the metal of a wheel end is as the job found it: nothing was moved, and nothing broken that is not made again. */
export function isAsFound({ firstBuild, side, records }: WheelEnd): boolean {
  if (firstBuild) return records.length === 0;
  const moved = Object.values(side.layers).some((at) => at.moved && at.moved.seq > 0);
  return !moved && Object.entries(side.broken).every(([id, mark]) => mark.seq === 0 || side.made[id]);
}
