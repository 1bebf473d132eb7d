import { useCallback, useMemo } from 'react';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Person } from '@lanternwright/contract/people';
import {
  append,
  decide,
  describeRefusal,
  fold,
  type Actor,
  type Command,
  type Job,
} from '@lanternwright/core/traveller';
import { usePerson } from '../people/people-api.ts';
import { shopToday } from '../shell/words.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { useJobQuery } from './jobs-api.ts';
import { record, type Waiting } from './outbox.ts';

const actorOf = ({ id, name, role }: Person): Actor => ({ id, name, role });
const moment = () => ({ now: new Date().toISOString(), today: shopToday() });

/** The job with what is still on its way counted in, as `decide` sees it. */
function withWaiting(job: Job, waiting: readonly Waiting[], by: Actor): Job {
  const stored = new Set(job.events.map((e) => e.id));
  let next = job;
  for (const { id, command, queuedAt } of waiting) {
    if (stored.has(id)) continue;
    const decision = decide(next, command, { by, ...moment() });
    if (decision.ok)
      next = append(next, {
        id,
        jobId: job.id,
        version: next.version + 1,
        at: queuedAt,
        by,
        body: decision.event,
      });
  }
  return next;
}

export interface OpenJob {
  detail: JobDetail;
  job: Job;
  person: Person;
  /** Records a command. @returns why it cannot be, or null when it is on its way */
  send: (command: Command) => string | null;
}

/** A job on screen: folded here from its events, so that a record shows at once. */
export function useOpenJob(id: string): { open: OpenJob | null; error: unknown } {
  const dispatch = useAppDispatch();
  const person = usePerson();
  const { data: detail, error } = useJobQuery(id);
  const waiting = useAppSelector((s) => s.outbox.waiting);
  const job = useMemo(() => {
    if (!detail || !person) return null;
    return withWaiting(
      fold(detail.events),
      waiting.filter((w) => w.jobId === id && w.by.id === person.id),
      actorOf(person),
    );
  }, [detail, person, waiting, id]);
  const send = useCallback(
    (command: Command) => {
      if (!job || !person) return 'The job is not open yet';
      const decision = decide(job, command, { by: actorOf(person), ...moment() });
      if (!decision.ok) return describeRefusal(decision.refusal, job);
      void dispatch(record(id, job.version, command, person));
      return null;
    },
    [job, person, dispatch, id],
  );
  return { open: detail && job && person ? { detail, job, person, send } : null, error };
}
