import { axleNumber } from '@lanternwright/core/axle-plan';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { fold, describeEvent, recordedBy, wheelEndsEver } from '@lanternwright/core/traveller';
import { works } from '@lanternwright/core/stack';
import { VISITS_A_PAGE, type HistoryLine, type Visit } from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { patternsOf } from './find-words.ts';
import { notFound } from '../http/problem.ts';
import { seesOwner, type Viewer } from '../http/viewer.ts';
import { eventsOf } from '../jobs/record.ts';
import { NET_USED } from '../stores/net-used.ts';

/** Newest jobs of a unit whose lines are told. */
const MOST_JOBS = 20;
/** Most jobs whose lines are kept. */
const MOST_KEPT = 2_000;

/** A line with the wheel ends it is about, each as position and axle: all of the job's for its opening. */
interface Line {
  line: HistoryLine;
  about: string[];
}

const wheelEndOf = (position: string, axleId: string) => `${position} ${axleId}`;

const JOBS = `
  select j.id, j.number, j.version, u.owner_id as "ownerId",
    (select json_object_agg(number, id) from axle where unit_id = u.id and taken_out_at is null) as axles
  from unit u left join job j on j.unit_id = u.id where u.id = $1 order by j.opened_at desc limit ${MOST_JOBS}`;

const JOB = `
  select j.id, j.number, j.version, u.owner_id as "ownerId", null as axles
  from job j join unit u on u.id = j.unit_id where u.id = $1 and j.id = $2`;

/** SQL: jobs on one wheel end ($2 of axle $3), with what is said of them; $4 are patterns, $5 how works are called. */
const VISITS = `
  with visit as (
    select j.id as "jobId", j.number as "jobNumber", j.title, j.version, j.opened_at,
      ${isoTime('j.opened_at')} as "openedAt",
      ${isoTime('j.closed_at')} as "closedAt",
      w -> 'works' as works, w ->> 'who' as who, found.end_play_mm as "asFoundMm",
      last.end_play_mm as "asLeftMm", last.verdict, coalesce(used.parts, '[]') as parts,
      concat_ws(' ', j.number, j.title, to_char(j.opened_at, 'YYYY FMMonth FMDD'), w ->> 'who', last.verdict,
        (select string_agg($5 ::jsonb ->> work, ' ') from jsonb_array_elements_text(w -> 'works') work),
        used.words) as words
    from job j cross join jsonb_array_elements(j.wheel_ends) w
    left join reading found on found.job_id = j.id and found.position = $2 and found.round = 0
    left join reading last on last.job_id = j.id and last.position = $2 and last.final
    left join lateral (
      select json_agg(to_jsonb(u) order by u.number) as parts,
        string_agg(concat_ws(' ', u.number, u.title, u.batch), ' ') as words
      from (
        select m.part_id as id, p.part ->> 'number' as number, p.title, m.batch,
          ${NET_USED} ::int as quantity
        from stock_movement m join part p on p.id = m.part_id
        where m.job_id = j.id and m.position = $2 and m.what in ('used', 'returned')
        group by m.part_id, p.part, p.title, m.batch
        having ${NET_USED} > 0
      ) u
    ) used on true
    where j.unit_id = $1 and w ->> 'position' = $2 and w ->> 'axleId' = $3 ::text
  )
  select version, count(*) over () ::int as total,
    exists (select 1 from entry e where e.stream = 'job' and e.stream_id = "jobId" ::text
      and e.body ->> 'photoId' is not null) as "hasPhotos",
    json_build_object('jobId', "jobId", 'jobNumber', "jobNumber", 'title', title, 'openedAt', "openedAt",
      'closedAt', "closedAt", 'works', works, 'who', who, 'asFoundMm', "asFoundMm", 'asLeftMm', "asLeftMm",
      'verdict', verdict, 'parts', parts) as visit
  from visit where words ilike all($4 ::text[])
  order by opened_at desc, "jobNumber" desc limit $6 offset $7`;

interface JobOfUnit {
  id: string | null;
  number: number;
  version: number;
  ownerId: string;
  /** Ids of the axles under the unit now, by their numbers. */
  axles: Record<string, string> | null;
}

/** What was done on units, in words. Lines of a job are said once, and again when something was recorded on it. */
export function unitHistory(db: Database) {
  /** By job and the units of whoever read them. */
  const kept = new Map<string, { version: number; lines: Line[] }>();

  async function linesOf(
    jobId: string,
    number: number,
    version: number,
    reader: ReaderUnits,
  ): Promise<Line[]> {
    const key = [jobId, ...Object.values(reader)].join(' ');
    const known = kept.get(key);
    if (known?.version === version) return known.lines;
    const job = fold(await eventsOf(db, jobId));
    const ends = wheelEndsEver(job);
    const photos = new Map(ends.flatMap((w) => w.photos.map((p) => [p.eventId, p.photoId])));
    const lines = [...job.events].reverse().map((event): Line => {
      const { body, at, by } = event;
      const position = 'position' in body ? body.position : null;
      const on = ends.filter((w) => body.kind === 'job-opened' || w.position === position);
      return {
        line: {
          at,
          by: recordedBy(by),
          jobId,
          jobNumber: number,
          position,
          text: describeEvent(job, event, reader),
          photoId: photos.get(event.id) ?? null,
        },
        about: on.map((w) => wheelEndOf(w.position, w.axleId)),
      };
    });
    kept.delete(key);
    kept.set(key, { version: job.version, lines });
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
    return lines;
  }

  /** @throws HttpProblem 404 for a unit that is not there, or not the viewer's */
  async function jobsOf(unitId: string, viewer: Viewer): Promise<JobOfUnit[]> {
    const jobs = await prepared<JobOfUnit>(db, 'jobs-of-unit', JOBS, [unitId]);
    if (!jobs[0] || !seesOwner(viewer, jobs[0].ownerId)) throw notFound('unit');
    return jobs;
  }

  return {
    /**
     * Lines of the newest jobs, or of one.
     * @param position of the axle that is under the unit now; every one of them if left out
     */
    async lines(
      unitId: string,
      { position, job }: { position?: string | undefined; job?: string | undefined },
      viewer: Viewer,
    ): Promise<HistoryLine[]> {
      const newest = await jobsOf(unitId, viewer);
      const axleId = position && newest[0]!.axles?.[axleNumber(position)];
      const wanted = position && wheelEndOf(position, axleId ?? '');
      const jobs =
        job === undefined ? newest : await prepared<JobOfUnit>(db, 'job-of-unit', JOB, [unitId, job]);
      const all: HistoryLine[] = [];
      for (const { id, number, version } of jobs) {
        if (id === null) continue;
        for (const { line, about } of await linesOf(id, number, version, viewer.units))
          if (!wanted || about.includes(wanted)) all.push(line);
      }
      return all;
    },

    /** Jobs on a wheel end of an axle that is under the unit now, a line each. */
    async visits(
      unitId: string,
      { position, page, search }: { position: string; page: number; search: string },
      viewer: Viewer,
    ): Promise<{ total: number; rows: Visit[] }> {
      const [first] = await jobsOf(unitId, viewer);
      const axleId = first!.axles?.[axleNumber(position)];
      if (!axleId) return { total: 0, rows: [] };
      const rows = await prepared<{
        total: number;
        version: number;
        hasPhotos: boolean;
        visit: Omit<Visit, 'photos'>;
      }>(db, 'visits', VISITS, [
        ...[unitId, position, axleId, patternsOf(search), works],
        ...[VISITS_A_PAGE, (page - 1) * VISITS_A_PAGE],
      ]);
      const visits: Visit[] = [];
      for (const { version, hasPhotos, visit } of rows) {
        // A job without photos is not folded for them.
        if (!hasPhotos) {
          visits.push({ ...visit, photos: [] });
          continue;
        }
        const lines = await linesOf(visit.jobId, visit.jobNumber, version, viewer.units);
        const wanted = wheelEndOf(position, axleId);
        const photos = lines.flatMap(({ line, about }) =>
          line.photoId !== null && about.includes(wanted) ? [{ ...line, photoId: line.photoId }] : [],
        );
        visits.push({ ...visit, photos });
      }
      return { total: rows[0]?.total ?? 0, rows: visits };
    },
  };
}
