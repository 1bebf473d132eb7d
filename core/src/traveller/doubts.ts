import { againstRelease } from './against-release.ts';
import type { Actor, BodyOf } from './event.ts';
import { foldTo } from './fold.ts';
import { wheelEndAt, type Job } from './job.ts';

/** Id of a record while it is only looked at. */
const NOT_STORED = '00000000-0000-4000-8000-000000000000';

/**
 * Releases of a job that nobody could have given, had the record been as it is put right to. Positions.
 * @param from place of the record that is put right: releases before it are not looked at
 */
export function doubtedBy(
  job: Job,
  body: BodyOf<'correction' | 'began-corrected'>,
  from: number,
  { by, now }: { by: Actor; now: string },
): string[] {
  const stands = { id: NOT_STORED, jobId: job.id, version: job.version + 1, at: now, by, body };
  const events = [...job.events, stands];
  return job.wheelEnds.flatMap(({ position, release }) => {
    if (!release || release.inDoubt || from >= release.seq) return [];
    const then = wheelEndAt(foldTo(events, release.seq), position)!;
    const overridden = new Set(release.overridden.map((o) => o.code));
    return againstRelease(then).some((o) => o.guard === 'never' && !overridden.has(o.code)) ? [position] : [];
  });
}
