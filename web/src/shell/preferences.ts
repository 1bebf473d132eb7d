import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { RuleUnit } from '../ui/thou-rule.tsx';

type Theme = 'day' | 'night';

interface Preferences {
  /** Unit in which end play is shown: thousandths of an inch or millimetres. */
  unit: RuleUnit;
  theme: Theme;
}

const UNIT = 'lanternwright.unit';
const THEME = 'lanternwright.theme';

const initialState: Preferences = {
  unit: localStorage.getItem(UNIT) === 'mm' ? 'mm' : 'in',
  theme: document.documentElement.dataset['theme'] === 'night' ? 'night' : 'day',
};

const slice = createSlice({
  name: 'preferences',
  initialState,
  reducers: {
    unitChosen(state, { payload }: PayloadAction<RuleUnit>) {
      state.unit = payload;
      localStorage.setItem(UNIT, payload);
    },
    themeChosen(state, { payload }: PayloadAction<Theme>) {
      state.theme = payload;
      localStorage.setItem(THEME, payload);
      document.documentElement.dataset['theme'] = payload;
    },
  },
});

export const { unitChosen, themeChosen } = slice.actions;
export const preferencesReducer = slice.reducer;
