drop index follow_up_by_date;
