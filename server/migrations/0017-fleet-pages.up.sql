-- Units in the order a person expects: unit 9 before unit 10.
create collation natural_order (provider = icu, locale = 'en-u-kn-true');
create index unit_in_order on unit (owner_id, (name collate natural_order), id);

-- A wheel end's state as it is drawn, so that units are found by it.
alter table wheel_end add column state text not null generated always as (
  case
    when open_job_id is not null then 'working'
    when out_of_service is not null then 'out-of-service'
    when verdict is null then 'not-measured'
    when verdict = 'unsure' then 'repeat'
    else verdict
  end
) stored;
create index wheel_end_state on wheel_end (state, unit_id) include (axle_id)
  where state not in ('in-band', 'not-measured');
create index axle_unit on axle (unit_id);
create index axle_taken_out on axle (id) where taken_out_at is not null;
