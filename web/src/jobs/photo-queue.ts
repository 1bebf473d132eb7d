import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { v4 as uuid } from 'uuid';
import { del, get, set } from 'idb-keyval';
import type { Problem } from '@lanternwright/contract/route';
import type { Stage } from '@lanternwright/core/procedure';
import type { AppDispatch, RootState } from '../store.ts';
import { deviceQueue } from './device-queue.ts';
import { jobsApi } from './jobs-api.ts';
import { hindered, postWaiting, record, type Hindrance, type Recorder } from './outbox.ts';

/** A photo on its way to the server; its picture lies in this browser's own database meanwhile. */
export interface PendingPhoto {
  id: string;
  jobId: string;
  position: string;
  stage: Stage;
  component?: string;
  caption: string;
  by: Recorder;
}

interface PhotoQueue {
  waiting: PendingPhoto[];
  /** What the server said to the last photo it did not take. */
  refusal: { jobId: string; text: string } | null;
}

const queue = deviceQueue<PendingPhoto>('photos', {
  key: 'lanternwright.photos',
  // A photo of the first build names nobody, and cannot be sent as anybody.
  read: (entry) => ('by' in (entry as object) ? [entry as PendingPhoto] : []),
});
const pictureKey = (id: string) => `photo/${id}`;

const slice = createSlice({
  name: 'photoQueue',
  initialState: (): PhotoQueue => ({ waiting: [], refusal: null }),
  reducers: {
    loaded(state, { payload }: PayloadAction<PendingPhoto[]>) {
      state.waiting = payload;
    },
    queued(state, { payload }: PayloadAction<PendingPhoto>) {
      state.waiting.push(payload);
      state.refusal = null;
    },
    settled(state, { payload }: PayloadAction<string>) {
      state.waiting = state.waiting.filter((w) => w.id !== payload);
    },
    refused(state, { payload }: PayloadAction<{ jobId: string; text: string }>) {
      state.refusal = payload;
    },
  },
});
const { loaded, queued, settled, refused } = slice.actions;
export const photoQueueReducer = slice.reducer;

/** Shows what photos wait on this device, and from then on what any tab of it adds or sends. */
export function openPhotoQueue() {
  return async (dispatch: AppDispatch): Promise<void> => {
    queue.onChange((list) => dispatch(loaded(list)));
    dispatch(loaded(await queue.read()));
  };
}

/** Queues a photo, a JPEG in base64, and sends it as soon as the server can be reached. */
export function addPhoto(photo: Omit<PendingPhoto, 'id'>, jpeg: string) {
  return async (dispatch: AppDispatch): Promise<void> => {
    const waiting = { id: uuid(), ...photo };
    await set(pictureKey(waiting.id), jpeg);
    await queue.change((list) => [...list, waiting]);
    dispatch(queued(waiting));
    await dispatch(sendPhotos(photo.by.id));
  };
}

/**
 * Sends the photos that one person took, one after another. Stops where the network does; called again when it is
 * back.
 */
export function sendPhotos(personId: string) {
  return (dispatch: AppDispatch, getState: () => RootState): Promise<void> =>
    queue.alone(async () => {
      const stuck = new Set<string>();
      const own = async () => (await queue.read()).find((w) => w.by.id === personId && !stuck.has(w.id));
      for (let next = await own(); next; next = await own()) {
        const { id } = next;
        const hindrance = await sendOne(next, dispatch, getState);
        if (hindrance === 'trouble') stuck.add(id);
        else if (hindrance !== null) return;
        if (hindrance !== null) continue;
        await queue.change((list) => list.filter((w) => w.id !== id));
        dispatch(settled(id));
        await del(pictureKey(id));
      }
    });
}

/** @returns null where it is settled, one way or the other */
async function sendOne(
  { id, jobId, position, stage, component, caption, by }: PendingPhoto,
  dispatch: AppDispatch,
  getState: () => RootState,
): Promise<Hindrance | null> {
  const jpeg = await get<string>(pictureKey(id));
  if (jpeg === undefined) {
    dispatch(refused({ jobId, text: 'A photo that waited is gone from this device. Take it again.' }));
    return null;
  }
  const response = await postWaiting(`/api/jobs/${jobId}/photos`, { jpeg }, dispatch);
  if (!(response instanceof Response)) {
    dispatch(hindered(response));
    return response;
  }
  if (!response.ok) {
    const { detail } = (await response.json()) as Problem;
    dispatch(refused({ jobId, text: `${detail}. The photo was not kept.` }));
    return null;
  }
  const { id: photoId, sha256 } = (await response.json()) as { id: string; sha256: string };
  const seen = jobsApi.endpoints.job.select(jobId)(getState()).data?.events.length ?? 1;
  const of = component ? { component } : {};
  // The record must be held before the photo is let go.
  await dispatch(
    record(jobId, seen, { kind: 'photo-added', position, stage, photoId, sha256, ...of, caption }, by),
  );
  return null;
}
