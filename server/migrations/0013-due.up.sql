-- Which works were done on a wheel end, by jobs and as somebody told; and from it what is due when. No row hangs on
-- today: states are reckoned where they are read.
create table service_done (
  job_id uuid not null references job on delete cascade,
  position text not null,
  unit_id uuid not null references unit on delete cascade,
  axle_id uuid not null,
  date date not null,
  works jsonb not null,
  primary key (job_id, position)
);
create index service_done_unit on service_done (unit_id);

create table service_told (
  unit_id uuid not null references unit on delete cascade,
  nth integer not null,
  axle_id uuid not null,
  position text not null,
  date date not null,
  works jsonb not null,
  primary key (unit_id, nth)
);

create table due (
  axle_id uuid not null,
  position text not null,
  work text not null,
  unit_id uuid not null references unit on delete cascade,
  last_on date,
  due_on date,
  earliest date,
  latest date,
  due_by text,
  missing jsonb not null,
  primary key (axle_id, position, work)
);
create index due_unit on due (unit_id);

-- What of a unit comes first, so that units are listed by it.
create table unit_due (
  unit_id uuid primary key references unit on delete cascade,
  due_on date,
  earliest date,
  unknown integer not null
);
create index unit_due_on on unit_due (due_on, unit_id);

do $$
declare
  name text;
begin
  foreach name in array array['service_done', 'service_told', 'due', 'unit_due'] loop
    execute format('alter table %I enable row level security', name);
    execute format('alter table %I force row level security', name);
    execute format(
      'create policy own_owners on %I using ((select reads_all()) or unit_id in (select id from unit))', name);
  end loop;
end
$$;
