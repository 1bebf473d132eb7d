import { QueryTypes } from 'sequelize';
import { addDays } from '@lanternwright/core/interval';
import { COUNT_AFTER_DAYS, COUNTS_SHOWN, PICKS_SHOWN, type StoreDay } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { isoTime } from '../database/sql-time.ts';
import type { Clock } from '../shop/clock.ts';

/** SQL: bookings of a day ($1) in the shop's zone ($2) whose job is not closed, with what is kept for it by part. */
const PICKS = `
  select b.id as "bookingId", j.id as "jobId", j.number as "jobNumber", u.name as unit, b.bay_id as "bayId",
    ${isoTime('lower(b.during)')} as "from",
    (select coalesce(json_agg(line order by line ->> 'number'), '[]') from (
      select json_build_object('partId', p.id, 'number', p.part ->> 'number', 'title', p.title,
        'positions', array_agg(distinct r.position), 'quantity', sum(r.quantity) ::int, 'onHand', p.on_hand,
        'places', (select coalesce(json_agg(json_build_object('place', s.of, 'quantity', s.quantity)
            order by s.quantity desc, s.of), '[]')
          from stock s where s.part_id = p.id and s.what = 'place')) as line
      from reservation r join part p on p.id = r.part_id where r.job_id = j.id group by p.id) kept) as lines
  from booking b join unit u on u.id = b.unit_id left join job j on j.id = b.job_id
  where not b.cancelled and b.during && tstzrange($1 ::date ::timestamp at time zone $2,
      ($1 ::date + 1) ::timestamp at time zone $2)
    and (j.id is null or j.closed_at is null)
  order by lower(b.during), u.name collate natural_order limit ${PICKS_SHOWN}`;

/** SQL: orders that are to come until a day ($1), the oldest promise first, with the open jobs that wait for a part of them. */
const COMES = `
  select o.id as "orderId", o.number as "orderNumber", o.supplier, to_char(o.expected, 'YYYY-MM-DD') as expected,
    o.expected < $1 ::date as late,
    (select json_agg(json_build_object('partId', l ->> 'partId', 'number', l ->> 'number',
        'quantity', (l ->> 'quantity') ::int - (l ->> 'delivered') ::int) order by l ->> 'number')
      from jsonb_array_elements(o.lines) l where l ->> 'ended' is null
        and (l ->> 'quantity') ::int > (l ->> 'delivered') ::int) as lines,
    (select coalesce(json_agg(distinct jsonb_build_object('jobId', j.id, 'jobNumber', j.number, 'unit', u.name)), '[]')
      from jsonb_array_elements(o.lines) l join part p on p.id = (l ->> 'partId') ::uuid and p.on_hand < p.reserved
        join reservation r on r.part_id = p.id join job j on j.id = r.job_id and j.closed_at is null
        join unit u on u.id = j.unit_id
      where l ->> 'ended' is null and (l ->> 'quantity') ::int > (l ->> 'delivered') ::int) as waiting
  from purchase o
  where o.status = 'sent' and o.expected <= $1 ::date order by o.expected, o.number`;

/** SQL: parts that lie in the store and were not counted since a day ($1). */
const COUNTS = `
  with counted as (
    select p.id, p.part ->> 'number' as number, p.title, p.on_hand,
      (select max(m.at) from stock_movement m where m.part_id = p.id and m.what = 'counted') as at,
      (select min(m.at) from stock_movement m where m.part_id = p.id) as since
    from part p where p.on_hand > 0
  )
  select id as "partId", number, title, on_hand as "onHand", to_char(at, 'YYYY-MM-DD') as "countedOn",
    count(*) over () ::int as total
  from counted where coalesce(at, since) < $1 ::date
  order by coalesce(at, since), number limit ${COUNTS_SHOWN}`;

/** The storekeeper's day. */
export async function storeDay(db: Database, clock: Clock): Promise<StoreDay> {
  const ask = <T extends object>(sql: string, bind: unknown[]) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind });
  const today = clock.today();
  const picks = await ask<StoreDay['picks'][number]>(PICKS, [today, clock.zone()]);
  const comes = await ask<StoreDay['comes'][number]>(COMES, [today]);
  const counts = await ask<StoreDay['counts'][number] & { total: number }>(COUNTS, [
    addDays(today, -COUNT_AFTER_DAYS),
  ]);
  return {
    picks,
    comes,
    counts: counts.map(({ partId, number, title, onHand, countedOn }) => ({
      partId,
      number,
      title,
      onHand,
      countedOn,
    })),
    toCount: counts[0]?.total ?? 0,
  };
}
