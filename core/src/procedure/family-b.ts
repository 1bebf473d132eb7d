import { askStep, doStep, inRounds, lockStep, measureEndPlay, torqueStep, turnStep } from './building.ts';
import type { Procedure } from './step.ts';

const rotate = 'Turn the wheel at least one full turn while the nut is torqued.';

/**
 * Family B: a one-piece nut with a snap-in lock ring and key.
 * @source common practice, no single source; the band is that of TMC RP 618
 */
export const onePieceNut: Procedure = {
  id: 'b-lock-ring',
  family: 'B',
  version: 1,
  title: 'One-piece nut with lock ring',
  tools: ['Socket of the nut', 'Torque wrench to 200 lbf·ft', 'Dial indicator', 'Pick for the lock ring'],
  singleUse: ['Hub seal', 'Hub cap gasket'],
  steps: [
    ...inRounds(torqueStep('adjust', 'seat', 'seatTorque', ['Seat the bearings', rotate]), 3, 'required'),
    turnStep('loosen', -1, ['Back off one full turn', 'Until the nut is loose. Turn the wheel.']),
    ...inRounds(torqueStep('adjust', 'set', 'setTorque', ['Set torque', rotate]), 3, 'required'),
    turnStep('back-off', 'back-off', ['Final back-off', 'By the position, as the nut maker’s sheet says.']),
    askStep(
      'adjust',
      'ring-in',
      'Lock ring in',
      [
        'Marked face out, key in the keyway, every tooth engaged, first tab bottomed, and a gap left under the key.',
        'Is the ring in, with a gap under the key?',
      ],
      { caution: 'No gap under the key: stop and ask. Never run a ring that is not bottomed.' },
    ),
    measureEndPlay({ mark: 'published', source: 'TMC RP 618' }),
    lockStep(
      ['Lock ring and key', 'Look once more: key in the keyway, every tooth engaged, first tab bottomed.'],
      [{ id: 'ring-and-key', label: 'Lock ring snapped in, key in the keyway' }],
      { caution: 'A nut that is not locked walks. No release without the lock.' },
    ),
  ],
  readjust: [
    doStep('adjust', 'ring-out', 'Lock ring out', 'Lift the ring and leave the nut where it stands.'),
    turnStep('planned-turn', 'planned', [
      'Turn the nut',
      'From where it stands, by what the reading asks for.',
    ]),
    askStep('adjust', 'ring-in', 'Lock ring in', [
      'Marked face out, every tooth engaged, a gap under the key.',
      'Is the ring in, with a gap under the key?',
    ]),
  ],
};
