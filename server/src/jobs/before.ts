import type { JobDetail } from '@lanternwright/contract/jobs';
import { upcast, type Actor, type EventBody } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';

/** Jobs of a unit that are looked back at, the newest first. */
const MOST_JOBS = 40;

/**
 * SQL: releases, packings and fillings of the unit $1 in other jobs than $2, and what was put right, the oldest first.
 * `offset 0` has each job's own entries looked up: joined freely, the whole record was read under row-level security.
 */
const BEFORE = `
  select e.id, e.at, e.by, e.body, j.ends
  from (
    select id, (select json_object_agg(w ->> 'position', w ->> 'axleId') from jsonb_array_elements(wheel_ends) w) as ends
    from job where unit_id = $1 and id <> $2 order by opened_at desc limit ${MOST_JOBS}
  ) j cross join lateral (
    select e.id, ${isoTime('e.at')} as at, e.by, e.body from entry e
    where e.stream = 'job' and e.stream_id = j.id ::text
      and (e.body ->> 'kind' in ('wheel-end-released', 'correction')
        or e.body ->> 'kind' = 'step-recorded' and e.body #>> '{data,kind}' in ('pack', 'fill'))
    offset 0
  ) e order by e.at`;

interface Row {
  id: string;
  at: string;
  by: Actor;
  body: EventBody;
  /** Ids of the axles of its job, by position. */
  ends: Record<string, string>;
}

type Before = Pick<JobDetail, 'releasedBefore'> & Required<Pick<JobDetail, 'lubricantBefore'>>;

/** How the wheel ends of these axles last left other jobs, and what they were packed or filled with last. */
export async function jobsBefore(
  db: Database,
  unitId: string,
  jobId: string,
  axleIds: ReadonlySet<string>,
): Promise<Before> {
  const rows = (await prepared<Row>(db, 'jobs-before', BEFORE, [unitId, jobId])).map((row) => ({
    ...row,
    body: upcast(row.body) as EventBody,
  }));
  const corrected = new Map(
    rows.flatMap(({ body }) =>
      body.kind === 'correction' ? [[body.corrects, body.replacement] as const] : [],
    ),
  );
  const released = new Map<string, Before['releasedBefore'][number]>();
  const lubricants = new Map<string, Before['lubricantBefore'][number]>();
  for (const { id, at, by, ends, ...row } of rows) {
    const body = corrected.has(id) ? corrected.get(id) : row.body;
    if (!body || !('position' in body) || !axleIds.has(ends[body.position] ?? '')) continue;
    const { position } = body;
    if (body.kind === 'wheel-end-released') {
      const { overridden, overrideReason = null } = body;
      released.set(position, { position, at, by: by.name, overridden, overrideReason });
    }
    const data = body.kind === 'step-recorded' ? body.data : null;
    if (data?.kind === 'pack' || data?.kind === 'fill')
      lubricants.set(position, { position, name: data.lubricant, at });
  }
  return { releasedBefore: [...released.values()], lubricantBefore: [...lubricants.values()] };
}
