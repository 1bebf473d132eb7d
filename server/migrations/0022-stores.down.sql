alter table tool drop column holder, drop column recalls;
drop table purchase, stock_movement, reservation, stock, part_number, part;
alter table entry drop constraint entry_stream_check;
alter table entry add constraint entry_stream_check
  check (stream in ('job', 'meter', 'booking', 'absence', 'stock', 'tool', 'sheet', 'unit', 'person', 'shop', 'batch'));
