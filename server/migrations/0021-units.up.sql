-- Units in which somebody reads figures; null: the shop's.
alter table person add column units jsonb;
