-- What a release out of band asks for is a reading in band, in whatever job: once that is there nobody is asked any more.
alter table follow_up add column wants_reading boolean not null default false;
update follow_up f set wants_reading = true
where f.kind = 'temporary' and exists (
  select 1 from entry e, jsonb_array_elements(e.body -> 'overridden') o
  where e.stream = 'job' and e.stream_id = f.job_id ::text and e.body ->> 'kind' = 'wheel-end-released'
    and e.body ->> 'position' = f.position and jsonb_typeof(e.body -> 'overridden') = 'array'
    and o ->> 'code' in ('loose', 'tight', 'found-out', 'not-measured', 'not-repeated')
);
drop view open_follow_up;
create view open_follow_up with (security_invoker = true) as
select f.*, past.offset_km, past.offset_hours
from follow_up f join job j on j.id = f.job_id
cross join lateral (
  select
    (select m.total_km - m.km from meter_reading m
      where m.unit_id = f.unit_id and m.total_km is not null and m.date <= j.opened_at ::date
      order by m.date desc, m.source = 'job' desc, m.nth limit 1) as offset_km,
    (select m.total_hours - m.hours from meter_reading m
      where m.unit_id = f.unit_id and m.total_hours is not null and m.date <= j.opened_at ::date
      order by m.date desc, m.source = 'job' desc, m.nth limit 1) as offset_hours
) past
where f.done_at is null
  and not (f.kind = 'retorque' and exists (
    select 1 from follow_up n join job nj on nj.id = n.job_id
    where n.axle_id = f.axle_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
  ))
  -- A later release out of band asks for it itself.
  and not (f.wants_reading and exists (
    select 1 from follow_up n join job nj on nj.id = n.job_id
    where n.axle_id = f.axle_id and n.position = f.position and n.wants_reading and nj.number > j.number
  ))
  and not (f.wants_reading and exists (
    select 1 from reading r
    where r.unit_id = f.unit_id and r.axle_id = f.axle_id and r.position = f.position and r.verdict = 'in-band'
      and r.final and r.job_id <> f.job_id and r.at > j.closed_at
  ));
