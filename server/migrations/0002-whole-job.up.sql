-- A job can be held or voided; besides the retorque, other things are looked after once a wheel end is out.
alter table job add column stopped jsonb;

alter table follow_up add column what text not null default '';
alter table follow_up drop constraint follow_up_kind_check;
alter table follow_up add constraint follow_up_kind_check
  check (kind in ('retorque', 'oil-level', 'temporary', 'deferred', 'other-side'));
