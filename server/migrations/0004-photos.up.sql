-- Photos of a job, scaled before they are sent. The record holds their hash; the bytes are never changed.
create table photo (
  id uuid primary key,
  job_id uuid not null references job,
  jpeg bytea not null check (octet_length(jpeg) between 100 and 1500000),
  sha256 text not null check (sha256 ~ '^[0-9a-f]{64}$'),
  at timestamptz not null
);
create index photo_job on photo (job_id);
create trigger photo_append_only before update or delete on photo
  for each row execute function refuse_change();
create trigger photo_no_truncate before truncate on photo
  for each statement execute function refuse_change();
