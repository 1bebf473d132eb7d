-- One record of the shop: what was the record of jobs takes streams of other kinds. Not one row of it changes.
drop policy own_owners on job_event;
alter table job_event drop constraint job_event_job_id_fkey;
alter table job_event drop constraint job_event_job_id_version_key;
alter table job_event rename to entry;
alter table entry rename column job_id to stream_id;
alter table entry alter column stream_id type text;
alter table entry add column stream text not null default 'job'
  check (stream in ('job', 'meter', 'booking', 'stock', 'tool', 'sheet', 'unit', 'person', 'shop', 'batch'));
alter table entry alter column stream drop default;
-- How a link is hashed: 1 as in the record of jobs, 2 from here on.
alter table entry add column form smallint not null default 1 check (form in (1, 2));
alter table entry alter column form drop default;
alter table entry rename constraint job_event_pkey to entry_pkey;
alter table entry rename constraint job_event_id_key to entry_id_key;
alter table entry rename constraint job_event_hash_key to entry_hash_key;
alter table entry add constraint entry_stream_version unique (stream, stream_id, version);
alter index job_event_photo rename to entry_photo;
alter trigger job_event_append_only on entry rename to entry_append_only;
alter trigger job_event_no_truncate on entry rename to entry_no_truncate;
create policy own_owners on entry using ((select reads_all()) or case stream
  when 'job' then stream_id in (select id ::text from job)
  when 'unit' then stream_id in (select id ::text from unit)
  when 'meter' then stream_id in (select id ::text from unit)
  else false
end);

create or replace function refuse_photo_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' and not exists (select 1 from entry where body ->> 'photoId' = old.id ::text) then
    return old;
  end if;
  raise exception 'photos on record are never changed: % on % is refused', tg_op, tg_table_name
    using errcode = 'insufficient_privilege';
end
$$;

-- Appends one entry at the end of the chain, and tells of it. What is hashed is SHA-256 of the form, the place, the hash
-- before and the hash of the content, a line each. The lock lasts to the end of the transaction: it is the last thing
-- a transaction does.
create function append_entry(
  new_stream text, new_stream_id text, new_version integer, new_id uuid, new_at timestamptz, new_by jsonb,
  new_body jsonb, content text
) returns setof entry language plpgsql as $$
declare
  before entry;
  place bigint;
begin
  perform pg_advisory_xact_lock(618002);
  if new_version <> 1 + coalesce(
    (select max(version) from entry where stream = new_stream and stream_id = new_stream_id), 0)
  then
    raise exception 'version % of % % is not the next', new_version, new_stream, new_stream_id using errcode = 'LW409';
  end if;
  select * into before from entry order by seq desc limit 1;
  place := coalesce(before.seq, 0) + 1;
  perform pg_notify('entry', json_build_object('stream', new_stream, 'streamId', new_stream_id, 'seq', place) ::text);
  return query insert into entry (seq, id, stream, stream_id, version, at, by, body, prev_hash, hash, form)
  values (
    place, new_id, new_stream, new_stream_id, new_version, new_at, new_by, new_body,
    coalesce(before.hash, repeat('0', 64)),
    encode(sha256(convert_to(
      concat_ws(E'\n', '2', place, coalesce(before.hash, repeat('0', 64)), content), 'UTF8')), 'hex'),
    2
  ) returning *;
end
$$;

-- Rows of a file or a feed, which one entry of the record carries the hash of.
create table batch_row (
  batch_id uuid not null,
  n integer not null check (n >= 0),
  row jsonb not null,
  primary key (batch_id, n)
);
create index batch_row_unit on batch_row ((row ->> 'id'));
create trigger batch_row_append_only before update or delete on batch_row
  for each row execute function refuse_change();
create trigger batch_row_no_truncate before truncate on batch_row
  for each statement execute function refuse_change();
alter table batch_row enable row level security;
alter table batch_row force row level security;
create policy own_owners on batch_row using ((select reads_all()));

-- The end of the record at some moment, signed with a key that stands outside the database.
create table seal (
  -- Hash of the first entry: which record it is of.
  chain text not null check (chain ~ '^[0-9a-f]{64}$'),
  seq bigint not null check (seq >= 1),
  hash text not null check (hash ~ '^[0-9a-f]{64}$'),
  at timestamptz not null,
  key text not null,
  signature text not null,
  primary key (chain, seq)
);
create trigger seal_append_only before update or delete on seal
  for each row execute function refuse_change();
create trigger seal_no_truncate before truncate on seal
  for each statement execute function refuse_change();

-- Axles have ids of their own. One that is taken out keeps its row, and leaves its number free.
alter table axle add column id uuid;
update axle set id = overlay(overlay(unit_id ::text placing '0' || number from 1 for 2) placing '8' from 15 for 1) ::uuid;
alter table axle drop constraint axle_pkey;
alter table axle add primary key (id);
alter table axle add column taken_out_at timestamptz;
create unique index axle_number on axle (unit_id, number) where taken_out_at is null;

do $$
declare
  name text;
begin
  foreach name in array array['reading', 'wheel_end', 'follow_up'] loop
    execute format('alter table %I add column axle_id uuid', name);
    execute format(
      $q$update %I set axle_id = overlay(overlay(unit_id ::text placing '0' || left(position, 1) from 1 for 2)
        placing '8' from 15 for 1) ::uuid$q$, name);
    execute format('alter table %I alter column axle_id set not null', name);
  end loop;
end
$$;
alter table wheel_end drop constraint wheel_end_pkey;
alter table wheel_end add primary key (axle_id, position);
create index wheel_end_unit on wheel_end (unit_id);
update job set wheel_ends = coalesce((
  select jsonb_agg(e || jsonb_build_object('axleId', overlay(overlay(unit_id ::text
    placing '0' || left(e ->> 'position', 1) from 1 for 2) placing '8' from 15 for 1)) order by n)
  from jsonb_array_elements(wheel_ends) with ordinality as w(e, n)
), '[]');

-- A reading's place among those of its unit, from 0, as its record counts them.
alter table meter_reading add column nth integer;
update meter_reading set nth = counted.nth
from (select id, row_number() over (partition by unit_id order by id) - 1 as nth from meter_reading) counted
where counted.id = meter_reading.id;
alter table meter_reading alter column nth set not null;
alter table meter_reading add constraint meter_reading_nth unique (unit_id, nth);

drop view open_follow_up;
create view open_follow_up with (security_invoker = true) as
select f.* from follow_up f join job j on j.id = f.job_id
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.axle_id = f.axle_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
drop index follow_up_position;
create index follow_up_axle on follow_up (axle_id, position) where kind = 'retorque';

-- A job's number is in its first entry from here on.
alter table job alter column number set generated by default;

-- Versions of streams whose state stands in a row.
alter table unit add column version integer not null default 0;
alter table tool add column version integer not null default 0;
alter table person add column version integer not null default 0;

-- How people are reached. It stands outside the record, so that it can be erased.
create table personal_detail (
  person_id uuid primary key references person on delete cascade,
  telephone text not null default '' check (length(telephone) <= 40),
  mail text not null default '' check (length(mail) <= 120)
);
alter table personal_detail enable row level security;
alter table personal_detail force row level security;
create policy own_owners on personal_detail using ((select reads_all()));

-- Revisions of sheets follow from the record from here on, as every table but its own does.
drop trigger sheet_revision_append_only on sheet_revision;
drop trigger sheet_revision_no_truncate on sheet_revision;

-- What is known of the wheel ends of a unit, or of all, from its jobs and readings. The text is run anew each time: a
-- rebuild runs it on tables beside the working ones.
create function refresh_wheel_ends(of_unit uuid) returns void language plpgsql as $$
begin
  execute $q$
    insert into wheel_end
      (unit_id, axle_id, position, verdict, end_play_mm, read_at, read_km, open_job_id, out_of_service)
    select w.unit_id, w.axle_id, w.position, r.verdict, r.end_play_mm, r.at, r.km, o.id, s.stopped
    from (
      select distinct j.unit_id, (e ->> 'axleId') ::uuid as axle_id, e ->> 'position' as position
      from job j, jsonb_array_elements(j.wheel_ends) e where $1 is null or j.unit_id = $1
    ) w
    left join lateral (
      select verdict, end_play_mm, at, km from reading
      where unit_id = w.unit_id and axle_id = w.axle_id and position = w.position order by at desc, round desc limit 1
    ) r on true
    left join lateral (
      select j.id from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and j.closed_at is null and (e ->> 'axleId') ::uuid = w.axle_id
        and e ->> 'position' = w.position and not (e ->> 'released')::boolean limit 1
    ) o on true
    left join lateral (
      select case when j.stopped ->> 'as' = 'out-of-service' and not (e ->> 'released')::boolean then j.stopped end
        as stopped
      from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position
        and j.closed_at is not null and coalesce(j.stopped ->> 'as', '') <> 'void'
      order by j.closed_at desc, j.number desc limit 1
    ) s on true
    on conflict (axle_id, position) do update set
      verdict = excluded.verdict, end_play_mm = excluded.end_play_mm, read_at = excluded.read_at,
      read_km = excluded.read_km, open_job_id = excluded.open_job_id, out_of_service = excluded.out_of_service
  $q$ using of_unit;
end
$$;

-- Records on a job in one go: locks unit and job, in this order; writes the rows that changed; appends the entry. What
-- is null did not change.
create function store_on_job(
  the_job uuid, seen integer, rows jsonb, readings jsonb, follow_ups jsonb, stands boolean,
  new_id uuid, new_at timestamptz, new_by jsonb, new_body jsonb, content text
) returns setof entry language plpgsql as $$
declare
  now_at integer;
  of_unit uuid;
begin
  select j.version, u.id into now_at, of_unit from unit u join job j on j.unit_id = u.id
  where j.id = the_job for no key update of u, j;
  if now_at is distinct from seen then
    raise exception 'job % is at version %, not %', the_job, now_at, seen using errcode = 'LW409';
  end if;
  update job set version = r.version, closed_at = r."closedAt", wheel_ends = r."wheelEnds",
    stopped = nullif(r.stopped, 'null'::jsonb), estimate = r.estimate
  from jsonb_to_record(rows) as r(version integer, "closedAt" timestamptz, "wheelEnds" jsonb, stopped jsonb,
    estimate text)
  where job.id = the_job;
  if readings is not null then
    delete from reading where job_id = the_job;
    insert into reading select * from jsonb_populate_recordset(null ::reading, readings);
  end if;
  if follow_ups is not null then
    delete from follow_up where job_id = the_job;
    insert into follow_up select * from jsonb_populate_recordset(null ::follow_up, follow_ups);
  end if;
  if stands then
    perform refresh_wheel_ends(of_unit);
  end if;
  return query select * from append_entry('job', the_job ::text, seen + 1, new_id, new_at, new_by, new_body, content);
end
$$;
