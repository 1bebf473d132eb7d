delete from follow_up where kind <> 'retorque';
alter table follow_up drop constraint follow_up_kind_check;
alter table follow_up add constraint follow_up_kind_check check (kind in ('retorque'));
alter table follow_up drop column what;

alter table job drop column stopped;
