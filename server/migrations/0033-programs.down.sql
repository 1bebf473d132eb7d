drop table delivery;
drop table webhook;
drop table program_token;
