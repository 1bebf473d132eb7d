import { QueryTypes } from 'sequelize';
import { runningCosts, type BilledJob } from '@lanternwright/core/cost';
import { jobAggregate, replay } from '@lanternwright/core/record';
import type { UnitCosts } from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { notFound } from '../http/problem.ts';
import { entriesOfAll } from '../record/append.ts';

/** Jobs that are looked into, the newest first; more than a unit has in ten years. */
const MOST_JOBS = 120;

/** SQL: jobs of the unit $1 that have a bill. */
const BILLED = `
  select j.id from job j where j.unit_id = $1 and exists (
    select 1 from entry e where e.stream = 'job' and e.stream_id = j.id ::text
      and e.body ->> 'kind' = 'bill-written' and e.body ->> 'as' = 'actual')
  order by j.opened_at desc limit ${MOST_JOBS}`;

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
  const ids = (await ask<{ id: string }>(BILLED)).map((j) => j.id);
  const entries = await entriesOfAll(db, 'job', ids);
  const jobs = ids.flatMap((id): BilledJob[] => {
    const job = replay(jobAggregate, entries.get(id)!);
    const bill = job?.money.actual?.bill;
    return bill ? [{ bill, positions: job.wheelEnds.map((w) => w.position) }] : [];
  });
  const { wheelEnds, otherCurrency } = runningCosts(jobs, currency, distance.km);
  const inOrder = wheelEnds.sort((a, b) => a.position.localeCompare(b.position, 'en', { numeric: true }));
  return { currency, ...distance, wheelEnds: inOrder as UnitCosts['wheelEnds'], otherCurrency };
}
