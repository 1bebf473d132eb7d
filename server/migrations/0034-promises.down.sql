delete from proposal where kind = 'promise';
alter table proposal drop constraint proposal_kind_check;
alter table proposal add constraint proposal_kind_check check (kind in ('propose', 'mend'));
