import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { v4 as uuid } from 'uuid';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Problem } from '@lanternwright/contract/route';
import type { Command, StoredEvent } from '@lanternwright/core/traveller';
import type { AppDispatch, RootState } from '../store.ts';
import { eventArrived, jobsApi } from './jobs-api.ts';

/** Who recorded something: it is sent as that person or not at all. */
export interface Recorder {
  id: string;
  name: string;
}

/** A record on its way to the server. Its id makes sending it again harmless. */
export interface Waiting {
  id: string;
  jobId: string;
  seenVersion: number;
  command: Command;
  queuedAt: string;
  by: Recorder;
}

interface Outbox {
  waiting: Waiting[];
  /** The network is gone; what waits is kept on this device and sent when it is back. */
  offline: boolean;
  /** What the server said to the last record it did not take. */
  refusal: { jobId: string; text: string } | null;
}

/** The wheel end a record is of; what is of the whole job has none. */
function endOf(waiting: Waiting | undefined): string | undefined {
  const command = waiting?.command;
  return command && 'position' in command ? command.position : undefined;
}

const KEPT = 'lanternwright.outbox';

/** A record of the first build names nobody: it belongs to whoever is signed in next. */
const NOBODY: Recorder = { id: '', name: 'somebody, before an update' };

function kept(): Waiting[] {
  const text = localStorage.getItem(KEPT);
  const waiting = text ? (JSON.parse(text) as (Omit<Waiting, 'by'> & Partial<Pick<Waiting, 'by'>>)[]) : [];
  return waiting.map((w) => ({ ...w, by: w.by ?? NOBODY }));
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
      // What was queued behind it on the same wheel end was decided on a job that never was; the other ends stand.
      const refusedEnd = endOf(state.waiting.find((w) => w.id === payload.id));
      state.waiting = state.waiting.filter((w) => w.jobId !== payload.jobId || endOf(w) !== refusedEnd);
      state.offline = false;
      state.refusal = { jobId: payload.jobId, text: payload.text };
    },
    wentOffline(state) {
      state.offline = true;
    },
    /** A supervisor sends as their own what somebody else recorded here. */
    takenOver(state, { payload }: PayloadAction<{ from: string; by: Recorder }>) {
      for (const w of state.waiting) if (w.by.id === payload.from) w.by = payload.by;
    },
    refusalSeen(state) {
      state.refusal = null;
    },
  },
});

export const { refusalSeen, takenOver, wentOffline } = slice.actions;
const { queued, settled, refused } = slice.actions;
export const outboxReducer = slice.reducer;

let sending = false;

function keep(state: RootState): void {
  localStorage.setItem(KEPT, JSON.stringify(state.outbox.waiting));
}

/** Queues a record and sends what waits, in order. */
export function record(jobId: string, seenVersion: number, command: Command, { id, name }: Recorder) {
  return (dispatch: AppDispatch, getState: () => RootState): void => {
    const queuedAt = new Date().toISOString();
    const done = command.kind === 'step-recorded' || command.kind === 'reading-taken';
    const recorded = done ? { ...command, doneAt: queuedAt } : command;
    dispatch(queued({ id: uuid(), jobId, seenVersion, command: recorded, queuedAt, by: { id, name } }));
    keep(getState());
    void dispatch(sendWaiting(id));
  };
}

/**
 * Sends what waits and was recorded by one person, one after another. Another person's records stay on the device
 * until that person is back. Stops where the network does; called again when it is back.
 */
export function sendWaiting(personId: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<void> => {
    if (sending) return;
    sending = true;
    const own = () => getState().outbox.waiting.find((w) => w.by.id === personId || w.by.id === NOBODY.id);
    try {
      for (let next = own(); next; next = own()) {
        if (!(await sendOne(next, personId, dispatch))) break;
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
 * gone, the server is in trouble, the session has ended, or another person is signed in
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
  // 403: somebody else is signed in by now; it stays until who recorded it is back.
  const notThisPerson = status === 401 || status === 403;
  if (notThisPerson) dispatch(jobsApi.util.invalidateTags(['session']));
  return status < 500 && status !== 429 && !notThisPerson ? response : null;
}

/** @returns whether to go on with the next one */
async function sendOne(
  { id, jobId, seenVersion, command }: Waiting,
  personId: string,
  dispatch: AppDispatch,
): Promise<boolean> {
  const body = { id, seenVersion, command, as: personId };
  const response = await postWaiting(`/api/jobs/${jobId}/events`, body, dispatch);
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
