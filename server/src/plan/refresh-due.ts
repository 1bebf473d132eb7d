import { QueryTypes } from 'sequelize';
import { unitDue, type Due, type UnitPast } from '@lanternwright/core/due';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { placedAxles } from '../fleet/axle-sql.ts';
import { ON_ITS_UNIT } from '../fleet/summary.ts';
import { asColumns } from '../record/insert-rows.ts';

const points = (total: string) => `
  (select coalesce(json_agg(json_build_object('date', m.date, 'total', m.${total}) order by m.date, m.nth), '[]')
    from meter_reading m where m.unit_id = u.id and m.${total} is not null)`;

const PAST = `
  select u.id, u.kind, u.duty, ${points('total_km')} as distance, ${points('total_hours')} as hours,
    ${placedAxles('u.id')} as axles,
    (select coalesce(json_agg(json_build_object('axleId', s.axle_id, 'position', s.position, 'works', s.works,
        'date', s.date)), '[]')
      from (select axle_id, position, works, date from service_done where unit_id = u.id
        union all select axle_id, position, works, date from service_told where unit_id = u.id) s) as done,
    (select coalesce(json_agg(json_build_object('axleId', r.axle_id, 'position', r.position,
        'date', to_char(r.at, 'YYYY-MM-DD'))), '[]')
      from (select distinct on (axle_id, position) axle_id, position, verdict, at from reading
        where unit_id = u.id order by axle_id, position, at desc, round desc) r
      where r.verdict in ('loose', 'tight')) as "outOfBand",
    (select coalesce(json_agg(d), '[]') from job j, jsonb_array_elements(j.deferred) d
      where j.unit_id = u.id and j.deferred <> '[]') as deferred
  from unit u where u.id = any($1 ::uuid[])`;

const AT_ONCE = 200;

/** What of a unit comes first. */
function firstOf(unitId: string, due: readonly Due[]) {
  const known = due.filter((d) => d.date !== null);
  const first = (days: (string | null)[]) => days.sort()[0] ?? null;
  return {
    unitId,
    dueOn: first(known.map((d) => d.date)),
    earliest: first(known.map((d) => d.earliest)),
    unknown: due.length - known.length,
  };
}

/**
 * Reckons anew what is due on units whose axles, meters or past have changed, in the open transaction. Where tables stand
 * beside, in those.
 */
export async function refreshDue(db: Database, unitIds: readonly string[]): Promise<void> {
  const run = (sql: string, bind: unknown[]) => db.sequelize.query(sql, { type: QueryTypes.RAW, bind });
  for (let i = 0; i < unitIds.length; i += AT_ONCE) {
    const ids = unitIds.slice(i, i + AT_ONCE);
    const pasts = await db.sequelize.query<UnitPast & { id: string }>(PAST, {
      type: QueryTypes.SELECT,
      bind: [ids],
    });
    const dues = pasts.map((past) => ({ id: past.id, due: unitDue(past) }));
    const rows = dues.flatMap(({ id, due }) =>
      due.map(({ by, date, ...d }) => ({ ...d, unitId: id, dueOn: date, dueBy: by })),
    );
    await run('delete from due where unit_id = any($1 ::uuid[])', [ids]);
    await run('delete from unit_due where unit_id = any($1 ::uuid[])', [ids]);
    await run('insert into due select * from jsonb_populate_recordset(null ::due, $1 ::jsonb)', [
      asColumns(rows),
    ]);
    await run('insert into unit_due select * from jsonb_populate_recordset(null ::unit_due, $1 ::jsonb)', [
      asColumns(dues.map(({ id, due }) => firstOf(id, due))),
    ]);
  }
}

/** Units with a wheel end out of its band that nothing says is due: a version before this one did not. */
const NOT_SAID = `
  select u.id from unit u
  where exists (select 1 from wheel_end w where w.unit_id = u.id and w.state in ('loose', 'tight') and ${ON_ITS_UNIT('w')})
    and not exists (select 1 from due d where d.unit_id = u.id and d.due_by = 'out-of-band')
  order by u.id for update of u`;

/**
 * Says of wheel ends that were left out of their band, by whatever version, that they are due. The units are held
 * meanwhile: another server may start in the same moment, or record on them.
 */
export async function refreshLeftOut(db: Database): Promise<void> {
  await inTransaction(db, async () => {
    const units = await db.sequelize.query<{ id: string }>(NOT_SAID, { type: QueryTypes.SELECT });
    await refreshDue(
      db,
      units.map((u) => u.id),
    );
  });
}
