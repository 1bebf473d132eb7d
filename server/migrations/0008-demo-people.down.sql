alter table person drop column demo;
