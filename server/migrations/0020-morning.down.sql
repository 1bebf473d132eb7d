drop table morning_sent;
