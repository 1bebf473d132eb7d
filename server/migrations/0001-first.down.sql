drop table follow_up, wheel_end, reading, job_event, job, meter_reading, axle, unit, owner, session, person, setting;
drop function refuse_change();
