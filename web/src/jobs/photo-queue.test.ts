import 'fake-indexeddb/auto';
import { clear, del, keys } from 'idb-keyval';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { newStore } from '../store.ts';
import { addPhoto, openPhotoQueue, sendPhotos } from './photo-queue.ts';

const sent = vi.fn<typeof fetch>();
const by = { id: 'p-1', name: 'D. Achterberg' };
const photo = { jobId: 'job-1', position: '2L', stage: 'inspect', caption: 'Step', by } as const;
const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });

const pictures = async () => (await keys<string>()).filter((key) => key.startsWith('photo/'));

beforeEach(async () => {
  await clear();
  localStorage.clear();
  sent.mockReset();
  vi.stubGlobal('fetch', sent);
});
afterEach(() => vi.unstubAllGlobals());

describe('photos on their way', () => {
  it('wait on the device while the network is gone, over a restart, and are sent once', async () => {
    sent.mockRejectedValueOnce(new TypeError('no network'));
    await newStore().dispatch(addPhoto(photo, 'anBlZw=='));
    expect(await pictures()).toHaveLength(1);
    const store = newStore();
    await store.dispatch(openPhotoQueue());
    expect(store.getState().photoQueue.waiting).toMatchObject([photo]);
    sent.mockResolvedValueOnce(answer(200, { id: 'photo-1', sha256: 'f'.repeat(64) }));
    sent.mockRejectedValue(new TypeError('no network'));
    await store.dispatch(sendPhotos(by.id));
    expect(store.getState().photoQueue.waiting).toEqual([]);
    expect(await pictures()).toEqual([]);
    expect(store.getState().outbox.waiting).toMatchObject([
      {
        jobId: 'job-1',
        command: { kind: 'photo-added', photoId: 'photo-1', position: '2L', caption: 'Step' },
      },
    ]);
    await store.dispatch(sendPhotos(by.id));
    const uploads = sent.mock.calls.filter(([url]) => String(url).endsWith('/photos'));
    expect(uploads).toHaveLength(2);
  });

  it('that the server refuses are named and not tried again', async () => {
    sent.mockResolvedValueOnce(answer(422, { detail: 'This picture is over 1.5 MB. Choose a smaller one' }));
    const store = newStore();
    await store.dispatch(addPhoto(photo, 'anBlZw=='));
    expect(store.getState().photoQueue).toMatchObject({
      waiting: [],
      refusal: { jobId: 'job-1', text: expect.stringContaining('over 1.5 MB') as string },
    });
    expect(store.getState().outbox.waiting).toEqual([]);
  });

  it('wait where the server has lost the session, and say what is gone from the device', async () => {
    sent.mockResolvedValueOnce(answer(401, { detail: 'Sign in first' }));
    const store = newStore();
    await store.dispatch(addPhoto(photo, 'anBlZw=='));
    expect(store.getState().photoQueue.waiting).toHaveLength(1);
    for (const key of await pictures()) await del(key);
    await store.dispatch(sendPhotos(by.id));
    expect(store.getState().photoQueue).toMatchObject({
      waiting: [],
      refusal: { text: expect.stringContaining('gone from this device') as string },
    });
  });
});
