drop index axle_taken_out;
drop index axle_unit;
drop index wheel_end_state;
alter table wheel_end drop column state;
drop index unit_in_order;
drop collation natural_order;
