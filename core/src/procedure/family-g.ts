import { askStep, chooseStep, doStep, lockStep, torqueStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family G: a semi-floating axle shaft held by a C-clip in the differential.
 * @source common practice, no single source
 */
export const semiFloating: Procedure = {
  id: 'g-c-clip',
  family: 'G',
  version: 1,
  title: 'Semi-floating axle shaft with C-clip',
  tools: ['Slide hammer with bearing puller', 'Seal and bearing drivers', 'Drain pan', 'Torque wrench'],
  singleUse: ['Shaft seal', 'Cover gasket or sealant', 'Medium threadlocker', 'Axle oil'],
  omits: ['as-found', 'cup-home', 'hub-on'],
  steps: [
    doStep(
      'tear-down',
      'drain',
      'Drain, cover off',
      'Catch the oil. Look at it: milky means water, glitter means metal.',
    ),
    doStep(
      'tear-down',
      'clip-out',
      'Cross pin out, C-clip out',
      'Push the shaft in, lift the clip, keep hardware in order.',
    ),
    doStep(
      'tear-down',
      'shaft-out',
      'Shaft, seal and bearing out',
      'Shaft straight out, then seal and bearing with the puller.',
    ),
    askStep('inspect', 'shaft-journal', 'Shaft where the bearing runs', [
      'The rollers run on the shaft itself: pitting or a step there is a new shaft.',
      'Is the shaft’s journal sound?',
    ]),
    askStep(
      'clean-and-seat',
      'bearing-home',
      'Bearing home',
      ['Driven in square until the sound changes.', 'Did the sound change, and is it square?'],
      { caution: 'Eye protection. The driver on the outer ring, never on the rollers.' },
    ),
    doStep('assemble', 'seal-in', 'Seal square', 'At its depth, lip lubricated.'),
    doStep(
      'assemble',
      'shaft-in',
      'Shaft back',
      'Without dragging on the seal; splines found by turning, not by force.',
    ),
    askStep('adjust', 'clip-in', 'C-clip and cross pin', [
      'Clip in its groove, shaft pulled out against it, cross pin through.',
      'Does the clip sit in its groove?',
    ]),
    torqueStep('adjust', 'pin-bolt', 'nutTorque', ['Pin bolt', 'Threadlocker on a clean thread.'], {
      makers: true,
    }),
    askStep('verify', 'shaft-free', 'Shaft free', [
      'Turn it, pull and push. A C-clip axle has a little end movement by design; rough running or a knock is trouble.',
      'Does it turn smoothly, without a knock?',
    ]),
    lockStep(
      ['Pin bolt locked', 'The cross pin cannot come out.'],
      [{ id: 'threadlocker', label: 'Pin bolt with threadlocker, to its torque' }],
      { caution: 'A pin that comes out lets the shaft and the wheel leave the axle.' },
    ),
    chooseStep(
      'lock-and-fill',
      'cover-joint',
      ['Cover joint', 'Both are accepted; a sealant’s cure time goes into the note.'],
      [
        { id: 'gasket', label: 'Gasket' },
        { id: 'sealant', label: 'Sealant, left to cure' },
      ],
    ),
    torqueStep(
      'lock-and-fill',
      'cover-bolts',
      'boltTorque',
      ['Cover bolts', 'In three stages, in a crossing pattern.'],
      { makers: true },
    ),
  ],
  readjust: [],
};
