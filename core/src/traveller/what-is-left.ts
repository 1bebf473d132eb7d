import { carrySide, type StoredSide } from '../assembly/index.ts';
import { closuresOf } from './route-progress.ts';
import { isAsFound } from './is-as-found.ts';
import type { Job, WheelEnd } from './job.ts';

/**
 * What a job leaves of the metal of a wheel end: what the next job on its axle begins from. Null where nothing is left
 * to say.
 */
export function whatIsLeft({ stopped, id, events }: Job, w: WheelEnd): StoredSide | null {
  const { side, release } = w;
  // A wheel end that is as it was hands on what it got, with what it had not settled.
  if (!release && isAsFound(w) && stopped?.as !== 'out-of-service') return w.began;
  const { counts } = closuresOf(w);
  if (release) return carrySide(side, counts);
  if (stopped?.as !== 'out-of-service') return carrySide(side, counts);
  const { reason, at, by } = stopped;
  const mark = { seq: 0, eventId: events.at(-1)!.id, jobId: id, at, by: by.name };
  return carrySide({ ...side, left: { reason, mark } }, counts);
}
