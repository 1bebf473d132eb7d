import type { ForceFigure, Sheet, Step, StepData } from '../procedure/index.ts';
import type { Stack } from '../stack/index.ts';
import { verifyBy } from './verify-by.ts';

/** How a measuring step is answered. */
export interface MeasureWay {
  by: Sheet['verifyBy'];
  /** Where a pull is taken. */
  at: 'stud' | 'steering-arm';
  /** What the sheet asks of a pull; null where it has no figure. */
  figure: ForceFigure | null;
  /** A pull has to be measured, whatever the sheet says: by hand is not enough. */
  mustPull: boolean;
}

/**
 * How a measuring step is answered on a wheel end that is built so: the setting of its nut by the nut's kind, the
 * preload of its swivel bearings by the pull at the steering arm and by nothing else.
 */
export function measureWay(
  { stack, sheet }: { stack: Stack; sheet: Sheet },
  step: Pick<Step, 'id'>,
): MeasureWay {
  if (step.id === 'swivel-preload')
    return { by: 'drag', at: 'steering-arm', figure: sheet.swivelPull, mustPull: true };
  const by = verifyBy(stack, sheet);
  const figure = by === 'drag' ? sheet.drag : null;
  return { by, at: 'stud', figure, mustPull: figure !== null };
}

/** Between what a pull must lie, N: the sheet's figure, or what was read off the maker's; null where neither says. */
function pullAsked(
  figure: ForceFigure | null,
  { asked }: Extract<StepData, { kind: 'measure' }>,
): { least: { si: number }; most: { si: number } } | null {
  return figure ? { least: figure.min, most: figure.max } : (asked ?? null);
}

/** The side of its figure on which a measured pull lies; null where it fits or nothing says. */
export function pullOff(
  figure: ForceFigure | null,
  data: Extract<StepData, { kind: 'measure' }>,
): 'light' | 'heavy' | null {
  const asked = pullAsked(figure, data);
  if (!asked || !data.pull) return null;
  if (data.pull.si < asked.least.si) return 'light';
  return data.pull.si > asked.most.si ? 'heavy' : null;
}
