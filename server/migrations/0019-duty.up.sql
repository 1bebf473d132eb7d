-- What makes a unit's work come sooner, and of what is due what it made come sooner.
alter table unit add column duty jsonb not null default '[]';
alter table due add column shortened jsonb not null default '[]';
