-- Sheets that the shop revised or copied; those the product comes with are in the code, at revision 1.
create table sheet_revision (
  sheet_id text not null check (sheet_id ~ '^[a-z0-9-]{1,60}$'),
  revision integer not null check (revision >= 1),
  sheet jsonb not null,
  at timestamptz not null,
  by text not null,
  note text not null,
  primary key (sheet_id, revision)
);
create trigger sheet_revision_append_only before update or delete on sheet_revision
  for each row execute function refuse_change();
create trigger sheet_revision_no_truncate before truncate on sheet_revision
  for each statement execute function refuse_change();
