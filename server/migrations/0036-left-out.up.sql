-- A wheel end that was left out of its only job is in none, and keeps what was read on it.
create or replace function refresh_wheel_ends(of_unit uuid) returns void language plpgsql as $$
begin
  execute $q$
    insert into wheel_end
      (unit_id, axle_id, position, verdict, end_play_mm, read_at, read_km, open_job_id, out_of_service, assembly)
    select w.unit_id, w.axle_id, w.position, r.verdict, r.end_play_mm, r.at, r.km, o.id, s.stopped, a.assembly
    from (
      select j.unit_id, (e ->> 'axleId') ::uuid as axle_id, e ->> 'position' as position
      from job j, jsonb_array_elements(j.wheel_ends) e where $1 is null or j.unit_id = $1
      union
      select unit_id, axle_id, position from reading where $1 is null or unit_id = $1
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
      select case
          when j.stopped ->> 'as' = 'out-of-service' and not (e ->> 'released')::boolean then j.stopped
          when e ->> 'inDoubt' is not null
            then jsonb_build_object('as', 'out-of-service', 'reason', 'Release in doubt: ' || (e ->> 'inDoubt'))
          when e ->> 'yardOnly' is not null
            then jsonb_build_object('as', 'out-of-service', 'reason', e ->> 'yardOnly')
        end as stopped
      from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position
        and j.closed_at is not null and coalesce(j.stopped ->> 'as', '') <> 'void'
      order by j.closed_at desc, j.number desc limit 1
    ) s on true
    left join lateral (
      select nullif(j.leaves -> w.position, 'null'::jsonb) as assembly
      from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = w.unit_id and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position
        and j.closed_at is not null
      order by j.number desc limit 1
    ) a on true
    on conflict (axle_id, position) do update set
      verdict = excluded.verdict, end_play_mm = excluded.end_play_mm, read_at = excluded.read_at,
      read_km = excluded.read_km, open_job_id = excluded.open_job_id, out_of_service = excluded.out_of_service,
      assembly = excluded.assembly
  $q$ using of_unit;
  delete from wheel_end w where w.unit_id = of_unit
    and not exists (select 1 from job j, jsonb_array_elements(j.wheel_ends) e
      where j.unit_id = of_unit and (e ->> 'axleId') ::uuid = w.axle_id and e ->> 'position' = w.position)
    and not exists (select 1 from reading r
      where r.unit_id = of_unit and r.axle_id = w.axle_id and r.position = w.position);
end
$$;
