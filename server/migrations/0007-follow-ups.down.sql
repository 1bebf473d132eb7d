drop index follow_up_position;
drop view open_follow_up;
