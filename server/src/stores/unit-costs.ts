import { QueryTypes } from 'sequelize';
import { billSchema, runningCosts, type BilledJob } from '@lanternwright/core/cost';
import type { UnitCosts } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { notFound } from '../http/problem.ts';

/** Jobs that are looked into, the newest first; more than a unit has in ten years. */
const MOST_JOBS = 120;

/**
 * SQL: the newest bill of each job of the unit $1, with the wheel ends it was about. `limit 1` has each job's own entries
 * looked up, not the whole record.
 */
const BILLED = `
  select b.bill, (select json_agg(w ->> 'position') from jsonb_array_elements(j.wheel_ends) w) as positions
  from (select id, wheel_ends from job where unit_id = $1 order by opened_at desc limit ${MOST_JOBS}) j
  cross join lateral (
    select e.body -> 'bill' as bill from entry e where e.stream = 'job' and e.stream_id = j.id ::text
      and e.body ->> 'kind' = 'bill-written' and e.body ->> 'as' = 'actual'
    order by e.version desc limit 1
  ) b`;

/** SQL: from when on the meter of the unit $1 is known, and over which distance. */
const DISTANCE = `
  select to_char(min(m.date), 'YYYY-MM-DD') as since, max(m.total_km) - min(m.total_km) as km
  from unit u left join meter_reading m on m.unit_id = u.id and m.total_km is not null where u.id = $1 group by u.id`;

/** What the wheel ends of a unit cost, by its bills. @throws HttpProblem 404 for no such unit */
export async function unitCosts(db: Database, unitId: string, currency: string): Promise<UnitCosts> {
  const ask = <T extends object>(sql: string) =>
    db.sequelize.query<T>(sql, { type: QueryTypes.SELECT, bind: [unitId] });
  const [distance] = await ask<Pick<UnitCosts, 'since' | 'km'>>(DISTANCE);
  if (!distance) throw notFound('unit');
  const jobs = (await ask<BilledJob>(BILLED)).map((j) => ({ ...j, bill: billSchema.parse(j.bill) }));
  const { wheelEnds, otherCurrency } = runningCosts(jobs, currency, distance.km);
  const inOrder = wheelEnds.sort((a, b) => a.position.localeCompare(b.position, 'en', { numeric: true }));
  return { currency, ...distance, wheelEnds: inOrder as UnitCosts['wheelEnds'], otherCurrency };
}
