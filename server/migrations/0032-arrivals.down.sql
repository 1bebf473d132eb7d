drop index booking_missed, booking_here;
alter table booking drop column works, drop column missed_at, drop column left_at, drop column came_at;
