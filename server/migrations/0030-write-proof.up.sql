-- One row that is written now and then: whether anything can be recorded is known by doing it.
create table write_proof (
  one boolean primary key default true check (one),
  at timestamptz not null
);
