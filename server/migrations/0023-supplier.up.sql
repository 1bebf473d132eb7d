-- Orders and returns that go to the supplier's own service, and what it says of them; the batch of what came.
alter table purchase add column online boolean not null default false;
alter table stock_movement add column online boolean, add column return_of integer, add column reference text,
  add column batch text;
