drop view open_follow_up;
alter table follow_up drop column wants_reading;
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
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.axle_id = f.axle_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
