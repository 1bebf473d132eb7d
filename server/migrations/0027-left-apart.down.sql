drop index wheel_end_left;
