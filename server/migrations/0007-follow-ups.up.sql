-- What is still to be looked after. A wheel that came off again since has a retorque of its own from then on.
create view open_follow_up as
select f.* from follow_up f join job j on j.id = f.job_id
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.unit_id = f.unit_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
create index follow_up_position on follow_up (unit_id, position) where kind = 'retorque';
