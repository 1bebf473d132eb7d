-- Orders and returns that go to the supplier's own service, and what it says of them; the batch of what came.
alter table purchase add column online boolean not null default false;
alter table stock_movement add column online boolean, add column return_of integer, add column reference text,
  add column batch text;

-- A tool that nobody finds, and what whoever calibrated it wrote. The record holds the hash; the bytes are never changed.
alter table tool add column missing jsonb, add column certificates jsonb not null default '[]';
create table certificate (
  id uuid primary key,
  tool_id uuid not null,
  type text not null check (type in ('application/pdf', 'image/jpeg')),
  bytes bytea not null check (octet_length(bytes) between 100 and 1500000),
  sha256 text not null check (sha256 ~ '^[0-9a-f]{64}$'),
  at timestamptz not null
);
create index certificate_tool on certificate (tool_id);
create trigger certificate_append_only before update or delete on certificate
  for each row execute function refuse_change();
create trigger certificate_no_truncate before truncate on certificate
  for each statement execute function refuse_change();
alter table certificate enable row level security;
alter table certificate force row level security;
create policy shop_only on certificate using ((select reads_all()));
