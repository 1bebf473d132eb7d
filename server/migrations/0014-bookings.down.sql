drop index meter_doubted;
drop table booking_claim, booking;
