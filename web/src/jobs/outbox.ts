import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { v4 as uuid } from 'uuid';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Problem } from '@lanternwright/contract/route';
import type { Command, StoredEvent } from '@lanternwright/core/traveller';
import type { AppDispatch, RootState } from '../store.ts';
import { eventArrived, jobsApi } from './jobs-api.ts';

/** A record on its way to the server. Its id makes sending it again harmless. */
export interface Waiting {
  id: string;
  jobId: string;
  seenVersion: number;
  command: Command;
  queuedAt: string;
}

interface Outbox {
  waiting: Waiting[];
  /** The network is gone; what waits is kept on this device and sent when it is back. */
  offline: boolean;
  /** What the server said to the last record it did not take. */
  refusal: { jobId: string; text: string } | null;
}

const KEPT = 'lanternwright.outbox';

function kept(): Waiting[] {
  const text = localStorage.getItem(KEPT);
  return text ? (JSON.parse(text) as Waiting[]) : [];
}

const slice = createSlice({
  name: 'outbox',
  initialState: (): Outbox => ({ waiting: kept(), offline: false, refusal: null }),
  reducers: {
    queued(state, { payload }: PayloadAction<Waiting>) {
      state.waiting.push(payload);
      state.refusal = null;
    },
    settled(state, { payload }: PayloadAction<string>) {
      state.waiting = state.waiting.filter((w) => w.id !== payload);
      state.offline = false;
    },
    refused(state, { payload }: PayloadAction<{ id: string; jobId: string; text: string }>) {
      // What was queued behind it on the same job was decided on a job that never was.
      state.waiting = state.waiting.filter((w) => w.jobId !== payload.jobId);
      state.offline = false;
      state.refusal = { jobId: payload.jobId, text: payload.text };
    },
    wentOffline(state) {
      state.offline = true;
    },
    refusalSeen(state) {
      state.refusal = null;
    },
  },
});

export const { refusalSeen, wentOffline } = slice.actions;
const { queued, settled, refused } = slice.actions;
export const outboxReducer = slice.reducer;

let sending = false;

function keep(state: RootState): void {
  localStorage.setItem(KEPT, JSON.stringify(state.outbox.waiting));
}

/** Queues a record and sends what waits, in order. */
export function record(jobId: string, seenVersion: number, command: Command) {
  return (dispatch: AppDispatch, getState: () => RootState): void => {
    dispatch(queued({ id: uuid(), jobId, seenVersion, command, queuedAt: new Date().toISOString() }));
    keep(getState());
    void dispatch(sendWaiting());
  };
}

/** Sends what waits, one after another. Stops where the network does; called again when it is back. */
export function sendWaiting() {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    if (sending) return;
    sending = true;
    try {
      for (let next = getState().outbox.waiting[0]; next; next = getState().outbox.waiting[0]) {
        if (!(await sendOne(next, dispatch))) break;
        keep(getState());
      }
    } finally {
      sending = false;
    }
  };
}

/**
 * Posts something that can wait.
 * @returns the server's verdict, or null where there is none yet and it has to be sent again: the network is
 * gone, the server is in trouble, or the session has ended
 */
export async function postWaiting(
  url: string,
  body: unknown,
  dispatch: AppDispatch,
): Promise<Response | null> {
  let response: Response;
  try {
    response = await fetch(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    return null;
  }
  const { status } = response;
  if (status === 401) dispatch(jobsApi.util.invalidateTags(['session']));
  return status < 500 && status !== 429 && status !== 401 ? response : null;
}

/** @returns whether to go on with the next one */
async function sendOne(
  { id, jobId, seenVersion, command }: Waiting,
  dispatch: AppDispatch,
): Promise<boolean> {
  const response = await postWaiting(`/api/jobs/${jobId}/events`, { id, seenVersion, command }, dispatch);
  if (!response) {
    dispatch(wentOffline());
    return false;
  }
  if (response.ok) {
    const event = (await response.json()) as StoredEvent;
    dispatch(eventArrived(jobId, event));
    dispatch(settled(id));
    return true;
  }
  const problem = (await response.json()) as Problem & { job?: JobDetail };
  if (problem.job) dispatch(jobsApi.util.upsertQueryData('job', jobId, problem.job));
  dispatch(refused({ id, jobId, text: problem.detail }));
  return true;
}
