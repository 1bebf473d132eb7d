import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { v4 as uuid } from 'uuid';
import type { JobDetail } from '@lanternwright/contract/jobs';
import { NOT_RECORDING } from '@lanternwright/contract/problem';
import type { Problem } from '@lanternwright/contract/route';
import type { Command, StoredEvent } from '@lanternwright/core/traveller';
import type { AppDispatch } from '../store.ts';
import { deviceQueue } from './device-queue.ts';
import { eventArrived, jobsApi } from './jobs-api.ts';
import { holdNotTaken } from './not-taken.ts';

/** Who recorded something: it stays theirs, whoever sends it. */
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
  /** Who may send it on besides whoever made it. */
  sentBy?: Recorder;
}

/** A record of the first build names nobody: it belongs to whoever is signed in next. */
const NOBODY: Recorder = { id: '', name: 'somebody, before an update' };

/** Whether a person's session sends it: that of whoever made it, or of who was to send it on. */
export const maySend = ({ by, sentBy }: Pick<Waiting, 'by' | 'sentBy'>, personId: string | undefined) =>
  [NOBODY.id, personId].includes(by.id) || (sentBy !== undefined && sentBy.id === personId);

/**
 * The network is gone, the server is there and its database takes nothing or it is in other trouble, or it is not the
 * person who recorded it who is signed in.
 */
export type Hindrance = 'no-network' | 'not-recording' | 'trouble' | 'another-person';

interface Outbox {
  waiting: Waiting[];
  /** Why what waits is not sent just now; it is kept on this device and sent when that is over. */
  hindrance: Hindrance | null;
  /** Why this browser cannot hold what waits; null where it can. */
  cannotHold: string | null;
  /** What the server said to the last record it did not take. */
  refusal: { jobId: string; text: string } | null;
}

/** The wheel end a record is of; what is of the whole job has none. */
function endOf(waiting: Waiting | undefined): string | undefined {
  const command = waiting?.command;
  return command && 'position' in command ? command.position : undefined;
}

const queue = deviceQueue<Waiting>('outbox', {
  key: 'lanternwright.outbox',
  read: (entry) => [{ by: NOBODY, ...(entry as Omit<Waiting, 'by'>) }],
});

/** Records that are shown already and on their way into the browser's database. */
const notHeldYet = new Set<string>();

/** What is left when one record was refused: what was queued behind it on the same wheel end was decided on a job that never was. */
function withoutRefused(
  waiting: readonly Waiting[],
  { id, jobId }: Pick<Waiting, 'id' | 'jobId'>,
): Waiting[] {
  const refusedEnd = endOf(waiting.find((w) => w.id === id));
  return waiting.filter((w) => w.jobId !== jobId || endOf(w) !== refusedEnd);
}

const sendFor = (waiting: readonly Waiting[], from: string, sentBy: Recorder): Waiting[] =>
  waiting.map((w) => (w.by.id === from ? { ...w, sentBy } : w));

const slice = createSlice({
  name: 'outbox',
  initialState: (): Outbox => ({ waiting: [], hindrance: null, cannotHold: null, refusal: null }),
  reducers: {
    /** What the device holds, whichever tab put it there. */
    loaded(state, { payload }: PayloadAction<Waiting[]>) {
      state.waiting = [...payload, ...state.waiting.filter((w) => notHeldYet.has(w.id))];
    },
    queued(state, { payload }: PayloadAction<Waiting>) {
      state.waiting.push(payload);
      state.refusal = null;
    },
    settled(state, { payload }: PayloadAction<string>) {
      state.waiting = state.waiting.filter((w) => w.id !== payload);
      state.hindrance = null;
    },
    refused(state, { payload }: PayloadAction<{ id: string; jobId: string; text: string }>) {
      state.waiting = withoutRefused(state.waiting, payload);
      state.hindrance = null;
      state.refusal = { jobId: payload.jobId, text: payload.text };
    },
    cannotHold(state, { payload }: PayloadAction<string>) {
      state.cannotHold = payload;
    },
    hindered(state, { payload }: PayloadAction<Hindrance>) {
      state.hindrance = payload;
    },
    sentOn(state, { payload: { from, by } }: PayloadAction<{ from: string; by: Recorder }>) {
      state.waiting = sendFor(state.waiting, from, by);
    },
    refusalSeen(state) {
      state.refusal = null;
    },
  },
});

export const { hindered, refusalSeen } = slice.actions;
const { cannotHold, loaded, queued, settled, refused, sentOn } = slice.actions;
export const outboxReducer = slice.reducer;

const why = (error: unknown) => (error instanceof Error ? error.message : String(error));

/** Shows what the device holds, and from then on what any tab of it adds or sends. */
export function openOutbox() {
  return async (dispatch: AppDispatch): Promise<void> => {
    queue.onChange((list) => dispatch(loaded(list)));
    try {
      dispatch(loaded(await queue.read()));
    } catch (error) {
      dispatch(cannotHold(why(error)));
    }
  };
}

/**
 * Queues a record and sends what waits, in order. It shows at once.
 * @returns when the device holds it
 */
export function record(jobId: string, seenVersion: number, command: Command, { id: by, name }: Recorder) {
  return async (dispatch: AppDispatch): Promise<void> => {
    const queuedAt = new Date().toISOString();
    const done = command.kind === 'step-recorded' || command.kind === 'reading-taken';
    const recorded = done ? { ...command, doneAt: queuedAt } : command;
    const id = uuid();
    const waiting = { id, jobId, seenVersion, command: recorded, queuedAt, by: { id: by, name } };
    notHeldYet.add(id);
    dispatch(queued(waiting));
    try {
      await queue.add(waiting);
    } catch (error) {
      dispatch(cannotHold(why(error)));
      dispatch(refused({ id, jobId, text: 'This browser could not hold it: it was not recorded' }));
      return;
    } finally {
      notHeldYet.delete(id);
    }
    void dispatch(sendWaiting(by));
  };
}

/** Puts records into the queue that were there before, and sends them. */
export function queueAgain(records: readonly Waiting[], personId: string) {
  return async (dispatch: AppDispatch): Promise<void> => {
    await queue.change((list) => [...list, ...records]);
    for (const waiting of records) dispatch(queued(waiting));
    await dispatch(sendWaiting(personId));
  };
}

/** A supervisor sends on what somebody else recorded here: it stays theirs, and says who sent it. */
export function sendOnFor(from: string, by: Recorder) {
  return async (dispatch: AppDispatch): Promise<void> => {
    await queue.change((list) => sendFor(list, from, by));
    dispatch(sentOn({ from, by }));
    await dispatch(sendWaiting(by.id));
  };
}

/**
 * Sends what waits and was recorded by one person, one after another. Another person's records stay on the device
 * until that person is back. Stops where the network does; called again when it is back. Where the server cannot take
 * a record just now, that job waits and the others go on.
 */
export function sendWaiting(personId: string) {
  return (dispatch: AppDispatch): Promise<void> =>
    queue.alone(async () => {
      const stuck = new Set<string>();
      // Read anew each time: another tab may have sent the next one, or added to it.
      const own = async () => (await queue.read()).find((w) => maySend(w, personId) && !stuck.has(w.jobId));
      for (let next = await own(); next; next = await own()) {
        const hindrance = await sendOne(next, personId, dispatch);
        if (hindrance === 'trouble') stuck.add(next.jobId);
        else if (hindrance !== null) return;
      }
      if (stuck.size > 0) dispatch(hindered('trouble'));
    });
}

/** Whether the shop's database takes nothing just now, as its server says; a proxy's answer is none of ours. */
const isNotRecording = (response: Response): Promise<boolean> =>
  response.json().then(
    (problem: Partial<Problem> | null) => problem?.code === NOT_RECORDING,
    () => false,
  );

/**
 * Posts something that can wait.
 * @returns the server's verdict, or why there is none yet and it has to be sent again
 */
export async function postWaiting(
  url: string,
  body: unknown,
  dispatch: AppDispatch,
): Promise<Response | Hindrance> {
  let response: Response;
  try {
    response = await fetch(url, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    return 'no-network';
  }
  const { status } = response;
  if (status === 503 && (await isNotRecording(response))) return 'not-recording';
  if (status >= 500 || status === 429) return 'trouble';
  if (status !== 401 && status !== 403) return response;
  // The session has ended, or somebody else is signed in by now: it stays until who recorded it is back.
  dispatch(jobsApi.util.invalidateTags(['session']));
  return 'another-person';
}

/** @returns null where it is settled, one way or the other */
async function sendOne(
  { id, jobId, seenVersion, command, by }: Waiting,
  personId: string,
  dispatch: AppDispatch,
): Promise<Hindrance | null> {
  const recordedBy = [NOBODY.id, personId].includes(by.id) ? undefined : by.id;
  const body = { id, seenVersion, command, as: personId, recordedBy };
  const response = await postWaiting(`/api/jobs/${jobId}/events`, body, dispatch);
  if (!(response instanceof Response)) {
    dispatch(hindered(response));
    return response;
  }
  if (response.ok) {
    const event = (await response.json()) as StoredEvent;
    dispatch(eventArrived(jobId, event));
    await queue.change((list) => list.filter((w) => w.id !== id));
    dispatch(settled(id));
    return null;
  }
  const problem = (await response.json()) as Problem & { job?: JobDetail };
  if (problem.job) dispatch(jobsApi.util.upsertQueryData('job', jobId, problem.job));
  const all = await queue.read();
  const left = new Set(withoutRefused(all, { id, jobId }));
  const records = all.filter((w) => !left.has(w));
  // Held there before it is let go here: nothing is lost between.
  await dispatch(holdNotTaken({ id, jobId, records, reason: problem.detail, at: new Date().toISOString() }));
  await queue.change((list) => withoutRefused(list, { id, jobId }));
  dispatch(refused({ id, jobId, text: problem.detail }));
  return null;
}
