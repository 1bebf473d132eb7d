import { wheelEndEver, type Job } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';

const NEXT_ON = `
  select j.id, j.number from job j, jsonb_array_elements(j.wheel_ends) e
  where j.unit_id = (select unit_id from wheel_end where axle_id = $1 and position = $2)
    and (e ->> 'axleId') ::uuid = $1 and e ->> 'position' = $2 and j.number > $3
  order by j.number limit 1`;

/** The next job that has a wheel end in it, by its number; null where there is none. */
export async function nextOn(db: Database, axleId: string, position: string, after: number) {
  const [row] = await prepared<{ id: string; number: number }>(db, 'next-job-on', NEXT_ON, [
    axleId,
    position,
    after,
  ]);
  return row ?? null;
}

/** Whether a later job than this, of this number, has a wheel end in it that was left out of this one. */
export async function isInLaterJob(
  db: Database,
  job: Job,
  number: number,
  position: string,
): Promise<boolean> {
  const w = wheelEndEver(job, position);
  return !!w?.leftOut && (await nextOn(db, w.axleId, position, number)) !== null;
}
