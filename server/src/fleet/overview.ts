import {
  NEEDING_A_PAGE,
  standingStates,
  type FleetOverview,
  type NeedingUnit,
} from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import type { Viewer } from '../http/viewer.ts';
import { OPEN_FOLLOW_UPS } from '../jobs/follow-ups.ts';
import type { Clock } from '../shop/clock.ts';
import { STANDING, toSummary, UNIT_ROW, type UnitRow } from './fleet-page.ts';

/** SQL: units that need something, each with how grave it is; $1 is today, $2 whether all owners are seen, $3 whose are. */
const NEEDING = `
  with follow_up as (${OPEN_FOLLOW_UPS('$1 ::date')}),
  need as (
    select w.unit_id, array_position(array['out-of-service', 'loose', 'tight', 'repeat', 'working'], w.state) as grade,
      0 as follow_up
    from wheel_end w join axle a on a.id = w.axle_id and a.taken_out_at is null
    where w.state in ('out-of-service', 'loose', 'tight', 'repeat', 'working')
    union all select f.unit_id, 6, 1 from follow_up f where f.state <> 'early'
    union all select d.unit_id, 7, 0 from unit_due d where d.due_on < $1 ::date
  ),
  needing as (
    select n.unit_id, min(n.grade) as grade, sum(n.follow_up) ::int as follow_ups from need n group by n.unit_id
  )`;

/** SQL: what needs something; $4 are left out, $5 shown. */
export const NEEDING_PAGE = `${NEEDING}
  select n.follow_ups as "followUps", ${UNIT_ROW},
    (select count(*) ::int from due d where d.unit_id = n.unit_id and d.due_on < $1 ::date) as due
  from (
    select n.*, row_number() over (order by n.grade, u.name collate natural_order, u.id) as place
    from needing n join unit u on u.id = n.unit_id
    where $2 ::boolean or u.owner_id = any($3 ::uuid[])
    order by place offset $4 limit $5
  ) n join unit u on u.id = n.unit_id join owner o on o.id = u.owner_id
  order by n.place`;

/** SQL: every owner with their counts. */
export const NEEDING_OWNERS = `${NEEDING}
  select o.id, o.name, count(u.id) ::int as units, count(n.unit_id) ::int as needing
  from owner o join unit u on u.owner_id = o.id left join needing n on n.unit_id = u.id
  where $2 ::boolean or o.id = any($3 ::uuid[])
  group by o.id order by o.name collate natural_order, o.id`;

/** What needs something first, and whose units there are. */
export function fleetOverview(db: Database, clock: Clock) {
  return async (page: number, { owners }: Pick<Viewer, 'owners'>, from = db): Promise<FleetOverview> => {
    const who = [clock.today(), owners === 'all', owners === 'all' ? [] : owners];
    const [rows, counts, [fleet]] = await Promise.all([
      prepared<UnitRow & Omit<NeedingUnit, 'unit'>>(from, 'fleet-needing', NEEDING_PAGE, [
        ...who,
        (page - 1) * NEEDING_A_PAGE,
        NEEDING_A_PAGE,
      ]),
      prepared<FleetOverview['owners'][number]>(from, 'fleet-owners', NEEDING_OWNERS, who),
      prepared<FleetOverview['fleet']>(from, 'fleet-standing', STANDING, [standingStates]),
    ]);
    return {
      needing: rows.map(({ followUps, due, ...row }) => ({ unit: toSummary(row), followUps, due })),
      total: counts.reduce((sum, o) => sum + o.needing, 0),
      owners: counts,
      fleet: fleet!,
    };
  };
}
