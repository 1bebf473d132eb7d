-- A day that somebody asks for is looked for as a plan is.
alter table proposal drop constraint proposal_kind_check;
alter table proposal add constraint proposal_kind_check check (kind in ('propose', 'mend', 'promise'));
