create trigger sheet_revision_append_only before update or delete on sheet_revision
  for each row execute function refuse_change();
create trigger sheet_revision_no_truncate before truncate on sheet_revision
  for each statement execute function refuse_change();
drop table personal_detail;
alter table person drop column version;
alter table tool drop column version;
alter table unit drop column version;
alter table job alter column number set generated always;
alter table meter_reading drop column nth;
drop view open_follow_up;
drop index follow_up_axle;
update job set wheel_ends = coalesce((
  select jsonb_agg(e - 'axleId' order by n) from jsonb_array_elements(wheel_ends) with ordinality as w(e, n)), '[]');
alter table wheel_end drop constraint wheel_end_pkey;
drop index wheel_end_unit;
alter table wheel_end add primary key (unit_id, position);
alter table follow_up drop column axle_id;
alter table wheel_end drop column axle_id;
alter table reading drop column axle_id;
drop index axle_number;
alter table axle drop column taken_out_at;
alter table axle drop constraint axle_pkey;
alter table axle drop column id;
alter table axle add primary key (unit_id, number);
create view open_follow_up as
select f.* from follow_up f join job j on j.id = f.job_id
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.unit_id = f.unit_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
create index follow_up_position on follow_up (unit_id, position) where kind = 'retorque';
drop table seal, batch_row;
drop function store_on_job;
drop function refresh_wheel_ends;
drop function append_entry;
drop policy own_owners on entry;
alter trigger entry_append_only on entry rename to job_event_append_only;
alter trigger entry_no_truncate on entry rename to job_event_no_truncate;
alter index entry_photo rename to job_event_photo;
alter table entry drop constraint entry_stream_version;
alter table entry rename constraint entry_hash_key to job_event_hash_key;
alter table entry rename constraint entry_id_key to job_event_id_key;
alter table entry rename constraint entry_pkey to job_event_pkey;
alter table entry drop column form;
alter table entry drop column stream;
alter table entry alter column stream_id type uuid using stream_id ::uuid;
alter table entry rename column stream_id to job_id;
alter table entry rename to job_event;
alter table job_event add constraint job_event_job_id_version_key unique (job_id, version);
alter table job_event add constraint job_event_job_id_fkey foreign key (job_id) references job;
create policy own_owners on job_event using ((select reads_all()) or job_id in (select id from job));
create or replace function refuse_photo_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and not exists (select 1 from job_event where body ->> 'photoId' = old.id ::text) then
    return old;
  end if;
  raise exception 'photos on record are never changed: % on % is refused', tg_op, tg_table_name
    using errcode = 'insufficient_privilege';
end
$$;
