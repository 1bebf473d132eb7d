import { afterEach, describe, expect, it, vi } from 'vitest';
import { newStore } from '../store.ts';
import { takePathsForAddresses } from '../testing/whole-addresses.ts';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { eventArrived, jobsApi } from './jobs-api.ts';

afterEach(() => vi.unstubAllGlobals());

/** A server that answers every question for the job with what it holds at that moment, when it is let. */
function serverOf(t: TestJob) {
  const answers: (() => void)[] = [];
  takePathsForAddresses();
  vi.stubGlobal('fetch', () => {
    const events = [...t.job.events];
    return new Promise<Response>((resolve) => {
      answers.push(() => resolve(new Response(JSON.stringify({ events }), { status: 200 })));
    });
  });
  return answers;
}

const known = (store: ReturnType<typeof newStore>, id: string) =>
  jobsApi.endpoints.job.select(id)(store.getState()).data?.events.length;

/** A job that a page shows. */
async function onScreen() {
  const t = new TestJob(openingOn(['2L']));
  const answers = serverOf(t);
  const store = newStore();
  const reading = store.dispatch(jobsApi.endpoints.job.initiate(t.job.id));
  await vi.waitFor(() => expect(answers).toHaveLength(1));
  answers[0]!();
  await reading;
  return { t, answers, store, reading };
}

describe('a job and the live stream', () => {
  it('an event that comes while the job is being fetched is not lost', async () => {
    const t = new TestJob(openingOn(['2L']));
    const answers = serverOf(t);
    const store = newStore();
    const reading = store.dispatch(jobsApi.endpoints.job.initiate(t.job.id));
    await vi.waitFor(() => expect(answers).toHaveLength(1));
    // The answer under way was made before this record.
    t.workTo('2L', 'rock');
    store.dispatch(eventArrived(t.job.id, t.job.events.at(-1)!));
    answers[0]!();
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    answers[1]!();
    await vi.waitFor(() => expect(known(store, t.job.id)).toBe(t.job.events.length));
    reading.unsubscribe();
  });

  it('an answer that is older than what came meanwhile takes nothing back', async () => {
    const { t, answers, store, reading } = await onScreen();
    const again = store.dispatch(jobsApi.endpoints.job.initiate(t.job.id, { forceRefetch: true }));
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    t.workTo('2L', 'rock');
    for (const event of t.job.events) store.dispatch(eventArrived(t.job.id, event));
    answers[1]!();
    await again;
    expect(known(store, t.job.id)).toBe(t.job.events.length);
    reading.unsubscribe();
    again.unsubscribe();
  });

  it('an event of another job fetches nothing; one after a gap fetches its own job again', async () => {
    const { t, answers, store, reading } = await onScreen();
    t.workTo('2L', 'rock');
    const last = t.job.events.at(-1)!;
    store.dispatch(eventArrived('another-job', last));
    expect(answers).toHaveLength(1);
    store.dispatch(eventArrived(t.job.id, last));
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    answers[1]!();
    await vi.waitFor(() => expect(known(store, t.job.id)).toBe(t.job.events.length));
    reading.unsubscribe();
  });
});
