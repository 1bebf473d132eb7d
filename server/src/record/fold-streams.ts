import { z } from 'zod';
import { replay, type Entry } from '@lanternwright/core/record';
import { kindsOf, type Kind } from './kinds.ts';

/** What streams of a kind come to: rows by table, as JSON, and those whose records come to nothing. */
export interface Folded {
  rows: Record<string, string>;
  aside: { streamId: string; reason: string }[];
}

/**
 * Folds streams of a kind to their rows; one that does not fold is set aside, with why.
 * @param replayOf what a stream comes to, where its records alone do not say it; null where it has no rows
 */
export function foldStreams(
  { aggregate, rowsOf }: Kind<unknown>,
  streams: Iterable<[id: string, entries: Entry[]]>,
  replayOf: (entries: Entry[], id: string) => unknown = (entries) => replay(aggregate, entries),
): Folded {
  const aside: Folded['aside'] = [];
  const states: { id: string; state: unknown }[] = [];
  for (const [id, entries] of streams) {
    try {
      const state = replayOf(entries, id);
      if (state !== null) states.push({ id, state });
    } catch (error) {
      aside.push({ streamId: id, reason: error instanceof Error ? error.message : String(error) });
    }
  }
  return { rows: rowsOf(states), aside };
}

/** A page of jobs for a thread, as the database wrote it, and the numbers of those whose opening names none. */
export interface JobsToFold {
  json: string;
  numbers: ReadonlyMap<string, number>;
}

/** One row a job: its records in order as `EntryRow`; with named members it takes the database twice as long. */
export const JOBS_TO_FOLD = `
  select coalesce(json_agg(json_build_array(id, entries)), '[]') ::text as json from (
    select stream_id as id, json_agg(json_build_array(id, version, at, by, body) order by version) as entries
    from entry where stream = 'job' and stream_id = any($1 ::text[]) group by stream_id) jobs`;

type EntryRow = [id: string, version: number, at: string, by: Entry['by'], body: unknown];
const jobsSchema = z.array(z.tuple([z.string(), z.custom<EntryRow[]>(Array.isArray)]));

/** Folds a page of jobs. */
export function foldJobs({ json, numbers }: JobsToFold): Folded {
  const jobs = jobsSchema.parse(JSON.parse(json));
  const kind = kindsOf((id) => numbers.get(id)).find((k) => k.aggregate.stream === 'job')!;
  return foldStreams(
    kind,
    jobs.map(([streamId, rows]) => [
      streamId,
      rows.map(([id, version, at, by, body]) => ({
        ...{ id, stream: 'job', streamId, version, by, body },
        at: new Date(at).toISOString(),
      })),
    ]),
  );
}
