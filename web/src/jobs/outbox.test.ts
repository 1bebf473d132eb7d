import 'fake-indexeddb/auto';
import { clear, get } from 'idb-keyval';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Command } from '@lanternwright/core/traveller';
import { newStore } from '../store.ts';
import { openOutbox, record, sendOnFor, sendWaiting, type Waiting } from './outbox.ts';

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

const held = async () => (await get<Waiting[]>('lanternwright.outbox')) ?? [];

beforeEach(async () => {
  await clear();
  localStorage.clear();
  sent.mockReset();
  vi.stubGlobal('fetch', sent);
});
afterEach(() => vi.unstubAllGlobals());

describe('outbox', () => {
  it('keeps what cannot be sent on the device and sends it later under the same id', async () => {
    sent.mockRejectedValueOnce(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    await settle();
    await vi.waitFor(() => expect(store.getState().outbox.hindrance).not.toBeNull());
    const [kept] = await held();
    sent.mockResolvedValueOnce(answer(200, { id: kept!.id, version: 5 }));
    await store.dispatch(sendWaiting(hand.id));
    const bodies = sent.mock.calls.map(
      ([, init]) => JSON.parse(init?.body as string) as { id: string; seenVersion: number },
    );
    expect(bodies.map((b) => b.id)).toEqual([kept!.id, kept!.id]);
    expect(bodies[1]).toMatchObject({ seenVersion: 4, command, as: hand.id });
    expect(store.getState().outbox).toMatchObject({ waiting: [], hindrance: null });
    expect(await held()).toEqual([]);
  });

  it('tells what the server refused and drops what was built on it', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    await store.dispatch(record('job-1', 5, command, hand));
    await store.dispatch(record('job-2', 1, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.hindrance).not.toBeNull());
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
    await store.dispatch(record('job-1', 4, command, hand));
    await store.dispatch(record('job-1', 5, { ...command, position: '2R' }, hand));
    await store.dispatch(record('job-1', 6, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.hindrance).not.toBeNull());
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

  it('sends a record of who is signed in; a supervisor sends on what another made, and it stays theirs', async () => {
    sent.mockRejectedValueOnce(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.hindrance).not.toBeNull());
    sent.mockReset();
    await store.dispatch(sendWaiting(other.id));
    expect(sent).not.toHaveBeenCalled();
    expect(store.getState().outbox.waiting).toHaveLength(1);
    // Somebody else signed in between: the server says so, and the record stays.
    sent.mockResolvedValueOnce(answer(403, { detail: 'Somebody else recorded this' }));
    await store.dispatch(sendWaiting(hand.id));
    expect(store.getState().outbox.waiting).toHaveLength(1);
    sent.mockResolvedValueOnce(answer(200, { id: 'x', version: 5 }));
    await store.dispatch(sendOnFor(hand.id, other));
    expect(JSON.parse(sent.mock.calls[1]![1]?.body as string)).toMatchObject({
      as: other.id,
      recordedBy: hand.id,
    });
    expect(store.getState().outbox.waiting).toEqual([]);
  });

  it('what a supervisor was to send on goes as the maker’s own where the maker is back first', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    await store.dispatch(sendOnFor(hand.id, other));
    await settle();
    sent.mockReset();
    sent.mockResolvedValueOnce(answer(200, { id: 'x', version: 5 }));
    await store.dispatch(sendWaiting(hand.id));
    const [first] = sent.mock.calls;
    expect(JSON.parse(first?.[1]?.body as string)).toMatchObject({ as: hand.id });
    expect(JSON.parse(first?.[1]?.body as string)).not.toHaveProperty('recordedBy');
    expect(store.getState().outbox.waiting).toEqual([]);
  });

  it('waits while the server is broken or nobody is signed in', async () => {
    for (const status of [500, 401]) {
      await clear();
      const store = newStore();
      sent.mockResolvedValueOnce(answer(status, { detail: 'not now' }));
      await store.dispatch(record('job-1', 4, command, hand));
      await vi.waitFor(() => expect(store.getState().outbox.hindrance).not.toBeNull());
      expect(store.getState().outbox.waiting).toHaveLength(1);
    }
  });

  it('tells no network from a server in trouble, and one job that cannot go holds up no other', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    await store.dispatch(record('job-1', 5, command, hand));
    await store.dispatch(record('job-2', 1, command, hand));
    await vi.waitFor(() => expect(store.getState().outbox.hindrance).toBe('no-network'));
    await settle();
    sent.mockReset();
    sent.mockImplementation(async (url) =>
      String(url).includes('job-1')
        ? answer(500, { detail: 'Something broke here' })
        : answer(200, { id: 'x', version: 2 }),
    );
    await store.dispatch(sendWaiting(hand.id));
    // The record behind the one that could not go was not tried: order holds within a job.
    const tried = new Set(
      sent.mock.calls.map(
        ([, init]) => (JSON.parse(init?.body as string) as { seenVersion: number }).seenVersion,
      ),
    );
    expect([...tried].sort()).toEqual([1, 4]);
    const { waiting, hindrance } = store.getState().outbox;
    expect(waiting.map((w) => w.jobId)).toEqual(['job-1', 'job-1']);
    expect(hindrance).toBe('trouble');
  });

  it('tells a database that takes nothing from a proxy with nothing behind it; both keep the record', async () => {
    const answers = [
      [{ detail: 'Nothing can be recorded', code: 'not-recording' }, 'not-recording'],
      [{ detail: 'Not ours' }, 'trouble'],
      [null, 'trouble'],
    ] as const;
    for (const [problem, hindrance] of answers) {
      sent.mockReset();
      sent.mockImplementation(async () => answer(503, problem));
      const store = newStore();
      await store.dispatch(record('job-1', 4, command, hand));
      await vi.waitFor(() => expect(store.getState().outbox.hindrance).toBe(hindrance));
      expect(store.getState().outbox.waiting).toHaveLength(1);
      await clear();
    }
  });

  it('works where the browser has no randomUUID, as over plain HTTP in the workshop', async () => {
    vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
    sent.mockRejectedValue(new TypeError('no network'));
    const store = newStore();
    await store.dispatch(record('job-1', 4, command, hand));
    expect(store.getState().outbox.waiting[0]?.id).toMatch(/^[0-9a-f-]{36}$/);
    await settle();
  });

  it('holds what waits over a restart, and what an earlier build kept is moved over once', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    await newStore().dispatch(record('job-1', 4, command, hand));
    await settle();
    const old = { id: 'old', jobId: 'job-1', seenVersion: 3, command, queuedAt: '2026-11-01T08:00:00.000Z' };
    localStorage.setItem('lanternwright.outbox', JSON.stringify([old]));
    for (const store of [newStore(), newStore()]) {
      await store.dispatch(openOutbox());
      expect(store.getState().outbox.waiting).toMatchObject([{ by: hand }, { id: 'old', by: { id: '' } }]);
    }
    expect(localStorage.getItem('lanternwright.outbox')).toBeNull();
  });

  it('holds a record from the tap on: the page may be left before the browser’s database has it', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    const left = newStore();
    const never = vi.spyOn(IDBFactory.prototype, 'open').mockImplementation(() => ({}) as IDBOpenDBRequest);
    vi.resetModules();
    const page = await import('./outbox.ts');
    void left.dispatch(page.record('job-1', 4, command, hand));
    never.mockRestore();
    const store = newStore();
    await store.dispatch(openOutbox());
    expect(store.getState().outbox.waiting).toMatchObject([{ jobId: 'job-1', seenVersion: 4, by: hand }]);
    expect(await held()).toHaveLength(1);
    expect(localStorage.getItem('lanternwright.outbox')).toBeNull();
  });

  it('two tabs share one list: what one adds the other shows, and each record is sent once', async () => {
    sent.mockRejectedValue(new TypeError('no network'));
    vi.resetModules();
    const tab = { store: (await import('../store.ts')).newStore(), ...(await import('./outbox.ts')) };
    const store = newStore();
    await store.dispatch(openOutbox());
    await tab.store.dispatch(tab.openOutbox());
    await Promise.all([
      store.dispatch(record('job-1', 4, command, hand)),
      tab.store.dispatch(tab.record('job-2', 4, command, hand)),
    ]);
    await vi.waitFor(() => {
      for (const s of [store, tab.store]) expect(s.getState().outbox.waiting).toHaveLength(2);
    });
    await settle();
    sent.mockReset();
    sent.mockImplementation(async () => answer(200, { id: 'x', version: 5 }));
    await store.dispatch(sendWaiting(hand.id));
    await tab.store.dispatch(tab.sendWaiting(hand.id));
    expect(sent).toHaveBeenCalledTimes(2);
    await vi.waitFor(() => {
      for (const s of [store, tab.store]) expect(s.getState().outbox.waiting).toEqual([]);
    });
  });

  it('says so where the browser cannot hold a record, and does not show it as recorded', async () => {
    const store = newStore();
    const open = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('no room left', 'QuotaExceededError');
    });
    await store.dispatch(record('job-1', 4, command, hand));
    open.mockRestore();
    expect(sent).not.toHaveBeenCalled();
    expect(store.getState().outbox).toMatchObject({
      waiting: [],
      cannotHold: expect.stringContaining('no room left') as string,
      refusal: { jobId: 'job-1' },
    });
    await store.dispatch(openOutbox());
    expect(store.getState().outbox.waiting).toEqual([]);
  });
});
