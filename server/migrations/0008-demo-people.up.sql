alter table person add column demo boolean not null default false;
-- Until now only the name told who of a demo shop is made up.
update person set demo = true
where login in ('okonedo', 'thistlewood', 'achterberg', 'pellow', 'varga', 'brennock')
  and exists (select 1 from setting where name = 'demo' and value = 'true'::jsonb);
