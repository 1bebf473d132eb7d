-- Keys with which programs come in. Of a key only a hash is kept.
create table program_token (
  id uuid primary key,
  name text not null,
  secret_hash text not null unique,
  capabilities text[] not null,
  owner_id uuid references owner,
  made_by uuid not null references person,
  made_at timestamptz not null,
  ends_at timestamptz not null,
  ended_at timestamptz,
  ended_by uuid references person,
  last_used_at timestamptz
);
-- Programs that are told of what happens. The secret signs what is sent, so it is kept as it is.
create table webhook (
  id uuid primary key,
  name text not null,
  url text not null,
  secret text not null,
  events text[] not null,
  made_by uuid not null references person,
  made_at timestamptz not null,
  ended_at timestamptz,
  -- How far it was told of the record, and the last day whose due work it was told of.
  seen_seq bigint not null,
  told_day date not null
);
create table delivery (
  id uuid primary key,
  webhook_id uuid not null references webhook on delete cascade,
  event text not null,
  body jsonb not null,
  at timestamptz not null,
  tries integer not null default 0,
  delivered_at timestamptz,
  given_up_at timestamptz,
  last_try_at timestamptz,
  status integer,
  problem text
);
create index delivery_of_webhook on delivery (webhook_id, at);
alter table program_token enable row level security;
alter table program_token force row level security;
create policy shop_only on program_token using ((select reads_all()));
alter table webhook enable row level security;
alter table webhook force row level security;
create policy shop_only on webhook using ((select reads_all()));
alter table delivery enable row level security;
alter table delivery force row level security;
create policy shop_only on delivery using ((select reads_all()));
