import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Command } from '@lanternwright/core/traveller';
import { newStore } from '../store.ts';
import { record, sendWaiting, takenOver } from './outbox.ts';

const command: Command = {
  kind: 'step-recorded',
  position: '2L',
  stage: 'diagnose',
  stepId: 'rock',
  round: 1,
  data: { kind: 'instruct' },
};

const hand = { id: 'p-1', name: 'D. Achterberg' };
const other = { id: 'p-2', name: 'M. Pellow' };
const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
/** Waits until something was sent and every sending has its answer. */
const settle = () =>
  vi.waitFor(() => {
    expect(sent.mock.results.length).toBeGreaterThan(0);
    expect(sent.mock.results.every((r) => r.type === 'return')).toBe(true);
  });
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
    store.dispatch(record('job-1', 4, command, hand));
    await settle();
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    const [kept] = JSON.parse(localStorage.getItem('lanternwright.outbox')!) as { id: string }[];
    sent.mockResolvedValueOnce(answer(200, { id: kept!.id, version: 5 }));
    await store.dispatch(sendWaiting(hand.id));
    const bodies = sent.mock.calls.map(
      ([, init]) => JSON.parse(init?.body as string) as { id: string; seenVersion: number },
    );
    expect(bodies.map((b) => b.id)).toEqual([kept!.id, kept!.id]);
    expect(bodies[1]).toMatchObject({ seenVersion: 4, command, as: hand.id });
    expect(store.getState().outbox).toMatchObject({ waiting: [], offline: false });
    expect(localStorage.getItem('lanternwright.outbox')).toBe('[]');
  });

  it('tells what the server refused and drops what was built on it', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command, hand));
    store.dispatch(record('job-1', 5, command, hand));
    store.dispatch(record('job-2', 1, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    sent.mockReset();
    sent
      .mockResolvedValueOnce(answer(409, { detail: 'D. Achterberg was first' }))
      .mockResolvedValueOnce(answer(200, { id: 'x', version: 2 }));
    await store.dispatch(sendWaiting(hand.id));
    expect(sent).toHaveBeenCalledTimes(2);
    expect(store.getState().outbox).toMatchObject({
      waiting: [],
      refusal: { jobId: 'job-1', text: 'D. Achterberg was first' },
    });
  });

  it('a refusal drops what was built on it on that wheel end, and nothing of the other', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command, hand));
    store.dispatch(record('job-1', 5, { ...command, position: '2R' }, hand));
    store.dispatch(record('job-1', 6, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    sent.mockReset();
    sent
      .mockResolvedValueOnce(answer(422, { detail: 'not at hand' }))
      .mockResolvedValueOnce(answer(200, { id: 'x', version: 5 }));
    await store.dispatch(sendWaiting(hand.id));
    const positions = sent.mock.calls.map(
      ([, init]) => (JSON.parse(init?.body as string) as { command: { position: string } }).command.position,
    );
    expect(positions).toEqual(['2L', '2R']);
    expect(store.getState().outbox.waiting).toEqual([]);
  });

  it('sends a record as who made it or not at all; a supervisor takes it over by name', async () => {
    sent.mockRejectedValueOnce(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
    sent.mockReset();
    await store.dispatch(sendWaiting(other.id));
    expect(sent).not.toHaveBeenCalled();
    expect(store.getState().outbox.waiting).toHaveLength(1);
    // Somebody else signed in between: the server says so, and the record stays.
    sent.mockResolvedValueOnce(answer(403, { detail: 'Somebody else recorded this' }));
    await store.dispatch(sendWaiting(hand.id));
    expect(store.getState().outbox.waiting).toHaveLength(1);
    store.dispatch(takenOver({ from: hand.id, by: other }));
    sent.mockResolvedValueOnce(answer(200, { id: 'x', version: 5 }));
    await store.dispatch(sendWaiting(other.id));
    expect(JSON.parse(sent.mock.calls[1]![1]?.body as string)).toMatchObject({ as: other.id });
    expect(store.getState().outbox.waiting).toEqual([]);
  });

  it('waits while the server is broken or nobody is signed in', async () => {
    for (const status of [500, 401]) {
      localStorage.clear();
      const store = newStore();
      sent.mockResolvedValueOnce(answer(status, { detail: 'not now' }));
      store.dispatch(record('job-1', 4, command, hand));
      await vi.waitFor(() => expect(store.getState().outbox.offline).toBe(true));
      expect(store.getState().outbox.waiting).toHaveLength(1);
    }
  });

  it('works where the browser has no randomUUID, as over plain HTTP in the workshop', async () => {
    vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    store.dispatch(record('job-1', 4, command, hand));
    expect(store.getState().outbox.waiting[0]?.id).toMatch(/^[0-9a-f-]{36}$/);
    await settle();
  });
});
