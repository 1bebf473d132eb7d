import type { Calculation } from '../calculation/index.ts';
import { endPlayCalculation } from '../end-play/index.ts';
import { nutSettingCalculation, nutTravelCalculation } from '../nut/index.ts';
import { convertCalculation } from '../quantity/index.ts';

/** Every calculation, once, in the order of the work. */
export const calculations: readonly Calculation[] = [
  endPlayCalculation,
  nutSettingCalculation,
  nutTravelCalculation,
  convertCalculation,
] as unknown as readonly Calculation[];
