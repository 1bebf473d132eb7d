import { practice } from './building.ts';
import type { SharedVersion, Step } from './step.ts';

/** Stages before Adjust, the same for every family: recorded confirmations, in order. */
const stepsBefore: readonly Step[] = [
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
const stepsAfter: readonly Step[] = [
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
    id: 'hub-heat',
    stage: 'release',
    kind: 'heat',
    optional: true,
    title: 'Hub heat after the road',
    text: 'After the road check, both sides of the axle at the same place. A hub that is much warmer than its other side is looked at again before it goes.',
    caution: 'Hot hubs burn.',
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

/** What looked wrong as it came apart; it tells why, when the parts are judged. */
const lookedWrong: Step = {
  id: 'looked-wrong',
  stage: 'tear-down',
  kind: 'found',
  title: 'What looked wrong',
  text: 'As it came apart, before anything is cleaned. It tells why a setting was lost.',
  signs: [
    { id: 'nut-loose', label: 'Nut finger-loose' },
    { id: 'not-locked', label: 'Nut not locked: no stake, pin or tang' },
    { id: 'washer-missing', label: 'Washer missing' },
    { id: 'cap-rubbing', label: 'Cap rubbing the spindle end' },
    { id: 'seal-in-pieces', label: 'Seal in pieces' },
    { id: 'wrong-grease', label: 'Wrong grease' },
    { id: 'metal', label: 'Metal in the cap or the grease' },
    { id: 'water', label: 'Water' },
  ],
  ...practice,
};

const comparing: Step = {
  id: 'compare',
  stage: 'inspect',
  kind: 'compare',
  title: 'New beside old',
  text: 'Before it goes in: bore, outside diameter, width, stud count, sensor, number.',
  ...practice,
};

const sealing: Step = {
  id: 'seal',
  stage: 'assemble',
  kind: 'seal',
  title: 'Seal in',
  text: 'Square, lip lubricated, its lips on sound journal and clear of the old groove.',
  caution: 'No hammer on the seal itself: driver or flat block.',
  mark: 'published',
  source: 'ISO 6194-1 for the journal, common practice for the depth',
};

const packing: Step = {
  id: 'pack',
  stage: 'assemble',
  kind: 'pack',
  title: 'Pack the bearings',
  text: 'Grease until it comes through the rollers, cavity coated and not filled; in an oil hub, oil on both bearings.',
  caution: 'Wrong grease destroys. Never mix thickeners.',
  ...practice,
};

const hubOn: Step = {
  ...stepsBefore.find((s) => s.id === 'hub-on')!,
  title: 'Hub on',
  text: 'Straight on to the spindle without dragging the seal; outer bearing, washer, nut by hand.',
};

const secondBefore = stepsBefore.flatMap((s) => (s.id === 'hub-on' ? [packing, sealing, hubOn] : [s]));
// After a family's own steps of the same stage: only then is all of it apart, and every part judged.
const secondAfter = [
  lookedWrong,
  comparing,
  ...stepsAfter.map((s): Step => (s.kind === 'fill' ? { ...s, joint: true } : s)),
];

/**
 * Steps that every family shares, by version. The second records what looked wrong, new beside old, how the
 * bearings were packed, how deep the seal sits, and what closes the cap.
 */
export const sharedSteps: Record<SharedVersion, { before: readonly Step[]; after: readonly Step[] }> = {
  1: { before: stepsBefore, after: stepsAfter },
  2: { before: secondBefore, after: secondAfter },
};
