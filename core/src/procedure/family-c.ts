import { lockStep, measureEndPlay, torqueStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family C: a pre-set hub with a bearing spacer, one nut torque and no back-off.
 * @source common practice, no single source
 */
export const presetHub: Procedure = {
  id: 'c-preset',
  family: 'C',
  version: 1,
  title: 'Pre-set hub with a bearing spacer',
  tools: ['Socket of the nut', 'Torque wrench to 300 lbf·ft', 'Dial indicator'],
  singleUse: ['Hub seal', 'Hub cap gasket'],
  steps: [
    torqueStep('adjust', 'set', 'setTorque', [
      'Nut to its torque',
      'The spacer sets the bearings. One torque, wheel turned meanwhile, no back-off.',
    ]),
    measureEndPlay({
      text: 'Measure all the same. Out of the ceiling, the cartridge is replaced or the spacer is wrong: it cannot be adjusted.',
    }),
    lockStep(
      ['Lock the nut', 'As the nut asks: washer, lock ring or set screw.'],
      [
        { id: 'tang-bent', label: 'Tang bent over a flat' },
        { id: 'ring-and-key', label: 'Lock ring and key' },
        { id: 'set-screw', label: 'Set screw in the washer' },
      ],
      { caution: 'A nut that is not locked walks. No release without the lock.' },
    ),
  ],
  readjust: [],
};
