-- Who is where when. A bay, a unit or a person cannot be in two places at once: the database keeps it.
create table booking (
  id uuid primary key,
  unit_id uuid not null references unit on delete cascade,
  job_id uuid references job on delete cascade,
  bay_id text not null,
  during tstzrange not null,
  people uuid[] not null,
  note text not null,
  cancelled boolean not null,
  version integer not null
);
create index booking_during on booking using gist (during) where not cancelled;
create index booking_unit on booking (unit_id);

create table booking_claim (
  booking_id uuid not null references booking on delete cascade,
  what text not null check (what in ('bay', 'unit', 'person')),
  of text not null,
  during tstzrange not null,
  primary key (booking_id, what, of),
  -- A claim as one point of a range, so that no extension is needed to compare it beside the time.
  constraint booking_claim_clash exclude using gist (
    int8range(hashtextextended(what || ' ' || of, 0), hashtextextended(what || ' ' || of, 0), '[]') with &&,
    during with &&
  )
);

alter table booking enable row level security;
alter table booking force row level security;
create policy own_owners on booking using ((select reads_all()) or unit_id in (select id from unit));
alter table booking_claim enable row level security;
alter table booking_claim force row level security;
create policy own_owners on booking_claim using ((select reads_all()));

-- Readings that do not fit the others wait for somebody to look.
create index meter_doubted on meter_reading (date desc)
  where (km is not null and total_km is null) or (hours is not null and total_hours is null);
