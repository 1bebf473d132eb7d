-- Tools whose calibration counts. Records carry a copy of the tool as it was that day.
create table tool (
  id uuid primary key,
  code text not null check (length(code) between 1 and 20),
  tool jsonb not null,
  changed_at timestamptz not null,
  changed_by text not null,
  retired_at timestamptz
);
create unique index tool_code on tool (lower(code)) where retired_at is null;
