import { isoTime } from '../database/sql-time.ts';

const newest = (columns: string, total: string) => `(
  select ${columns} from meter_reading m where m.unit_id = u.id and m.${total} is not null
  order by m.date desc, m.nth desc limit 1)`;

/** SQL: how far a unit `u` has run, counted across odometers that were changed; null where nobody has read one. */
export const TOTAL_KM = newest('m.total_km', 'total_km');

/** SQL: how many hours a unit `u` has run, counted likewise. */
export const TOTAL_HOURS = newest('m.total_hours', 'total_hours');

/** SQL: whether the axle of a row is not one that was taken out of its unit. */
export const ON_ITS_UNIT = (row: string) =>
  `not exists (select 1 from axle gone where gone.id = ${row}.axle_id and gone.taken_out_at is not null)`;

/** SQL: what the last job left of a wheel end `w`, layer by layer, as JSON; null where it left it whole. */
export const LEFT = `case when w.assembly is not null then (
  select coalesce(json_agg(json_build_object(
    'layer', l.key, 'is', l.value ->> 'is', 'by', l.value #>> '{moved,by}', 'at', l.value #>> '{moved,at}',
    'jobId', l.value #>> '{moved,jobId}',
    'job', (select number from job where id = (l.value #>> '{moved,jobId}') ::uuid))), '[]')
  from jsonb_each(w.assembly -> 'layers') l) end`;

/** SQL: a unit `u` of an owner `o` as lists show it, a `UnitSummary` as JSON, by the newest believed readings of its meters. */
export const UNIT_SUMMARY = `(
  select json_build_object(
    'id', u.id, 'owner', json_build_object('id', o.id, 'name', o.name), 'name', u.name, 'kind', u.kind, 'plate', u.plate,
    'meterKm', k.km, 'hours', h.hours, 'meterDate', greatest(k.date, h.date),
    'axles', (select coalesce(json_agg(x), '[]') from (
      select a.id, a.number, a.role, a.wheels, a.brake
      from axle a where a.unit_id = u.id and a.taken_out_at is null order by a.number) x),
    'wheelEnds', (select coalesce(json_agg(x), '[]') from (
      select p.position, coalesce(w.state, 'not-measured') as state, w.end_play_mm as "endPlayMm",
        ${isoTime('w.read_at')} as "readAt", w.read_km as "readKm", w.out_of_service ->> 'reason' as "outOfService",
        ${LEFT} as "left"
      from axle a
      cross join lateral (values (a.number || 'L'), (a.number || 'R')) p (position)
      left join (select * from wheel_end w where w.unit_id = u.id offset 0) w
        on w.axle_id = a.id and w.position = p.position
      where a.unit_id = u.id and a.taken_out_at is null order by a.number, p.position) x),
    'openJobId', (select w.open_job_id from wheel_end w where w.unit_id = u.id and w.open_job_id is not null limit 1))
  from (select 1) one
  left join lateral ${newest('m.km, m.date', 'total_km')} k on true
  left join lateral ${newest('m.hours, m.date', 'total_hours')} h on true)`;
