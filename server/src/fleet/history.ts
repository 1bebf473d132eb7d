import { axleNumber } from '@lanternwright/core/axle-plan';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { fold, describeEvent, recordedBy } from '@lanternwright/core/traveller';
import type { HistoryLine } from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { notFound } from '../http/problem.ts';
import { seesOwner, type Viewer } from '../http/viewer.ts';
import { eventsOf } from '../jobs/record.ts';

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
    const photos = new Map(job.wheelEnds.flatMap((w) => w.photos.map((p) => [p.eventId, p.photoId])));
    const lines = [...job.events].reverse().map((event): Line => {
      const { body, at, by } = event;
      const position = 'position' in body ? body.position : null;
      const on = job.wheelEnds.filter((w) => body.kind === 'job-opened' || w.position === position);
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

  /** @param position of the axle that is under the unit now; every one of them if left out */
  return async (unitId: string, position: string | undefined, viewer: Viewer): Promise<HistoryLine[]> => {
    const jobs = await prepared<JobOfUnit>(db, 'jobs-of-unit', JOBS, [unitId]);
    if (!jobs[0] || !seesOwner(viewer, jobs[0].ownerId)) throw notFound('unit');
    const axleId = position && jobs[0].axles?.[axleNumber(position)];
    const wanted = position && wheelEndOf(position, axleId ?? '');
    const all: HistoryLine[] = [];
    for (const { id, number, version } of jobs) {
      if (id === null) continue;
      for (const { line, about } of await linesOf(id, number, version, viewer.units))
        if (!wanted || about.includes(wanted)) all.push(line);
    }
    return all;
  };
}
