import { practice } from './building.ts';
import type { Step } from './step.ts';

/** Stages before Adjust, the same for every family: recorded confirmations, in order. */
export const stepsBefore: readonly Step[] = [
  {
    id: 'rock',
    stage: 'diagnose',
    kind: 'joint',
    title: 'Rock the wheel',
    text: 'Lift and support. Rock at 12 and 6, then at 3 and 9 o’clock. Where it moves, set the indicator twice. Look at the other side in the same lift.',
    caution: 'Level ground, chocks, rated stands. Never under a jack alone.',
    ...practice,
  },
  {
    id: 'as-found',
    stage: 'diagnose',
    kind: 'measure',
    optional: true,
    title: 'End play as found',
    text: 'Before anything is loosened: base on the spindle end, tip square on the hub. Push and pull, three cycles. It tells how the last setting wore.',
    ...practice,
  },
  {
    id: 'readiness',
    stage: 'ready',
    kind: 'ready',
    title: 'Tools, parts and lubricant at hand',
    text: 'Before anything comes apart. A line that is missing stops the work, or somebody says why it goes on.',
    ...practice,
  },
  {
    id: 'hub-off',
    stage: 'tear-down',
    kind: 'instruct',
    title: 'Wheel and hub off',
    text: 'Break tight fasteners on the ground. Catch the oil, keep hardware in order, hold the outer bearing as the hub comes. Note what looked wrong.',
    caution:
      'Spring brakes caged or released by the book. Caliper on a hook, never on its hose. Hub and drum on a dolly. Brake dust as if it held asbestos: wet or vacuum, never blow.',
    ...practice,
  },
  {
    id: 'judge-parts',
    stage: 'inspect',
    kind: 'judge',
    title: 'Judge the parts',
    text: 'Clean first, then judge each one. What it asks for stands beside it with its reason.',
    caution: 'Never spin a bearing with compressed air. Hot hubs burn.',
    ...practice,
  },
  {
    id: 'cup-home',
    stage: 'clean-and-seat',
    kind: 'inspect',
    title: 'Cups home',
    text: 'Bore clean, cup square. The sound changes from dull to ringing, and a 0.005 in (0.13 mm) feeler does not enter behind the cup.',
    question: 'Is every cup home?',
    caution: 'Eye protection, soft drift. No hammer on hardened steel.',
    ...practice,
  },
  {
    id: 'hub-on',
    stage: 'assemble',
    kind: 'instruct',
    title: 'Pack, seal, hub on',
    text: 'Bearings packed or oiled, cavity coated and not filled, seal square at its depth with its lip lubricated, hub straight on, nut by hand.',
    caution: 'Wrong grease destroys. Never mix thickeners.',
    ...practice,
  },
];

/** Stages after the lock, the same for every family. */
export const stepsAfter: readonly Step[] = [
  {
    id: 'fill',
    stage: 'lock-and-fill',
    kind: 'fill',
    title: 'Fill and close',
    text: 'Oil to the mark with the unit level, or grease in the cap. Gasket or sealant, cap on square.',
    ...practice,
  },
  {
    id: 'brakes-back',
    stage: 'lock-and-fill',
    kind: 'linings',
    title: 'Brakes back',
    text: 'Linings measured inner and outer. Slides greased; adjuster tightened while turning until it can hardly be turned, then back until it just turns freely; self-adjusting units only checked. Pump the pedal until it is firm.',
    caution: 'Solvent and grease off linings.',
    ...practice,
  },
  {
    id: 'wheel-nuts',
    stage: 'wheel-on',
    kind: 'torque',
    figure: 'wheelTorque',
    title: 'Wheel nuts',
    text: 'Faces clean. Crossing pattern in stages, then all of them again at full torque.',
    caution: 'A wheel that comes off kills.',
    ...practice,
  },
  {
    id: 'final-look',
    stage: 'release',
    kind: 'inspect',
    title: 'Final look',
    text: 'Rotates freely, no drag, no leak, sensor lead clipped. Road check, then hub temperature on both sides.',
    question: 'Is it fit to go?',
    ...practice,
  },
];
