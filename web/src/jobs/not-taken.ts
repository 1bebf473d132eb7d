import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { AppDispatch } from '../store.ts';
import { deviceQueue } from './device-queue.ts';
import type { Waiting } from './outbox.ts';

/**
 * Records the server did not take, with those that were made on top of them on the same wheel end. They stay on this
 * device until somebody has settled what becomes of them.
 */
export interface NotTaken {
  /** Id of the record that was refused. */
  id: string;
  jobId: string;
  records: Waiting[];
  /** What the server said. */
  reason: string;
  at: string;
}

interface State {
  waiting: NotTaken[];
}

const queue = deviceQueue<NotTaken>('not-taken', { key: 'lanternwright.not-taken', read: () => [] });

const slice = createSlice({
  name: 'notTaken',
  initialState: (): State => ({ waiting: [] }),
  reducers: {
    loaded(state, { payload }: PayloadAction<NotTaken[]>) {
      state.waiting = payload;
    },
  },
});
const { loaded } = slice.actions;
export const notTakenReducer = slice.reducer;

const reload = async (dispatch: AppDispatch) => {
  dispatch(loaded(await queue.read()));
};

/** Shows what was not taken, and from then on what any tab adds or settles. */
export function openNotTaken() {
  return async (dispatch: AppDispatch): Promise<void> => {
    queue.onChange((list) => dispatch(loaded(list)));
    await reload(dispatch);
  };
}

/** Holds what the server did not take. The same one twice is one. */
export function holdNotTaken(entry: NotTaken) {
  return async (dispatch: AppDispatch): Promise<void> => {
    await queue.change((list) => [...list.filter((e) => e.id !== entry.id), entry]);
    await reload(dispatch);
  };
}

/** Lets go of what somebody has settled. */
export function letGo(id: string) {
  return async (dispatch: AppDispatch): Promise<void> => {
    await queue.change((list) => list.filter((e) => e.id !== id));
    await reload(dispatch);
  };
}
