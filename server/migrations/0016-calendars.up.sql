-- Calendars that other programs read at a secret address. Of the secret only a hash is kept.
create table calendar (
  id uuid primary key,
  secret_hash text not null unique,
  what text not null check (what in ('shop', 'bay', 'person', 'owner')),
  of text not null,
  made_by uuid not null references person on delete cascade,
  made_at timestamptz not null,
  revoked_at timestamptz
);
alter table calendar enable row level security;
alter table calendar force row level security;
create policy shop_only on calendar using ((select reads_all()));
