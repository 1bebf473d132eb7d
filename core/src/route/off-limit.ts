import type { Sheet, StepData } from '../procedure/index.ts';
import type { Stack } from '../stack/index.ts';
import type { Act } from './act.ts';
import { isPastLimit } from './brake-wear.ts';
import { measureWay, pullOff } from './measure-way.ts';
import { rollingFigure, rollingOff, shimsOff } from './preload.ts';

/** Whether what was measured is off its limit or figure: it stays on record and does not count. */
export function isOffLimit(
  { stack, sheet }: { stack: Stack; sheet: Sheet },
  act: Act,
  data: StepData,
): boolean {
  switch (data.kind) {
    case 'rolling':
      return rollingOff(rollingFigure(sheet, data), data) !== null;
    case 'shims':
      return shimsOff(data) !== null;
    case 'measure':
      return pullOff(measureWay({ stack, sheet }, act).figure, data) !== null;
    default:
      return isPastLimit(act, data);
  }
}
