import { QueryTypes } from 'sequelize';
import { FOLLOW_UPS_A_PAGE, type ShopFollowUp, type ShopFollowUps } from '@lanternwright/contract/jobs';
import type { Database } from '../database/connect.ts';
import { ON_ITS_UNIT } from '../fleet/summary.ts';
import type { Viewer } from '../http/viewer.ts';
import type { Clock } from '../shop/clock.ts';

/**
 * SQL: every open follow-up on axles that a unit has, with how it stands; the rule is the one of `retorqueState` in core,
 * here so that the database can sort and page by it. @param today what names the day
 */
export const OPEN_FOLLOW_UPS = (today: string) => `
    select f.unit_id, f.job_id, f.position, f.kind, f.nth, f.what, f.from_km, f.by_km, f.by_hours, f.by_date,
      km.meter_km, h.meter_hours,
      case when f.by_date < ${today} or f.by_km < km.meter_km or f.by_hours < h.meter_hours then 'overdue'
        when f.from_km <= km.meter_km or f.by_hours = h.meter_hours then 'due' else 'early' end as state
    from open_follow_up f
    left join lateral (
      select total_km - coalesce(f.offset_km, 0) as meter_km from meter_reading
      where unit_id = f.unit_id and total_km is not null order by date desc, nth desc limit 1
    ) km on true
    left join lateral (
      select total_hours - coalesce(f.offset_hours, 0) as meter_hours from meter_reading
      where f.by_hours is not null and unit_id = f.unit_id and total_hours is not null
      order by date desc, nth desc limit 1
    ) h on true
    where ${ON_ITS_UNIT('f')}`;

/** Every open follow-up and every wheel end out of service. */
const OPEN = `
  open as (${OPEN_FOLLOW_UPS(':today')}
    union all
    select w.unit_id, null, w.position, 'out-of-service', 0, w.out_of_service ->> 'reason', null, null, null, null, null, null, 'due'
    from wheel_end w where w.out_of_service is not null and ${ON_ITS_UNIT('w')}
  ),
  seen as (
    select o.*, u.name as unit_name, u.kind as unit_kind, w.id as owner_id, w.name as owner_name
    from open o join unit u on u.id = o.unit_id join owner w on w.id = u.owner_id
    where :all or w.id in (:owners)
  )`;

const PAGE = `
  with ${OPEN}
  select o.job_id as "jobId", o.position, o.kind, o.nth, o.what, o.from_km as "fromKm", o.by_km as "byKm", o.by_hours as "byHours",
    to_char(o.by_date, 'YYYY-MM-DD') as "byDate", o.meter_km as "meterKm", o.meter_hours as "meterHours", o.state,
    json_build_object('id', o.unit_id, 'name', o.unit_name, 'kind', o.unit_kind,
      'owner', json_build_object('id', o.owner_id, 'name', o.owner_name)) as unit
  from seen o
  order by array_position(array['overdue', 'due', 'early'], o.state), o.by_date nulls first, o.unit_name, o.position, o.kind, o.nth
  limit :limit offset :offset`;

const COUNTS = `with ${OPEN}
  select count(*)::int as total, (count(*) filter (where state = 'overdue'))::int as overdue from seen`;

const NOBODY = '00000000-0000-0000-0000-000000000000';

/** The follow-ups of whatever somebody may see, a page at a time, overdue first. */
export function shopFollowUps(clock: Clock) {
  return async (page: number, { owners }: Pick<Viewer, 'owners'>, db: Database): Promise<ShopFollowUps> => {
    const replacements = {
      today: clock.today(),
      all: owners === 'all',
      // A list must not be empty in SQL; nobody has this id.
      owners: owners === 'all' || owners.length === 0 ? [NOBODY] : owners,
      limit: FOLLOW_UPS_A_PAGE,
      offset: (page - 1) * FOLLOW_UPS_A_PAGE,
    };
    const [rows, [counts]] = await Promise.all([
      db.sequelize.query<ShopFollowUp>(PAGE, { type: QueryTypes.SELECT, replacements }),
      db.sequelize.query<{ total: number; overdue: number }>(COUNTS, {
        type: QueryTypes.SELECT,
        replacements,
      }),
    ]);
    return { rows, ...counts! };
  };
}
export type FollowUps = ReturnType<typeof shopFollowUps>;
