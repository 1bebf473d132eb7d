-- What the office knows of a unit, in its own words.
alter table unit add column remarks text not null default '';
