drop table tool;
