drop table chain_note;
alter table job drop column estimate;
drop trigger photo_append_only on photo;
create trigger photo_append_only before update or delete on photo
  for each row execute function refuse_change();
drop function refuse_photo_change();
drop index job_event_photo;
do $$
declare
  name text;
begin
  foreach name in array array['owner', 'unit', 'axle', 'meter_reading', 'job', 'reading', 'wheel_end', 'follow_up',
    'job_event', 'photo'] loop
    execute format('drop policy own_owners on %I', name);
    execute format('alter table %I no force row level security', name);
    execute format('alter table %I disable row level security', name);
  end loop;
end
$$;
drop function reads_owners();
drop function reads_all();
drop table try_counter;
drop index session_person;
drop table person_owner;
alter table person drop column last_sign_in;
alter table person drop column switched_off_at;
alter table person drop column code_until;
alter table person drop column code_hash;
alter table person drop column pin_hash;
delete from person where password_hash is null or role not in ('supervisor', 'technician');
alter table person alter column password_hash set not null;
alter table person drop constraint person_role_check;
alter table person add constraint person_role_check check (role in ('supervisor', 'technician'));
