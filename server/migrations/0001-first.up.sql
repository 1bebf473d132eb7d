create table setting (
  name text primary key,
  value jsonb not null
);

create table person (
  id uuid primary key,
  name text not null check (length(name) between 1 and 80),
  login text not null unique check (login ~ '^[a-z0-9._-]{2,40}$'),
  role text not null check (role in ('supervisor', 'technician')),
  password_hash text not null,
  created_at timestamptz not null default now()
);

-- Kept by connect-pg-simple.
create table session (
  sid varchar primary key,
  sess json not null,
  expire timestamp(6) not null
);
create index session_expire on session (expire);

create table owner (
  id uuid primary key,
  name text not null check (length(name) between 1 and 80)
);
create unique index owner_name on owner (lower(name));

create table unit (
  id uuid primary key,
  owner_id uuid not null references owner,
  name text not null check (length(name) between 1 and 60),
  kind text not null,
  plate text not null default '',
  created_at timestamptz not null default now()
);
create unique index unit_owner_name on unit (owner_id, lower(name));

create table axle (
  unit_id uuid not null references unit on delete cascade,
  number smallint not null check (number between 1 and 9),
  role text not null,
  wheels text not null check (wheels in ('single', 'dual')),
  brake text not null check (brake in ('drum', 'disc', 'none')),
  sheet jsonb not null,
  primary key (unit_id, number)
);

create table meter_reading (
  id bigint generated always as identity primary key,
  unit_id uuid not null references unit on delete cascade,
  date date not null,
  -- As typed, beside km.
  distance jsonb,
  km double precision check (km >= 0),
  hours double precision check (hours >= 0),
  check (km is not null or hours is not null)
);
create index meter_reading_unit on meter_reading (unit_id, date desc, id desc);

create table job (
  id uuid primary key,
  number integer generated always as identity unique,
  unit_id uuid not null references unit,
  title text not null,
  version integer not null check (version >= 0),
  opened_at timestamptz not null,
  closed_at timestamptz,
  -- Projection: where each wheel end stands.
  wheel_ends jsonb not null default '[]'
);
create index job_open on job (opened_at desc) where closed_at is null;
create index job_closed on job (closed_at desc) where closed_at is not null;
create index job_unit on job (unit_id, opened_at desc);

-- The truth about every job. Appended, never changed or removed.
create table job_event (
  seq bigint primary key,
  id uuid not null unique,
  job_id uuid not null references job,
  version integer not null check (version >= 1),
  at timestamptz not null,
  by jsonb not null,
  body jsonb not null,
  prev_hash text not null,
  hash text not null unique,
  unique (job_id, version)
);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'records are appended, never changed: % on % is refused', tg_op, tg_table_name
    using errcode = 'insufficient_privilege';
end
$$;
create trigger job_event_append_only before update or delete on job_event
  for each row execute function refuse_change();
create trigger job_event_no_truncate before truncate on job_event
  for each statement execute function refuse_change();
revoke update, delete, truncate on job_event from public;
revoke update, delete, truncate on job_event from current_user;

-- Projections: written in the transaction that appends the event, rebuilt from the events by
-- npm run rebuild-projections.
create table reading (
  job_id uuid not null references job,
  position text not null,
  round smallint not null,
  unit_id uuid not null references unit,
  end_play_mm double precision not null,
  range_mm double precision not null,
  cycles smallint not null,
  verdict text not null,
  at timestamptz not null,
  by_name text not null,
  km double precision,
  final boolean not null,
  primary key (job_id, position, round)
);
create index reading_unit on reading (unit_id, position, at);

create table wheel_end (
  unit_id uuid not null references unit on delete cascade,
  position text not null,
  verdict text,
  end_play_mm double precision,
  read_at timestamptz,
  read_km double precision,
  open_job_id uuid references job,
  primary key (unit_id, position)
);

create table follow_up (
  job_id uuid not null references job,
  position text not null,
  unit_id uuid not null references unit,
  kind text not null check (kind in ('retorque')),
  from_km double precision,
  by_km double precision,
  by_date date not null,
  done_at timestamptz,
  primary key (job_id, position, kind)
);
create index follow_up_open on follow_up (unit_id) where done_at is null;
