import type { ReaderUnits } from '@lanternwright/core/quantity';
import { useSetUnitsMutation } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { unitsChosen } from './preferences.ts';

/** The units in which whoever is signed in reads figures. */
export const useReader = (): ReaderUnits => useAppSelector((s) => s.preferences.units);

/** Changes them here at once, and wherever they sign in once the server has it. */
export function useChooseUnits(): (units: ReaderUnits) => void {
  const dispatch = useAppDispatch();
  const [setUnits] = useSetUnitsMutation();
  return (units) => {
    dispatch(unitsChosen(units));
    void setUnits(units);
  };
}
