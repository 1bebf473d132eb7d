drop table calendar;
