-- Projections only: what does not fit the narrower key is written again by npm run rebuild-projections.
delete from follow_up where nth > 0;
alter table follow_up drop constraint follow_up_pkey;
alter table follow_up drop column nth;
alter table follow_up add primary key (job_id, position, kind);
alter table wheel_end drop column out_of_service;
