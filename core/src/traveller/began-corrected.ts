import type { StoredSide } from '../assembly/index.ts';
import { doubtedBy } from './doubts.ts';
import type { Actor } from '../access/index.ts';
import type { BodyOf } from './event.ts';
import type { Job } from './job.ts';

/**
 * What is recorded on a job when an earlier one on its axle was corrected after this one had begun from what it left:
 * its new beginning, and its own releases that could not have been given on it.
 * @param now ISO
 */
export function beganCorrected(
  job: Job,
  { position, began }: { position: string; began: StoredSide | null },
  { by, now }: { by: Actor; now: string },
): BodyOf<'began-corrected'> {
  const body = { kind: 'began-corrected', position, began } as const;
  const doubts = doubtedBy(job, body, 1, { by, now });
  return doubts.length > 0 ? { ...body, doubts } : body;
}
