alter table due drop column shortened;
alter table unit drop column duty;
