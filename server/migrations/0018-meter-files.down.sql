drop table feed;
drop table meter_file;
drop index batch_row_reads;
