import { NEEDING_A_PAGE, type FleetOverview } from '@lanternwright/contract/fleet';
import type { Database } from '../database/connect.ts';
import { keptWhileStill } from '../database/kept-while-still.ts';
import { prepared } from '../database/prepared.ts';
import { jsonWith, type JsonText } from '../http/serve.ts';
import type { Viewer } from '../http/viewer.ts';
import { OPEN_FOLLOW_UPS } from '../jobs/follow-ups.ts';
import type { Clock } from '../shop/clock.ts';
import { ON_ITS_UNIT, UNIT_SUMMARY } from './summary.ts';

/**
 * SQL: what needs something, the first first, and every owner's counts, as one row; $1 is today, $2 whether all owners are
 * seen, $3 whose are. A rank is a grade and, within it, the worst end play, the oldest
 * follow-up, the work that is longest overdue: numbers, since thousands of names are slow to sort.
 */
export const NEEDING = `
  with follow_up as (${OPEN_FOLLOW_UPS('$1 ::date')}),
  ends as materialized (
    select w.unit_id, w.state, w.end_play_mm from wheel_end w
    where w.state in ('out-of-service', 'loose', 'tight', 'repeat', 'working')
      and ${ON_ITS_UNIT('w')}
  ),
  need as (
    select unit_id, 0 as follow_up,
      array_position(array['out-of-service', 'loose', 'tight', 'repeat', 'working'], state) * 1e6 ::float8
        + case state when 'loose' then 1e3 - end_play_mm else 0 end as rank
    from ends
    union all
    select f.unit_id, 1, 6e6 ::float8 + (f.by_date - date '1970-01-01') from follow_up f where f.state <> 'early'
    union all
    select d.unit_id, 0, 7e6 ::float8 + (d.due_on - date '1970-01-01') from unit_due d where d.due_on < $1 ::date
  ),
  needing as materialized (
    select n.unit_id, u.owner_id, n.rank, n.follow_ups
    from (select unit_id, min(rank) as rank, sum(follow_up) ::int as follow_ups from need group by unit_id) n
    join unit u on u.id = n.unit_id
    where $2 ::boolean or u.owner_id = any($3 ::uuid[])
  )
  select
    (select coalesce(json_agg(json_build_array(n.unit_id, n.follow_ups) order by n.rank, n.unit_id), '[]')
      from needing n) as needing,
    (select coalesce(json_agg(json_build_object('id', o.id, 'name', o.name, 'units', c.units,
        'needing', coalesce(m.needing, 0)) order by o.name collate natural_order, o.id), '[]')
      from owner o
      join (select owner_id, count(*) ::int as units from unit group by 1) c on c.owner_id = o.id
      left join (select owner_id, count(*) ::int as needing from needing group by 1) m on m.owner_id = o.id
      where $2 ::boolean or o.id = any($3 ::uuid[])) as owners,
    (select json_build_object('units', (select count(*) from unit), 'standing', coalesce(json_object_agg(s.state, s.n), '{}'))
      from (select state, count(*) as n from ends where state <> 'repeat' group by 1) s) as fleet`;

/** SQL: units ($1) as lists show them, in this order, with their follow-ups ($2) and how many works are due before $3, as JSON. */
export const NEEDING_UNITS = `
  select coalesce(json_agg(json_build_object('unit', ${UNIT_SUMMARY}, 'followUps', n.follow_ups,
      'due', (select count(*) from due d where d.unit_id = u.id and d.due_on < $3 ::date)) order by n.nth), '[]') ::text
    as needing
  from unnest($1 ::uuid[], $2 ::int[]) with ordinality as n (id, follow_ups, nth)
  join unit u on u.id = n.id join owner o on o.id = u.owner_id`;

interface Needing {
  needing: [unitId: string, followUps: number][];
  owners: FleetOverview['owners'];
  fleet: FleetOverview['fleet'];
}

/** What needs something first, and whose units there are. */
export function fleetOverview(db: Database, clock: Clock) {
  const needingOf = async (from: Database, who: unknown[]) =>
    (await prepared<Needing>(from, 'fleet-needing', NEEDING, who))[0]!;
  const allNeeding = keptWhileStill((from, today) => needingOf(from, [today, true, []]));
  return async (page: number, { owners }: Pick<Viewer, 'owners'>, from = db): Promise<JsonText> => {
    const today = clock.today();
    const found = await (owners === 'all'
      ? allNeeding(from, today)
      : needingOf(from, [today, false, owners]));
    const shown = found.needing.slice((page - 1) * NEEDING_A_PAGE, page * NEEDING_A_PAGE);
    const [row] = await prepared<{ needing: string }>(from, 'fleet-needing-units', NEEDING_UNITS, [
      shown.map(([id]) => id),
      shown.map(([, followUps]) => followUps),
      today,
    ]);
    const total = found.owners.reduce((sum, o) => sum + o.needing, 0);
    const { owners: allOwners, fleet } = found;
    return jsonWith({ total, owners: allOwners, fleet } satisfies Omit<FleetOverview, 'needing'>, row!);
  };
}
