-- Where a reading is known from, and what a unit has run in all: counted across meters that were changed, null where a
-- reading does not fit the others. The rows are written anew from the record after the last step.
alter table meter_reading add column source text not null default 'taken-over';
alter table meter_reading add column total_km double precision;
alter table meter_reading add column total_hours double precision;
alter table meter_reading alter column source drop default;
update meter_reading set total_km = km, total_hours = hours;

create table meter_swap (
  unit_id uuid not null references unit on delete cascade,
  nth integer not null,
  date date not null,
  of text not null check (of in ('distance', 'hours')),
  why text not null check (why in ('swapped', 'set-back')),
  last double precision not null,
  first double precision not null,
  after integer not null,
  primary key (unit_id, nth)
);
alter table meter_swap enable row level security;
alter table meter_swap force row level security;
create policy own_owners on meter_swap using ((select reads_all()) or unit_id in (select id from unit));

-- A follow-up is due by what the odometer reads; after a swap that is this much less than the unit has run in all.
create or replace view open_follow_up with (security_invoker = true) as
select f.*, (
  select m.total_km - m.km from meter_reading m
  where m.unit_id = f.unit_id and m.total_km is not null and m.date <= j.opened_at ::date
  order by m.date desc, m.source = 'job' desc, m.nth limit 1
) as offset_km
from follow_up f join job j on j.id = f.job_id
where f.done_at is null and not (f.kind = 'retorque' and exists (
  select 1 from follow_up n join job nj on nj.id = n.job_id
  where n.axle_id = f.axle_id and n.position = f.position and n.kind = 'retorque' and nj.number > j.number
));
