import { askStep, doStep, lockStep, measureEndPlay, torqueStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family F: a unitised hub, bolted on whole. Nothing to adjust: no movement at all is acceptable by feel.
 * @source common practice, no single source
 */
export const unitisedHub: Procedure = {
  id: 'f-unitised',
  family: 'F',
  version: 1,
  title: 'Unitised bolt-on hub',
  tools: ['Axle nut socket', 'Torque wrenches for hub bolts and axle nut', 'Hub puller', 'Dial indicator'],
  singleUse: ['Cotter', 'Medium threadlocker'],
  omits: ['as-found', 'cup-home', 'hub-on', 'fill'],
  steps: [
    doStep(
      'tear-down',
      'hub-bolts-out',
      'Axle nut and hub bolts out',
      'Break the axle nut on the ground. Sensor lead off its clips; note how it ran.',
    ),
    askStep('inspect', 'axle-joint', 'Axle joint', [
      'Move the axle joint by hand. Look at the other side’s hub as well.',
      'Is the axle joint free of play?',
    ]),
    doStep(
      'clean-and-seat',
      'bore-clean',
      'Bore and splines clean',
      'Bare metal in the bore. Anti-seize on splines and bore.',
    ),
    doStep(
      'assemble',
      'hub-in',
      'New hub in',
      'Straight over the splines, flange home against the knuckle, sensor lead through as it was.',
    ),
    torqueStep(
      'adjust',
      'hub-bolts',
      'boltTorque',
      ['Hub bolts', 'Four bolts, medium threadlocker, tightened alternately side to side.'],
      { makers: true },
    ),
    torqueStep(
      'adjust',
      'axle-nut',
      'nutTorque',
      ['Axle nut', 'To the maker’s sheet, wheel off the ground.'],
      {
        makers: true,
      },
    ),
    measureEndPlay({
      title: 'No movement',
      text: 'Push and pull, rock at 12 and 6. By feel, no movement at all is acceptable; by dial, the maker’s limit.',
    }),
    lockStep(
      ['New cotter in the axle nut', 'A new pin each time, both legs dealt with.'],
      [
        { id: 'cotter', label: 'New cotter, legs bent' },
        { id: 'prevailing-torque', label: 'New self-locking nut' },
      ],
    ),
    askStep('lock-and-fill', 'sensor-lead', 'Sensor lead', [
      'Routed as it was, every clip in, clear of wheel and shaft through full lock.',
      'Is the lead clipped and clear?',
    ]),
  ],
  readjust: [],
};
