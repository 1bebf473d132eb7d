drop view open_follow_up;
create view open_follow_up with (security_invoker = true) as
select f.* from follow_up f join job j on j.id = f.job_id
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.axle_id = f.axle_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
drop table meter_swap;
alter table meter_reading drop column source, drop column total_km, drop column total_hours;
