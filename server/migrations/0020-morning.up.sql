-- Mornings of which the summary went out.
create table morning_sent (
  day date primary key,
  sent_at timestamptz not null
);
alter table morning_sent enable row level security;
alter table morning_sent force row level security;
create policy own_owners on morning_sent using ((select reads_all()));
