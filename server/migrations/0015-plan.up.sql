-- Who and what is away, tools that exist once, bookings that stay, how long work took, and plans that are proposed.
alter table entry drop constraint entry_stream_check;
alter table entry add constraint entry_stream_check
  check (stream in ('job', 'meter', 'booking', 'absence', 'stock', 'tool', 'sheet', 'unit', 'person', 'shop', 'batch'));

create table absence (
  id uuid primary key,
  what text not null check (what in ('person', 'unit', 'bay', 'tool')),
  of text not null,
  during tstzrange not null,
  why text not null,
  cancelled boolean not null,
  version integer not null
);
create index absence_during on absence using gist (during) where not cancelled;
alter table absence enable row level security;
alter table absence force row level security;
create policy shop_only on absence using ((select reads_all()));

alter table booking add column tools uuid[] not null default '{}', add column locked boolean not null default false;
alter table booking_claim drop constraint booking_claim_what_check;
alter table booking_claim add constraint booking_claim_what_check check (what in ('bay', 'unit', 'person', 'tool'));
-- Several bookings that change places are looked at when all of them have moved.
alter table booking_claim drop constraint booking_claim_clash;
alter table booking_claim add constraint booking_claim_clash exclude using gist (
  int8range(hashtextextended(what || ' ' || of, 0), hashtextextended(what || ' ' || of, 0), '[]') with &&,
  during with &&
) deferrable initially immediate;

alter table service_done add column minutes integer not null default 0;

-- A plan that somebody asked for: no part of the record until it is accepted.
create table proposal (
  id uuid primary key,
  kind text not null check (kind in ('propose', 'mend')),
  asked_by uuid not null references person on delete cascade,
  asked_at timestamptz not null,
  state text not null check (state in ('waiting', 'running', 'ready', 'stopped', 'failed')),
  done real not null default 0,
  wanted jsonb not null,
  result jsonb,
  touched_at timestamptz not null default now()
);
alter table proposal enable row level security;
alter table proposal force row level security;
create policy shop_only on proposal using ((select reads_all()));
