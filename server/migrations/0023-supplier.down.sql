drop table certificate;
alter table tool drop column missing, drop column certificates;
alter table stock_movement drop column online, drop column return_of, drop column reference, drop column batch;
alter table purchase drop column online;
