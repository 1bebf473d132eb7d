import {
  append,
  decide,
  describeRefusal,
  fold,
  sentOn,
  type Actor,
  type Job,
} from '@lanternwright/core/traveller';
import type { AppDispatch } from '../store.ts';
import { jobsApi } from './jobs-api.ts';
import { letGo, type NotTaken } from './not-taken.ts';
import { queueAgain, type Recorder } from './outbox.ts';

/** Whose record it is, as the server will take it; one of the first build names nobody, and is the sender's. */
const actorOf = (by: Recorder, person: Actor): Actor => sentOn(by.id === '' ? person : by, person);

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
    const sentBy = { id: person.id, name: person.name };
    await dispatch(
      queueAgain(
        fits.map((w) => ({
          ...w,
          sentBy: w.by.id === person.id ? undefined : sentBy,
          seenVersion: job.version,
        })),
        person.id,
      ),
    );
    await dispatch(letGo(entry.id));
  };
}
