import { canonicalJson, jobAggregate, type JobRows } from '@lanternwright/core/record';
import type { Job } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { insertRows } from '../record/insert-rows.ts';
import type { Projected } from './record.ts';

const refreshWheelEnds = `
  insert into wheel_end (unit_id, axle_id, position, verdict, end_play_mm, read_at, read_km, open_job_id, out_of_service)
  select w.unit_id, w.axle_id, w.position, r.verdict, r.end_play_mm, r.at, r.km, o.id, s.stopped
  from (
    select distinct j.unit_id, (e ->> 'axleId') ::uuid as axle_id, e ->> 'position' as position
    from job j, jsonb_array_elements(j.wheel_ends) e where :unitId is null or j.unit_id = :unitId ::uuid
  ) w
  left join lateral (
    select verdict, end_play_mm, at, km from reading
    where unit_id = w.unit_id and axle_id = w.axle_id and position = w.position order by at desc, round desc limit 1
  ) r on true
  left join lateral (
    select j.id from job j, jsonb_array_elements(j.wheel_ends) e
    where j.unit_id = w.unit_id and j.closed_at is null and (e ->> 'axleId') ::uuid = w.axle_id
      and e ->> 'position' = w.position and not (e ->> 'released')::boolean limit 1
  ) o on true
  left join lateral (
    select case when j.stopped ->> 'as' = 'out-of-service' and not (e ->> 'released')::boolean then j.stopped end as stopped
    from job j, jsonb_array_elements(j.wheel_ends) e
    where j.unit_id = w.unit_id and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position
      and j.closed_at is not null and coalesce(j.stopped ->> 'as', '') <> 'void'
    order by j.closed_at desc, j.number desc limit 1
  ) s on true
  on conflict (axle_id, position) do update set
    verdict = excluded.verdict, end_play_mm = excluded.end_play_mm, read_at = excluded.read_at,
    read_km = excluded.read_km, open_job_id = excluded.open_job_id, out_of_service = excluded.out_of_service`;

/** Writes what is known of the wheel ends of a unit, or of all, from its jobs and readings. */
export async function projectWheelEnds(db: Database, unitId: string | null): Promise<void> {
  await db.sequelize.query(refreshWheelEnds, { replacements: { unitId } });
}

const updateJob = `
  update job set version = r.version, closed_at = r."closedAt", wheel_ends = r."wheelEnds",
    stopped = nullif(r.stopped, 'null'::jsonb), estimate = r.estimate
  from jsonb_to_record($1 ::jsonb) as r(version integer, "closedAt" timestamptz, "wheelEnds" jsonb, stopped jsonb,
    estimate text)
  where job.id = $2`;

const differ = (a: unknown, b: unknown) => canonicalJson(a) !== canonicalJson(b);

/** What the states of a unit's wheel ends hang on. */
const standing = ({ job, readings }: JobRows) => ({
  readings,
  closed: job.closedAt,
  stopped: job.stopped,
  wheelEnds: job.wheelEnds.map(({ axleId, position, released }) => ({ axleId, position, released })),
});

/**
 * Writes what lists and figures keep of a job, as far as it changed, in the open transaction.
 * @param before the job as its rows stand; null where there are none yet
 * @returns the rows as they are now
 */
export async function project(db: Database, job: Job, before: Projected | null): Promise<JobRows> {
  const rows = jobAggregate.project(job);
  const { id: jobId, unitId } = job;
  if (differ(rows.readings, before?.rows.readings ?? [])) {
    await db.reading.destroy({ where: { jobId } });
    await insertRows(db, 'reading', rows.readings);
  }
  if (differ(rows.followUps, before?.rows.followUps ?? [])) {
    await db.followUp.destroy({ where: { jobId } });
    await insertRows(db, 'follow_up', rows.followUps);
  }
  await db.sequelize.query(updateJob, { bind: [JSON.stringify(rows.job), jobId] });
  if (!before || differ(standing(rows), standing(before.rows))) await projectWheelEnds(db, unitId);
  return rows;
}
