import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { RuleUnit } from '../ui/thou-rule.tsx';

type Theme = 'day' | 'night';

interface Preferences {
  /** Unit in which end play is shown: thousandths of an inch or millimetres. */
  unit: RuleUnit;
  theme: Theme;
  /** Bay view: one step, large targets, a keypad; for a tablet on the trolley. */
  bay: boolean;
}

const UNIT = 'lanternwright.unit';
const THEME = 'lanternwright.theme';
const BAY = 'lanternwright.bay';

const initialState: Preferences = {
  unit: localStorage.getItem(UNIT) === 'mm' ? 'mm' : 'in',
  theme: document.documentElement.dataset['theme'] === 'night' ? 'night' : 'day',
  bay: localStorage.getItem(BAY) === 'on',
};

const slice = createSlice({
  name: 'preferences',
  initialState,
  reducers: {
    unitChosen(state, { payload }: PayloadAction<RuleUnit>) {
      state.unit = payload;
      localStorage.setItem(UNIT, payload);
    },
    /** What the shop shows end play in, until somebody chooses another on this device. */
    unitOfShop(state, { payload }: PayloadAction<RuleUnit>) {
      if (localStorage.getItem(UNIT) === null) state.unit = payload;
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

export const { unitChosen, unitOfShop, themeChosen, bayChosen } = slice.actions;
export const preferencesReducer = slice.reducer;
