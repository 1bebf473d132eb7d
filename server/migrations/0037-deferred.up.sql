-- What an owner wants done later is due on the day that was agreed.
alter table job add column deferred jsonb not null default '[]';

create or replace function store_on_job(
  the_job uuid, seen integer, rows jsonb, readings jsonb, follow_ups jsonb, stands boolean,
  new_id uuid, new_at timestamptz, new_by jsonb, new_body jsonb, content text
) returns setof entry language plpgsql as $$
declare
  now_at integer;
  of_unit uuid;
begin
  select j.version, u.id into now_at, of_unit from unit u join job j on j.unit_id = u.id
  where j.id = the_job for no key update of u, j;
  if now_at is distinct from seen then
    raise exception 'job % is at version %, not %', the_job, now_at, seen using errcode = 'LW409';
  end if;
  update job set version = r.version, closed_at = r."closedAt", wheel_ends = r."wheelEnds",
    stopped = nullif(r.stopped, 'null'::jsonb), estimate = r.estimate, leaves = nullif(r.leaves, 'null'::jsonb),
    deferred = r.deferred
  from jsonb_to_record(rows) as r(version integer, "closedAt" timestamptz, "wheelEnds" jsonb, stopped jsonb,
    estimate text, leaves jsonb, deferred jsonb)
  where job.id = the_job;
  if readings is not null then
    delete from reading where job_id = the_job;
    insert into reading select * from jsonb_populate_recordset(null ::reading, readings);
  end if;
  if follow_ups is not null then
    delete from follow_up where job_id = the_job;
    insert into follow_up select * from jsonb_populate_recordset(null ::follow_up, follow_ups);
  end if;
  if stands then
    perform refresh_wheel_ends(of_unit);
  end if;
  return query select * from append_entry('job', the_job ::text, seen + 1, new_id, new_at, new_by, new_body, content);
end
$$;
