drop index meter_reading_hours;
