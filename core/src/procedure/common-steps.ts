import { practice } from './building.ts';
import type { Step } from './step.ts';

/** Stages before Adjust, the same for every family: recorded confirmations, in order. */
export const stepsBefore: readonly Step[] = [
  {
    id: 'rock',
    stage: 'diagnose',
    kind: 'instruct',
    title: 'Rock the wheel',
    text: 'Lift and support. Rock at 12 and 6, then at 3 and 9 o’clock. Say which joint moves; look at the other side in the same lift.',
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
    kind: 'instruct',
    title: 'Tools, parts and lubricant at hand',
    text: 'Sockets, torque wrench in calibration, seal, cotter or washer, lubricant of the kind in the hub, stands and dolly.',
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
    kind: 'instruct',
    title: 'Judge the parts',
    text: 'Clean first. Cups, rollers, cage, spindle, seal seat, studs, nut and washer. Pitting, heat tint or a damaged cage: replace cone and cup together.',
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
    kind: 'inspect',
    title: 'Brakes back',
    text: 'Linings measured inner and outer, slides greased, adjuster backed off until the wheel just turns freely. Pump the pedal until it is firm.',
    question: 'Are the linings over their minimum and the brake back?',
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
