import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { v4 as uuid } from 'uuid';
import { del, get, set } from 'idb-keyval';
import type { Problem } from '@lanternwright/contract/route';
import type { Stage } from '@lanternwright/core/procedure';
import type { AppDispatch, RootState } from '../store.ts';
import { jobsApi } from './jobs-api.ts';
import { postWaiting, record, wentOffline, type Recorder } from './outbox.ts';

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

const KEPT = 'lanternwright.photos';
const pictureKey = (id: string) => `photo/${id}`;

function kept(): PendingPhoto[] {
  const text = localStorage.getItem(KEPT);
  const waiting = text ? (JSON.parse(text) as (PendingPhoto | Omit<PendingPhoto, 'by'>)[]) : [];
  // A photo of the first build names nobody, and cannot be sent as anybody.
  return waiting.filter((w): w is PendingPhoto => 'by' in w);
}

const slice = createSlice({
  name: 'photoQueue',
  initialState: (): PhotoQueue => ({ waiting: kept(), refusal: null }),
  reducers: {
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
const { queued, settled, refused } = slice.actions;
export const photoQueueReducer = slice.reducer;

function keep(state: RootState): void {
  localStorage.setItem(KEPT, JSON.stringify(state.photoQueue.waiting));
}

/** Queues a photo, a JPEG in base64, and sends it as soon as the server can be reached. */
export function addPhoto(photo: Omit<PendingPhoto, 'id'>, jpeg: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    const id = uuid();
    await set(pictureKey(id), jpeg);
    dispatch(queued({ id, ...photo }));
    keep(getState());
    await dispatch(sendPhotos(photo.by.id));
  };
}

let sending = false;

/**
 * Sends the photos that one person took, one after another. Stops where the network does; called again when it is
 * back.
 */
export function sendPhotos(personId: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    if (sending) return;
    sending = true;
    try {
      const own = () => getState().photoQueue.waiting.find((w) => w.by.id === personId);
      for (let next = own(); next; next = own()) {
        if (!(await sendOne(next, dispatch, getState))) break;
        dispatch(settled(next.id));
        keep(getState());
        await del(pictureKey(next.id));
      }
    } finally {
      sending = false;
    }
  };
}

/** @returns whether it is settled, one way or the other */
async function sendOne(
  { id, jobId, position, stage, component, caption, by }: PendingPhoto,
  dispatch: AppDispatch,
  getState: () => RootState,
): Promise<boolean> {
  const jpeg = await get<string>(pictureKey(id));
  if (jpeg === undefined) {
    dispatch(refused({ jobId, text: 'A photo that waited is gone from this device. Take it again.' }));
    return true;
  }
  const response = await postWaiting(`/api/jobs/${jobId}/photos`, { jpeg }, dispatch);
  if (!response) {
    dispatch(wentOffline());
    return false;
  }
  if (!response.ok) {
    const { detail } = (await response.json()) as Problem;
    dispatch(refused({ jobId, text: `${detail}. The photo was not kept.` }));
    return true;
  }
  const { id: photoId, sha256 } = (await response.json()) as { id: string; sha256: string };
  const seen = jobsApi.endpoints.job.select(jobId)(getState()).data?.events.length ?? 1;
  const of = component ? { component } : {};
  dispatch(
    record(jobId, seen, { kind: 'photo-added', position, stage, photoId, sha256, ...of, caption }, by),
  );
  return true;
}
