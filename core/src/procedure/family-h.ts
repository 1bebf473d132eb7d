import { doStep, lockStep, measureDrag } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family H: two round lock nuts, or a nut with a screwed lock plate, set with a pin tool to a light drag.
 * @source common practice, no single source
 */
export const roundLockNuts: Procedure = {
  id: 'h-lock-nuts',
  family: 'H',
  version: 1,
  title: 'Two lock nuts or a lock plate',
  tools: ['Pin tool of the nuts', 'Pull scale', 'Snap-ring pliers'],
  singleUse: ['Hub seal', 'Hub gasket'],
  omits: ['as-found'],
  steps: [
    doStep(
      'adjust',
      'preload',
      'Preload until it drags lightly',
      'With the pin tool, hub turned meanwhile. Then turn it some more and set it again: the drag falls as the rollers settle.',
    ),
    measureDrag(),
    lockStep(
      [
        'Lock plate or second nut',
        'Plate with both screws, or the second nut against the first. One screw missing is a finding.',
      ],
      [
        { id: 'plate-two-screws', label: 'Lock plate, both screws' },
        { id: 'second-nut', label: 'Second nut tight, washer bent' },
      ],
      { caution: 'A nut that is not locked walks. No release without the lock.' },
    ),
  ],
  readjust: [],
};
