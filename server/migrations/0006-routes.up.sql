-- A wheel end that a job ended out of service, until a later job has released it.
alter table wheel_end add column out_of_service jsonb;

-- Two follow-ups of one kind are possible: the first is 0.
alter table follow_up add column nth smallint not null default 0 check (nth between 0 and 20);
alter table follow_up drop constraint follow_up_pkey;
alter table follow_up add primary key (job_id, position, kind, nth);
