import type { Transaction } from 'sequelize';
import type { JobSummary, WheelEndStand } from '@lanternwright/contract/jobs';
import {
  AS_FOUND,
  isClosed,
  lastTrace,
  lastVerdict,
  meterKm,
  openQuestions,
  readingsOf,
  stageAtHand,
  stageStates,
  stepAtHand,
  verdictOf,
  wheelEndAt,
  type EventBody,
  type Job,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';

function standOf(w: WheelEnd): WheelEndStand {
  const states = stageStates(w);
  const troubled = Object.entries(states).find(([, state]) => state === 'trouble')?.[0];
  const verdict = lastVerdict(w)?.result.verdict;
  const outOfBand = states.verify === 'trouble' && (verdict === 'loose' || verdict === 'tight');
  return {
    position: w.position,
    stage: stageAtHand(w),
    released: w.release !== null,
    waitsForRelease: w.release === null && stepAtHand(w) === null,
    trouble: outOfBand ? verdict : (troubled ?? null),
    who: lastTrace(w)?.by.name ?? null,
    asks: openQuestions(w),
  };
}

function readingRows(job: Job, w: WheelEnd) {
  const rows = [AS_FOUND, ...w.rounds.map((r) => r.number)].flatMap((number) => {
    const result = verdictOf(w, number);
    const last = readingsOf(w, number).at(-1);
    if (!result || !last) return [];
    return [
      {
        jobId: job.id,
        position: w.position,
        round: number,
        unitId: job.unitId,
        endPlayMm: result.endPlayMm,
        rangeMm: result.rangeMm,
        cycles: result.cyclesMm.length,
        verdict: result.verdict,
        at: new Date(last.at),
        byName: last.by.name,
        km: meterKm(job.meter),
      },
    ];
  });
  return rows.map((row, i) => ({ ...row, final: i === rows.length - 1 }));
}

function followUpRows(job: Job, w: WheelEnd) {
  if (!w.release) return [];
  const { followUp } = w.release;
  const at = { jobId: job.id, position: w.position, unitId: job.unitId };
  const when = (trace: { at: string } | null | undefined) => (trace ? new Date(trace.at) : null);
  const others = w.release.alsoDue.map((f, i, all) => {
    const nth = all.slice(0, i).filter((x) => x.kind === f.kind).length;
    const done = w.followUpsDone.find((d) => d.followUp === f.kind && d.nth === nth);
    return { ...at, ...f, nth, fromKm: null, byKm: null, doneAt: when(done) };
  });
  const retorque = followUp && {
    ...at,
    kind: 'retorque' as const,
    what: '',
    nth: 0,
    ...followUp,
    doneAt: when(w.retorque),
  };
  return [...(retorque ? [retorque] : []), ...others];
}

function closedAt(job: Job): Date | null {
  if (!isClosed(job)) return null;
  const releases = job.wheelEnds.map((w) => w.release?.at ?? '').sort();
  return new Date(job.stopped?.at ?? releases.at(-1)!);
}

function estimateOf({ money }: Job): JobSummary['estimate'] {
  if (!money.estimate) return 'none';
  return money.answer ? 'answered' : 'asks';
}

function jobRow(job: Job) {
  return {
    version: job.version,
    closedAt: closedAt(job),
    stopped: job.stopped && { as: job.stopped.as, reason: job.stopped.reason },
    estimate: estimateOf(job),
    wheelEnds: job.wheelEnds.map(standOf),
  };
}

/** The wheel ends an event says something about. */
function touched(job: Job, body: EventBody): WheelEnd[] {
  const about = body.kind === 'correction' ? job.events.find((e) => e.id === body.corrects)?.body : body;
  if (about?.kind === 'job-opened') return [...job.wheelEnds];
  const w = about && 'position' in about ? wheelEndAt(job, about.position) : undefined;
  return w ? [w] : [];
}

const refreshWheelEnds = `
  insert into wheel_end (unit_id, position, verdict, end_play_mm, read_at, read_km, open_job_id, out_of_service)
  select w.unit_id, w.position, r.verdict, r.end_play_mm, r.at, r.km, o.id, s.stopped
  from (
    select distinct j.unit_id, e ->> 'position' as position
    from job j, jsonb_array_elements(j.wheel_ends) e where :unitId is null or j.unit_id = :unitId ::uuid
  ) w
  left join lateral (
    select verdict, end_play_mm, at, km from reading
    where unit_id = w.unit_id and position = w.position order by at desc, round desc limit 1
  ) r on true
  left join lateral (
    select j.id from job j, jsonb_array_elements(j.wheel_ends) e
    where j.unit_id = w.unit_id and j.closed_at is null
      and e ->> 'position' = w.position and not (e ->> 'released')::boolean limit 1
  ) o on true
  left join lateral (
    select case when j.stopped ->> 'as' = 'out-of-service' and not (e ->> 'released')::boolean then j.stopped end as stopped
    from job j, jsonb_array_elements(j.wheel_ends) e
    where j.unit_id = w.unit_id and e ->> 'position' = w.position
      and j.closed_at is not null and coalesce(j.stopped ->> 'as', '') <> 'void'
    order by j.closed_at desc, j.number desc limit 1
  ) s on true
  on conflict (unit_id, position) do update set
    verdict = excluded.verdict, end_play_mm = excluded.end_play_mm, read_at = excluded.read_at,
    read_km = excluded.read_km, open_job_id = excluded.open_job_id, out_of_service = excluded.out_of_service`;

/** Writes what lists and figures need, for the wheel ends an event touched. In the event's transaction. */
export async function project(
  db: Database,
  job: Job,
  body: EventBody,
  transaction: Transaction,
): Promise<void> {
  await db.job.update(jobRow(job), { where: { id: job.id }, transaction });
  for (const w of touched(job, body)) {
    const at = { jobId: job.id, position: w.position };
    await db.reading.destroy({ where: at, transaction });
    await db.reading.bulkCreate(readingRows(job, w), { transaction });
    await db.followUp.destroy({ where: at, transaction });
    await db.followUp.bulkCreate(followUpRows(job, w), { transaction });
  }
  await db.sequelize.query(refreshWheelEnds, { replacements: { unitId: job.unitId }, transaction });
}

const updateJobs = `
  update job set version = r.version, closed_at = r."closedAt", wheel_ends = r."wheelEnds", stopped = nullif(r.stopped, 'null'::jsonb),
    estimate = r.estimate
  from jsonb_to_recordset($1 ::jsonb) as r(id uuid, version integer, "closedAt" timestamptz, "wheelEnds" jsonb,
    stopped jsonb, estimate text)
  where job.id = r.id`;

async function projectMany(db: Database, jobs: readonly Job[], transaction: Transaction): Promise<void> {
  const each = <T>(rows: (job: Job, w: WheelEnd) => T[]) =>
    jobs.flatMap((job) => job.wheelEnds.flatMap((w) => rows(job, w)));
  await db.reading.bulkCreate(each(readingRows), { transaction });
  await db.followUp.bulkCreate(each(followUpRows), { transaction });
  const rows = jobs.map((job) => ({ id: job.id, ...jobRow(job) }));
  await db.sequelize.query(updateJobs, { bind: [JSON.stringify(rows)], transaction });
}

const BATCH = 200;

/** Throws every projection away and writes it again from the given jobs, in one transaction. */
export async function rebuild(
  db: Database,
  jobs: Iterable<Job> | AsyncIterable<Job>,
  transaction: Transaction,
): Promise<number> {
  await db.sequelize.query('delete from reading; delete from follow_up; delete from wheel_end', {
    transaction,
  });
  let count = 0;
  let batch: Job[] = [];
  for await (const job of jobs) {
    batch.push(job);
    count += 1;
    if (batch.length < BATCH) continue;
    await projectMany(db, batch, transaction);
    batch = [];
  }
  await projectMany(db, batch, transaction);
  await db.sequelize.query(refreshWheelEnds, { replacements: { unitId: null }, transaction });
  return count;
}
