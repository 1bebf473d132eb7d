import type { Due, FollowUp, ReadingRow, UnitDetail, UnitSummary } from '@lanternwright/contract/fleet';
import type { PlacedAxle } from '@lanternwright/core/axle-plan';
import { dueState, retorqueState } from '@lanternwright/core/interval';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound } from '../http/problem.ts';
import { seesOwner, type Viewer } from '../http/viewer.ts';
import { dueOfUnit } from '../plan/due-sql.ts';
import type { Clock } from '../shop/clock.ts';
import { ON_ITS_UNIT, TOTAL_HOURS, TOTAL_KM, UNIT_SUMMARY } from './summary.ts';

/** Everything of one unit in one answer of the database, its lists as JSON. */
export const UNIT_PAGE = `
  select ${UNIT_SUMMARY} as summary, u.version, u.duty, u.remarks, ${TOTAL_KM} as "totalKm", ${TOTAL_HOURS} as "totalHours",
    (select coalesce(json_agg(json_build_object('axle', json_build_object('id', a.id, 'number', a.number, 'role', a.role,
        'wheels', a.wheels, 'brake', a.brake, 'sheet', a.sheet), 'takenOutAt', ${isoTime('a.taken_out_at')})
        order by a.taken_out_at, a.number), '[]')
      from axle a where a.unit_id = u.id) as axles,
    (select coalesce(json_agg(json_build_object('jobId', r.job_id, 'axleId', r.axle_id, 'position', r.position,
        'round', r.round, 'endPlayMm', r.end_play_mm, 'rangeMm', r.range_mm, 'cycles', r.cycles, 'verdict', r.verdict,
        'at', ${isoTime('r.at')}, 'by', r.by_name, 'km', r.km, 'final', r.final) order by r.at, r.round), '[]')
      from reading r where r.unit_id = u.id) as readings,
    (select coalesce(json_agg(json_build_object('jobId', f.job_id, 'position', f.position, 'kind', f.kind, 'nth', f.nth,
        'what', f.what, 'fromKm', f.from_km, 'byKm', f.by_km, 'byHours', f.by_hours,
        'byDate', f.by_date, 'offsetKm', f.offset_km, 'offsetHours', f.offset_hours)
        order by f.by_date, f.position, f.kind, f.nth), '[]')
      from open_follow_up f where f.unit_id = u.id and ${ON_ITS_UNIT('f')}) as "followUps",
    (select coalesce(json_agg(json_build_object('id', j.id, 'number', j.number, 'title', j.title,
        'openedAt', ${isoTime('j.opened_at')}, 'closedAt', ${isoTime('j.closed_at')}) order by j.opened_at desc), '[]')
      from job j where j.unit_id = u.id) as jobs,
    ${dueOfUnit('u.id')} as due
  from unit u join owner o on o.id = u.owner_id where u.id = $1`;

interface UnitPageRow extends Pick<UnitDetail, 'version' | 'duty' | 'remarks' | 'jobs'> {
  summary: UnitSummary;
  totalKm: number | null;
  totalHours: number | null;
  axles: { axle: PlacedAxle; takenOutAt: string | null }[];
  readings: ReadingRow[];
  due: Omit<Due, 'state'>[];
  followUps: (Omit<FollowUp, 'state'> & { offsetKm: number | null; offsetHours: number | null })[];
}

const less = (total: number | null, offset: number | null) => (total === null ? null : total - (offset ?? 0));

/** One unit with all that is known of it. */
export function unitPage(db: Database, clock: Clock) {
  /** @throws HttpProblem 404 where there is none that they may see */
  return async (id: string, viewer: Viewer): Promise<UnitDetail> => {
    const [row] = await prepared<UnitPageRow>(db, 'unit-page', UNIT_PAGE, [id]);
    if (!row || !seesOwner(viewer, row.summary.owner.id)) throw notFound('unit');
    const present = row.axles.filter((a) => a.takenOutAt === null).map((a) => a.axle);
    const standing = new Set(present.map((a) => a.id));
    return {
      ...row.summary,
      version: row.version,
      duty: row.duty,
      remarks: viewer.owners === 'all' ? row.remarks : '',
      axles: present,
      readings: row.readings.filter((r) => standing.has(r.axleId)),
      takenOut: row.axles.flatMap(({ axle, takenOutAt }) =>
        takenOutAt === null
          ? []
          : [{ axle, takenOutAt, readings: row.readings.filter((r) => r.axleId === axle.id) }],
      ),
      followUps: row.followUps.map(({ offsetKm, offsetHours, ...due }) => {
        // As the meters that it was set by would read.
        const meters = { km: less(row.totalKm, offsetKm), hours: less(row.totalHours, offsetHours) };
        return { ...due, state: retorqueState(due, meters, clock.today()) };
      }),
      due: row.due.map((d) => ({
        ...d,
        state: dueState({ date: d.dueOn, earliest: d.earliest }, clock.today()),
      })),
      jobs: row.jobs,
    };
  };
}
