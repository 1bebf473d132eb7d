-- Who may come in, and as what.
alter table person drop constraint person_role_check;
alter table person add constraint person_role_check
  check (role in ('supervisor', 'technician', 'storekeeper', 'owner-contact', 'trainee'));
-- Null until they have chosen one with their code.
alter table person alter column password_hash drop not null;
alter table person add column pin_hash text;
-- SHA-256 of the code that lets them choose a password.
alter table person add column code_hash text;
alter table person add column code_until timestamptz;
alter table person add column switched_off_at timestamptz;
alter table person add column last_sign_in timestamptz;

-- Owners that an owner's contact answers for.
create table person_owner (
  person_id uuid not null references person on delete cascade,
  owner_id uuid not null references owner,
  primary key (person_id, owner_id)
);

create index session_person on session ((sess ->> 'personId'));

-- Tries to sign in, counted for all servers; kept by rate-limiter-flexible.
create table try_counter (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);

-- Owners are kept apart by the database itself. A connection says for whom it reads: the server's own for 'all', a
-- request of an owner's contact for the ids of their owners, one that says nothing for nobody.
create function reads_all() returns boolean language sql stable as
  $$ select coalesce(current_setting('lanternwright.owners', true) = 'all', false) $$;
create function reads_owners() returns uuid[] language sql stable as
  $$ select string_to_array(nullif(nullif(current_setting('lanternwright.owners', true), 'all'), ''), ',') ::uuid[] $$;

alter table owner enable row level security;
alter table owner force row level security;
create policy own_owners on owner using ((select reads_all()) or id = any((select reads_owners()) ::uuid[]));
alter table unit enable row level security;
alter table unit force row level security;
create policy own_owners on unit using ((select reads_all()) or owner_id = any((select reads_owners()) ::uuid[]));

do $$
declare
  name text;
begin
  foreach name in array array['axle', 'meter_reading', 'job', 'reading', 'wheel_end', 'follow_up'] loop
    execute format('alter table %I enable row level security', name);
    execute format('alter table %I force row level security', name);
    execute format(
      'create policy own_owners on %I using ((select reads_all()) or unit_id in (select id from unit))', name);
  end loop;
  foreach name in array array['job_event', 'photo'] loop
    execute format('alter table %I enable row level security', name);
    execute format('alter table %I force row level security', name);
    execute format(
      'create policy own_owners on %I using ((select reads_all()) or job_id in (select id from job))', name);
  end loop;
end
$$;

-- A photo that no record names may go: what was sent and never recorded is not kept for ever.
create index job_event_photo on job_event ((body ->> 'photoId')) where body ->> 'photoId' is not null;
create function refuse_photo_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and not exists (select 1 from job_event where body ->> 'photoId' = old.id ::text) then
    return old;
  end if;
  raise exception 'photos on record are never changed: % on % is refused', tg_op, tg_table_name
    using errcode = 'insufficient_privilege';
end
$$;
drop trigger photo_append_only on photo;
create trigger photo_append_only before update or delete on photo
  for each row execute function refuse_photo_change();

-- Projection: whether an estimate waits for the owner's answer.
alter table job add column estimate text not null default 'none' check (estimate in ('none', 'asks', 'answered'));
update job set estimate = last.state
from (
  select distinct on (job_id) job_id,
    case body ->> 'kind' when 'owner-answered' then 'answered' else 'asks' end as state
  from job_event
  where body ->> 'kind' = 'owner-answered' or (body ->> 'kind' = 'bill-written' and body ->> 'as' = 'estimate')
  order by job_id, version desc
) last
where last.job_id = job.id;

-- The one repair a broken link of the chain may have: a supervisor's note beside it. Never changed either.
create table chain_note (
  seq bigint not null,
  -- Hash of what stood there when it was looked at.
  found text not null,
  fault text not null,
  reason text not null check (length(reason) between 10 and 2000),
  person_id uuid not null,
  person_name text not null,
  at timestamptz not null default now(),
  primary key (seq, found)
);
create trigger chain_note_append_only before update or delete on chain_note
  for each row execute function refuse_change();
create trigger chain_note_no_truncate before truncate on chain_note
  for each statement execute function refuse_change();
