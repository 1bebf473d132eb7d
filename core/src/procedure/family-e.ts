import { doStep, lockStep, measureEndPlay, torqueStep, turnStep } from './building.ts';
import type { Procedure, Step } from './step.ts';

const stake = lockStep(
  [
    'Stake the nut',
    'A new nut each time. Stake the collar into the slot with a blunt chisel, both notches where there are two.',
  ],
  [
    { id: 'staked-both', label: 'New nut, staked in both notches' },
    { id: 'staked-one', label: 'New nut, staked in its one notch' },
  ],
  { caution: 'A nut that is not staked walks loose within two years. No release without the stake.' },
);

const readjust: readonly Step[] = [
  doStep(
    'adjust',
    'new-nut',
    'New nut',
    'A stake that was lifted does not hold again: fit a new nut, run it to where the old one stood.',
  ),
  turnStep('planned-turn', 'planned', [
    'Turn the nut',
    'From where it stands, by what the reading asks for.',
  ]),
];

const shared = {
  family: 'E',
  version: 1,
  tools: ['Socket of the nut', 'Blunt chisel for staking', 'Screwdriver', 'Dial indicator'],
  singleUse: ['Staked nut', 'Hub seal'],
  readjust,
} as const;

const backOff = (id: string, title: string): Step =>
  turnStep(id, 'back-off', [title, 'Back off by a quarter turn, then turn the hub.']);

/**
 * Family E, keyed-washer school: set by whether the washer slides.
 * @source common practice, no single source
 */
export const stakedByWasher: Procedure = {
  ...shared,
  id: 'e-keyed-washer',
  title: 'Staked nut, set by the keyed washer',
  steps: [
    doStep('adjust', 'snug', 'Snug until tight', 'While the hub is turned.'),
    doStep(
      'adjust',
      'washer-slides',
      'Back off a little at a time',
      'Until the keyed washer can just be slid with a screwdriver.',
    ),
    measureEndPlay(),
    stake,
    torqueStep(
      'lock-and-fill',
      'caliper-bolts',
      'boltTorque',
      ['Caliper bolts', 'Caliper off its hook and on.'],
      {
        makers: true,
      },
    ),
  ],
};

/**
 * Family E, torque school (medium-duty front hub): two rounds, the second gains a little because grease has
 * been squeezed out.
 * @source common practice, no single source
 */
export const stakedByTorque: Procedure = {
  ...shared,
  id: 'e-torque',
  title: 'Staked nut, set by torque',
  tools: [...shared.tools, 'Torque wrench to 77 lbf·ft'],
  steps: [
    torqueStep('adjust', 'seat', 'seatTorque', ['Seat the bearings', 'Turn the hub meanwhile.']),
    backOff('back-off', 'Back off'),
    torqueStep('adjust', 'seat-2', 'seatTorque', [
      'Torque again',
      'The second round gains a little: grease has been squeezed out.',
    ]),
    backOff('back-off-2', 'Back off again'),
    measureEndPlay(),
    stake,
  ],
};
