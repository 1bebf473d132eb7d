import { entryOf, jobAggregate, toStoredEvent, type Entry, type JobRows } from '@lanternwright/core/record';
import { fold, upcast, type Job, type StoredEvent } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { appending, entriesOf } from '../record/append.ts';
import { contentHash, type Link } from '../record/link.ts';
import { changedRows } from './projection.ts';

/** An event as the traveller takes it; a body of an old shape is lifted. */
export const toStored = (entry: Entry): StoredEvent => toStoredEvent({ ...entry, body: upcast(entry.body) });

export async function eventsOf(db: Database, jobId: string): Promise<StoredEvent[]> {
  return (await entriesOf(db, 'job', jobId)).map(toStored);
}

/** A job with the rows that lists keep of it. */
export interface Projected {
  job: Job;
  rows: JobRows;
}

/** Most jobs that are kept folded. */
const MOST_KEPT = 300;

const READ = `
  select j.version, u.owner_id as "ownerId" from job j join unit u on u.id = j.unit_id where j.id = $1`;

/** A job as it was folded last, and whose unit it is on. */
export interface Folded extends Projected {
  ownerId: string;
}

/**
 * Jobs as they were folded last, so that a long one is not folded anew for every record. They may be behind: what is
 * recorded on one that is, the database refuses.
 */
export function foldedJobs(db: Database) {
  const kept = new Map<string, Folded>();

  function keep(folded: Folded): Folded {
    const { id, version } = folded.job;
    if ((kept.get(id)?.job.version ?? 0) > version) return folded;
    kept.delete(id);
    kept.set(id, folded);
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
    return folded;
  }

  return {
    keep,

    /** As it was last seen here; null where it was not. */
    known: (jobId: string): Folded | null => kept.get(jobId) ?? null,

    /** As the database has it now; null where there is no such job. */
    async now(jobId: string): Promise<Folded | null> {
      const [row] = await prepared<{ version: number; ownerId: string }>(db, 'job-version', READ, [jobId]);
      if (!row) return null;
      const known = kept.get(jobId);
      if (known?.job.version === row.version) return known;
      const job = fold(await eventsOf(db, jobId));
      return keep({ job, rows: jobAggregate.project(job), ownerId: row.ownerId });
    },
  };
}

const STORE = `select * from store_on_job($1 ::uuid, $2, $3 ::jsonb, $4 ::jsonb, $5 ::jsonb, $6, $7 ::uuid,
  $8 ::timestamptz, $9 ::jsonb, $10 ::jsonb, $11)`;

/**
 * Writes a job's rows and appends the event it ends with: one statement, all or nothing.
 * @param before the job without that event; null for one that opens
 * @throws MovedOn when it is not the next any more
 */
export async function store(
  db: Database,
  job: Job,
  before: Projected | null,
): Promise<Projected & { link: Link }> {
  const rows = jobAggregate.project(job);
  const changed = changedRows(before?.rows ?? null, rows);
  const entry = entryOf(job.events.at(-1)!);
  const { id, at, by, body } = entry;
  const link = await appending(db, entry, STORE, [
    ...[job.id, before?.job.version ?? 0, changed.job, changed.readings, changed.followUps, changed.stands],
    ...[id, at, JSON.stringify(by), JSON.stringify(body), contentHash(entry)],
  ]);
  return { job, rows, link };
}
