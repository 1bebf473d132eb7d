create index wheel_end_left on wheel_end (unit_id) where assembly is not null;
