import { append, decide, describeRefusal, fold, type Actor, type Job } from '@lanternwright/core/traveller';
import type { AppDispatch } from '../store.ts';
import { jobsApi } from './jobs-api.ts';
import { letGo, type NotTaken } from './not-taken.ts';
import { queueAgain, type Recorder } from './outbox.ts';

/** Whose record it is, as the server will take it: what another person sends on stays theirs. */
const actorOf = (by: Recorder, { id, name, role }: Actor): Actor =>
  by.id === id || by.id === '' ? { id, name, role } : { ...by, role: 'technician', sentBy: { id, name } };

/**
 * How far what was not taken fits the job as it stands now.
 * @returns why each record does not fit, in their order; null for one that does
 */
export function fitsNow(job: Job, { records }: NotTaken, person: Actor, today: string): (string | null)[] {
  const now = new Date().toISOString();
  let next = job;
  return records.map(({ id, command, by, queuedAt }) => {
    const recorder = actorOf(by, person);
    const decision = decide(next, command, { by: recorder, today, now });
    if (!decision.ok) return describeRefusal(decision.refusal, next);
    const event = {
      id,
      jobId: job.id,
      version: next.version + 1,
      at: queuedAt,
      by: recorder,
      body: decision.event,
    };
    next = append(next, event);
    return null;
  });
}

/** Sends once more what fits the job as it stands now, and lets go of the rest, which was looked at. */
export function takeAgain(entry: NotTaken, person: Actor, today: string) {
  return async (dispatch: AppDispatch): Promise<void> => {
    const { data } = await dispatch(
      jobsApi.endpoints.job.initiate(entry.jobId, { subscribe: false, forceRefetch: true }),
    );
    if (!data) return;
    const job = fold(data.events);
    const why = fitsNow(job, entry, person, today);
    const fits = entry.records.filter((_, i) => why[i] === null);
    const { id, name } = person;
    await dispatch(
      queueAgain(
        fits.map((w) => ({
          ...w,
          ...(w.by.id === id ? {} : { sentBy: { id, name } }),
          seenVersion: job.version,
        })),
      ),
    );
    await dispatch(letGo(entry.id));
  };
}
