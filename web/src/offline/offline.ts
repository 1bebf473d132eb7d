import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

interface Offline {
  /** When the oldest of what is shown from this device was fetched; null while the server answers. */
  since: string | null;
}

const slice = createSlice({
  name: 'offline',
  initialState: (): Offline => ({ since: null }),
  reducers: {
    serverAnswered(state) {
      state.since = null;
    },
    copyShown(state, { payload }: PayloadAction<string>) {
      if (state.since === null || payload < state.since) state.since = payload;
    },
  },
});

export const { serverAnswered, copyShown } = slice.actions;
export const offlineReducer = slice.reducer;
