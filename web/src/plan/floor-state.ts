import type { JobSummary } from '@lanternwright/contract/jobs';
import type { Booked, Floor } from '@lanternwright/contract/plan';
import { formatDate } from '../shell/words.ts';

/** Why a unit waits where it stands; null where somebody can go on. */
export function waitsFor(job: JobSummary): string | null {
  if (job.stopped) return job.stopped.reason;
  if (job.wheelEnds.some((w) => w.asks.length > 0)) return 'waits for a decision';
  if (job.estimate === 'asks') return 'waits for its owner';
  const open = job.wheelEnds.filter((w) => !w.released);
  const lacked = open.flatMap((w) => w.lacks)[0];
  if (lacked)
    return `waits for ${lacked.title.toLowerCase()}${lacked.by ? `, due ${formatDate(lacked.by)}` : ''}`;
  if (open.length > 0 && open.every((w) => w.cures)) return 'sealant cures';
  return open.length > 0 && open.every((w) => w.waitsForRelease) ? 'waits for the release' : null;
}

/** What stands in a bay: somebody said that it came, its hour has come, and nobody said that it left. */
export const standing = ({ bookings }: Floor, now: string): Booked[] =>
  bookings.filter((b) => b.cameAt !== null && b.leftAt === null && b.from <= now);

/** What should be here by its hour, and nobody said that it is. */
export const expected = ({ bookings }: Floor, now: string): Booked[] =>
  bookings.filter((b) => b.cameAt === null && b.from <= now);

/** Since when a unit stands in its bay. */
export const standsSince = ({ cameAt, from }: Booked): string =>
  cameAt !== null && cameAt > from ? cameAt : from;

/** Open jobs whose unit stands in no bay at this moment. */
export function withoutBay(floor: Floor, now: string): JobSummary[] {
  const placed = new Set(standing(floor, now).map((b) => b.unitId));
  return floor.jobs.filter((j) => !placed.has(j.unit.id));
}
