-- Readings that a batch brought to a unit.
create index batch_row_reads on batch_row ((row ->> 'unitId')) where row ? 'unitId';

-- A file of meter readings between being sent and being taken; it goes once it is taken.
create table meter_file (
  id uuid primary key,
  name text not null,
  sent_by uuid not null references person on delete cascade,
  sent_at timestamptz not null,
  csv text,
  state text not null check (state in ('reading', 'read', 'refused', 'taking', 'taken', 'failed')),
  done double precision not null default 0,
  report jsonb,
  touched_at timestamptz not null default now()
);
-- Packing tens of megabytes takes longer than anything else that is done with them.
alter table meter_file alter column csv set storage external;
alter table meter_file enable row level security;
alter table meter_file force row level security;
create policy own_owners on meter_file using ((select reads_all()));

-- How far a feed has been read, and how it stands.
create table feed (
  name text primary key,
  cursor text,
  asked_at timestamptz,
  answered_at timestamptz,
  trouble text,
  kept integer not null default 0,
  known integer not null default 0,
  strangers jsonb not null default '{}'
);
alter table feed enable row level security;
alter table feed force row level security;
create policy own_owners on feed using ((select reads_all()));
