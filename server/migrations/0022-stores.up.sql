-- The store: parts with their numbers, what lies where, what is kept for jobs, and every movement.
alter table entry drop constraint entry_stream_check;
alter table entry add constraint entry_stream_check check (stream in
  ('job', 'meter', 'booking', 'absence', 'stock', 'order', 'tool', 'sheet', 'unit', 'person', 'shop', 'batch'));

create table part (
  id uuid primary key,
  part jsonb not null,
  version integer not null,
  changed_at timestamptz not null,
  changed_by text not null,
  kind text not null,
  title text not null,
  bore_mm double precision,
  outside_mm double precision,
  width_mm double precision,
  on_hand integer not null check (on_hand >= 0),
  reserved integer not null check (reserved >= 0),
  cores integer not null check (cores >= 0)
);
create index part_bore on part (kind, bore_mm);
create index part_outside on part (kind, outside_mm);
create index part_title on part using gin (title trigrams.gin_trgm_ops);
create index part_fits on part using gin ((part -> 'fits') jsonb_path_ops);
create index part_by_title on part (title, id);

-- Its own number and those it is sold under besides, as numbers are compared.
create table part_number (
  part_id uuid not null references part on delete cascade deferrable initially deferred,
  plain text not null,
  number text not null,
  own boolean not null,
  primary key (part_id, plain)
);
create index part_number_plain on part_number (plain text_pattern_ops);
create index part_number_near on part_number using gin (plain trigrams.gin_trgm_ops);

-- What lies at each place, is lent to whom, and was used on which job.
create table stock (
  part_id uuid not null references part on delete cascade deferrable initially deferred,
  what text not null check (what in ('place', 'lent', 'job')),
  of text not null,
  quantity integer not null check (quantity > 0),
  primary key (part_id, what, of)
);
create index stock_of_job on stock (of) where what = 'job';

create table reservation (
  id uuid primary key,
  part_id uuid not null references part on delete cascade deferrable initially deferred,
  job_id uuid not null,
  position text not null,
  line text not null,
  quantity integer not null check (quantity > 0)
);
create index reservation_part on reservation (part_id);
create index reservation_job on reservation (job_id);
alter table reservation enable row level security;
alter table reservation force row level security;
create policy shop_only on reservation using ((select reads_all()));

create table stock_movement (
  part_id uuid not null references part on delete cascade deferrable initially deferred,
  version integer not null,
  at timestamptz not null,
  by_name text not null,
  what text not null,
  quantity integer not null check (quantity >= 0),
  change integer not null,
  place text not null,
  to_place text,
  who text,
  job_id uuid,
  position text,
  line text,
  reason text,
  order_id uuid,
  currency text,
  minor integer,
  primary key (part_id, version)
);
create index stock_movement_job on stock_movement (job_id) where job_id is not null;
alter table stock_movement enable row level security;
alter table stock_movement force row level security;
create policy shop_only on stock_movement using ((select reads_all()));

-- What is ordered; `purchase`, since order is a word of SQL.
create table purchase (
  id uuid primary key,
  number integer not null unique,
  supplier text not null,
  status text not null check (status in ('draft', 'sent', 'done', 'cancelled')),
  lines jsonb not null,
  expected date,
  reference text not null,
  sent_at timestamptz,
  version integer not null,
  changed_at timestamptz not null,
  changed_by text not null,
  reason text
);
create index purchase_status on purchase (status, number desc);
alter table purchase enable row level security;
alter table purchase force row level security;
create policy shop_only on purchase using ((select reads_all()));

-- Who has a tool, and when it was found out of calibration.
alter table tool add column holder jsonb, add column recalls jsonb not null default '[]';
