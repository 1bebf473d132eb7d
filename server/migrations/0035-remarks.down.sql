alter table unit drop column remarks;
