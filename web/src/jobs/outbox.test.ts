import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Command } from '@lanternwright/core/traveller';
import { newStore } from '../store.ts';
import { record, sendWaiting } from './outbox.ts';

const command: Command = {
  kind: 'step-recorded',
  position: '2L',
  stage: 'diagnose',
  stepId: 'rock',
  round: 1,
  data: { kind: 'instruct' },
};

const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
const settle = () => vi.waitFor(() => expect(sent.mock.results.every((r) => r.type === 'return')).toBe(true));
const sent = vi.fn<typeof fetch>();

beforeEach(() => {
  localStorage.clear();
  sent.mockReset();
  vi.stubGlobal('fetch', sent);
});
afterEach(() => vi.unstubAllGlobals());

describe('outbox', () => {
  it('keeps what cannot be sent on the device and sends it later under the same id', async () => {
    sent.mockRejectedValueOnce(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command));
    await settle();
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    const [kept] = JSON.parse(localStorage.getItem('lanternwright.outbox')!) as { id: string }[];
    sent.mockResolvedValueOnce(answer(200, { id: kept!.id, version: 5 }));
    await store.dispatch(sendWaiting());
    const bodies = sent.mock.calls.map(
      ([, init]) => JSON.parse(init?.body as string) as { id: string; seenVersion: number },
    );
    expect(bodies.map((b) => b.id)).toEqual([kept!.id, kept!.id]);
    expect(bodies[1]).toMatchObject({ seenVersion: 4, command });
    expect(store.getState().outbox).toMatchObject({ waiting: [], offline: false });
    expect(localStorage.getItem('lanternwright.outbox')).toBe('[]');
  });

  it('tells what the server refused and drops what was built on it', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command));
    store.dispatch(record('job-1', 5, command));
    store.dispatch(record('job-2', 1, command));
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    sent.mockReset();
    sent
      .mockResolvedValueOnce(answer(409, { detail: 'D. Achterberg was first' }))
      .mockResolvedValueOnce(answer(200, { id: 'x', version: 2 }));
    await store.dispatch(sendWaiting());
    expect(sent).toHaveBeenCalledTimes(2);
    expect(store.getState().outbox).toMatchObject({
      waiting: [],
      refusal: { jobId: 'job-1', text: 'D. Achterberg was first' },
    });
  });

  it('waits while the server is broken or nobody is signed in', async () => {
    for (const status of [500, 401]) {
      localStorage.clear();
      const store = newStore();
      sent.mockResolvedValueOnce(answer(status, { detail: 'not now' }));
      store.dispatch(record('job-1', 4, command));
      await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
      expect(store.getState().outbox.waiting).toHaveLength(1);
    }
  });

  it('works where the browser has no randomUUID, as over plain HTTP in the workshop', async () => {
    vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command));
    expect(store.getState().outbox.waiting[0]?.id).toMatch(/^[0-9a-f-]{36}$/);
    await settle();
  });
});
