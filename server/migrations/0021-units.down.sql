alter table person drop column units;
