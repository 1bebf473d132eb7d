-- Lists show a unit's newest hours; most units have none, which was found out by looking through all their readings.
create index meter_reading_hours on meter_reading (unit_id, date desc, nth desc) where total_hours is not null;
