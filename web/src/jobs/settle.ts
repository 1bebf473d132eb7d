import { append, decide, describeRefusal, fold, type Actor, type Job } from '@lanternwright/core/traveller';
import type { AppDispatch } from '../store.ts';
import { jobsApi } from './jobs-api.ts';
import { letGo, type NotTaken } from './not-taken.ts';
import { queueAgain, type Recorder } from './outbox.ts';

const actorOf = ({ id, name }: Recorder, role: Actor['role']): Actor => ({ id, name, role });

/**
 * How far what was not taken fits the job as it stands now.
 * @returns why each record does not fit, in their order; null for one that does
 */
export function fitsNow(
  job: Job,
  { records }: NotTaken,
  role: Actor['role'],
  today: string,
): (string | null)[] {
  const now = new Date().toISOString();
  let next = job;
  return records.map(({ id, command, by, queuedAt }) => {
    const decision = decide(next, command, { by: actorOf(by, role), today, now });
    if (!decision.ok) return describeRefusal(decision.refusal, next);
    const event = {
      id,
      jobId: job.id,
      version: next.version + 1,
      at: queuedAt,
      by: actorOf(by, role),
      body: decision.event,
    };
    next = append(next, event);
    return null;
  });
}

/** Sends once more what fits the job as it stands now, and lets go of the rest, which was looked at. */
export function takeAgain(entry: NotTaken, by: Recorder, role: Actor['role'], today: string) {
  return async (dispatch: AppDispatch): Promise<void> => {
    const { data } = await dispatch(
      jobsApi.endpoints.job.initiate(entry.jobId, { subscribe: false, forceRefetch: true }),
    );
    if (!data) return;
    const job = fold(data.events);
    const why = fitsNow(job, entry, role, today);
    const fits = entry.records.filter((_, i) => why[i] === null);
    await dispatch(queueAgain(fits.map((w) => ({ ...w, by, seenVersion: job.version }))));
    await dispatch(letGo(entry.id));
  };
}
