create or replace function refresh_wheel_ends(of_unit uuid) returns void language plpgsql as $$
begin
  execute $q$
    insert into wheel_end
      (unit_id, axle_id, position, verdict, end_play_mm, read_at, read_km, open_job_id, out_of_service)
    select w.unit_id, w.axle_id, w.position, r.verdict, r.end_play_mm, r.at, r.km, o.id, s.stopped
    from (
      select distinct j.unit_id, (e ->> 'axleId') ::uuid as axle_id, e ->> 'position' as position
      from job j, jsonb_array_elements(j.wheel_ends) e where $1 is null or j.unit_id = $1
    ) w
    left join lateral (
      select verdict, end_play_mm, at, km from reading
      where unit_id = w.unit_id and axle_id = w.axle_id and position = w.position order by at desc, round desc limit 1
    ) r on true
    left join lateral (
      select j.id from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and j.closed_at is null and (e ->> 'axleId') ::uuid = w.axle_id
        and e ->> 'position' = w.position and not (e ->> 'released')::boolean limit 1
    ) o on true
    left join lateral (
      select case when j.stopped ->> 'as' = 'out-of-service' and not (e ->> 'released')::boolean then j.stopped end
        as stopped
      from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position
        and j.closed_at is not null and coalesce(j.stopped ->> 'as', '') <> 'void'
      order by j.closed_at desc, j.number desc limit 1
    ) s on true
    on conflict (axle_id, position) do update set
      verdict = excluded.verdict, end_play_mm = excluded.end_play_mm, read_at = excluded.read_at,
      read_km = excluded.read_km, open_job_id = excluded.open_job_id, out_of_service = excluded.out_of_service
  $q$ using of_unit;
end
$$;

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
    stopped = nullif(r.stopped, 'null'::jsonb), estimate = r.estimate
  from jsonb_to_record(rows) as r(version integer, "closedAt" timestamptz, "wheelEnds" jsonb, stopped jsonb,
    estimate text)
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

alter table wheel_end drop column assembly;
alter table job drop column leaves;
