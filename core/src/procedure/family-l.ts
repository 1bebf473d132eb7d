import { askStep, doStep, lockStep, measureDrag, torqueStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family L: kingpin or swivel bearings in the knuckle, serviced with the hub off.
 * @source common practice, no single source
 */
export const swivelBearings: Procedure = {
  id: 'l-swivel',
  family: 'L',
  version: 1,
  title: 'Kingpin or swivel bearings',
  tools: ['Cup drivers', 'Pull scale', 'Heat gun', 'Torque wrench'],
  singleUse: ['Inner axle seal', 'Knuckle gaskets'],
  omits: ['as-found', 'cup-home', 'hub-on'],
  steps: [
    doStep(
      'tear-down',
      'hub-lock-bolts',
      'Hub-lock bolts first',
      'Broken loose before lifting, while the wheel holds the shaft.',
    ),
    doStep(
      'tear-down',
      'caps-off',
      'Swivel caps and cups out',
      'Cups out warm; plugs kept round; shims kept with their cap.',
      {
        caution: 'Heat only away from tyres and grease.',
      },
    ),
    askStep('clean-and-seat', 'races-dry', 'Races dry and home', [
      'Races dry and clean, so that they cannot turn.',
      'Are the races dry, clean and home?',
    ]),
    doStep('assemble', 'axle-seal', 'Inner axle seal', 'Dry on its outside, lubricated at the lip.'),
    askStep('assemble', 'two-greases', 'Two greases', [
      'Joint grease in the knuckle, wheel-bearing grease in the bearings: never the one in place of the other.',
      'Is each grease in its place?',
    ]),
    torqueStep('adjust', 'caps', 'boltTorque', ['Swivel caps', 'With their shims, in stages.'], {
      makers: true,
    }),
    measureDrag(),
    lockStep(
      ['Cap bolts locked', 'As the knuckle asks.'],
      [
        { id: 'torque-and-tab', label: 'Tab washers bent' },
        { id: 'threadlocker', label: 'Threadlocker, to their torque' },
      ],
    ),
  ],
  readjust: [],
};
