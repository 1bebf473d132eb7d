drop table proposal;
alter table service_done drop column minutes;
alter table booking_claim drop constraint booking_claim_clash;
delete from booking_claim where what = 'tool';
alter table booking_claim add constraint booking_claim_clash exclude using gist (
  int8range(hashtextextended(what || ' ' || of, 0), hashtextextended(what || ' ' || of, 0), '[]') with &&,
  during with &&
);
alter table booking_claim drop constraint booking_claim_what_check;
alter table booking_claim add constraint booking_claim_what_check check (what in ('bay', 'unit', 'person'));
alter table booking drop column tools, drop column locked;
drop table absence;
-- What is in the record stays in it, also of a stream that is not known any more.
alter table entry drop constraint entry_stream_check;
alter table entry add constraint entry_stream_check
  check (stream in ('job', 'meter', 'booking', 'stock', 'tool', 'sheet', 'unit', 'person', 'shop', 'batch')) not valid;
