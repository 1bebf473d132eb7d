import { againstRelease } from './against-release.ts';
import type { Actor } from '../access/index.ts';
import type { BodyOf, StoredEvent } from './event.ts';
import { foldTo } from './fold.ts';
import { wheelEndAt, type Job, type Release } from './job.ts';
import type { Objection } from './objection.ts';

/** Id of a record while it is only looked at. */
const NOT_STORED = '00000000-0000-4000-8000-000000000000';

/** What nobody releases a wheel end in spite of, as it stood before its release and by the rules of that. */
function neverAt(events: readonly StoredEvent[], position: string, { seq, rules }: Release): Objection[] {
  const then = wheelEndAt(foldTo(events, seq), position)!;
  return againstRelease({ ...then, rules }).filter((o) => o.guard === 'never');
}

/**
 * Releases of a job that nobody could have given, had the record been as it is put right to: by the rules that they
 * were given by, and for nothing that stood against them before. Positions.
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
    const then = neverAt(events, position, release);
    if (then.length === 0) return [];
    const before = new Set(neverAt(job.events, position, release).map((o) => JSON.stringify(o)));
    const overridden = new Set(release.overridden.map((o) => o.code));
    return then.some((o) => !before.has(JSON.stringify(o)) && !overridden.has(o.code)) ? [position] : [];
  });
}
