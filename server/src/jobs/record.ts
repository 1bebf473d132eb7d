import { entryOf, jobAggregate, toStoredEvent, type JobRows } from '@lanternwright/core/record';
import { fold, upcast, type Job, type StoredEvent } from '@lanternwright/core/traveller';
import type { Database } from '../database/connect.ts';
import { append, entriesOf } from '../record/append.ts';
import type { Link } from '../record/link.ts';
import { toEntry, type EntryRow } from '../record/model.ts';
import { project } from './projection.ts';

/** An event as the traveller takes it; a body of an old shape is lifted. */
export function toStored(row: EntryRow): StoredEvent {
  const entry = toEntry(row);
  return toStoredEvent({ ...entry, body: upcast(entry.body) });
}

export async function eventsOf(db: Database, jobId: string): Promise<StoredEvent[]> {
  return (await entriesOf(db, 'job', jobId)).map((e) => toStoredEvent({ ...e, body: upcast(e.body) }));
}

/** A job with the rows that lists keep of it. */
export interface Projected {
  job: Job;
  rows: JobRows;
}

/** Most jobs that are kept folded. */
const MOST_KEPT = 300;

/**
 * Jobs as they were folded last, so that a long one is not folded anew for every record. Whoever takes one must hold
 * the lock of its row and say its version: one that is not of that version is folded again.
 */
export function foldedJobs(db: Database) {
  const kept = new Map<string, Projected>();
  return {
    async at(jobId: string, version: number): Promise<Projected> {
      const known = kept.get(jobId);
      if (known?.job.version === version) return known;
      const job = fold(await eventsOf(db, jobId));
      return { job, rows: jobAggregate.project(job) };
    },
    /** Once what was recorded is kept for good. */
    keep(projected: Projected): void {
      kept.delete(projected.job.id);
      kept.set(projected.job.id, projected);
      if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
    },
  };
}

/**
 * Writes a job's rows and appends the event it ends with, in the open transaction.
 * @param before the job without that event; null for one that opens
 */
export async function store(
  db: Database,
  job: Job,
  before: Projected | null,
): Promise<Projected & { link: Link }> {
  const rows = await project(db, job, before);
  const link = await append(db, entryOf(job.events.at(-1)!));
  return { job, rows, link };
}
