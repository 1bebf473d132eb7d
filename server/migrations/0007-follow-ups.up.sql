create index follow_up_by_date on follow_up (by_date) where done_at is null;
