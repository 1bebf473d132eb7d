-- A unit is here when somebody says so, not when its hour has come.
alter table booking add column came_at timestamptz, add column left_at timestamptz, add column missed_at timestamptz,
  add column works jsonb not null default '[]';
-- What is here and has not left is asked for at every look at the Floor, and so is what did not come.
create index booking_here on booking (came_at) where came_at is not null and left_at is null and not cancelled;
create index booking_missed on booking (missed_at) where missed_at is not null;
