import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { usualReader, type ReaderUnits } from '@lanternwright/core/quantity';

type Theme = 'day' | 'night';

interface Preferences {
  /** Units in which figures are shown to whoever is signed in. */
  units: ReaderUnits;
  theme: Theme;
  /** Bay view: one step, large targets, a keypad; for a tablet on the trolley. */
  bay: boolean;
}

const THEME = 'lanternwright.theme';
const BAY = 'lanternwright.bay';

/** As it was last chosen on this device; on one that is worked by touch it is on until somebody wants the whole job. */
function startsInBay(): boolean {
  const chosen = localStorage.getItem(BAY);
  return chosen === null ? (window.matchMedia?.('(pointer: coarse)').matches ?? false) : chosen === 'on';
}

const initialState: Preferences = {
  units: usualReader,
  theme: document.documentElement.dataset['theme'] === 'night' ? 'night' : 'day',
  bay: startsInBay(),
};

const slice = createSlice({
  name: 'preferences',
  initialState,
  reducers: {
    unitsChosen(state, { payload }: PayloadAction<ReaderUnits>) {
      state.units = payload;
    },
    themeChosen(state, { payload }: PayloadAction<Theme>) {
      state.theme = payload;
      localStorage.setItem(THEME, payload);
      document.documentElement.dataset['theme'] = payload;
    },
    bayChosen(state, { payload }: PayloadAction<'on' | 'off'>) {
      state.bay = payload === 'on';
      localStorage.setItem(BAY, payload);
    },
  },
});

export const { unitsChosen, themeChosen, bayChosen } = slice.actions;
export const preferencesReducer = slice.reducer;
