import { doStep, lockStep, practice, torqueStep } from './building.ts';
import type { Procedure, Step } from './step.ts';

const turned: Step = {
  kind: 'rotate',
  turns: 5,
  stage: 'adjust',
  id: 'rotate',
  title: 'Turn the hub',
  text: 'Five times or more, both ways: the rollers seat by turning, not by torque.',
  ...practice,
};

const rolling: Step = {
  kind: 'rolling',
  stage: 'verify',
  id: 'rolling-torque',
  title: 'Rolling torque',
  text: 'Cord round the hub and pull scale, or a torque gauge: read while it turns steadily, never the breakaway. Carrier and sun shaft out, brake released.',
  caution: 'New bearings have a figure of their own: run-in ones turn lighter.',
  ...practice,
};

const fixings = [
  { id: 'plate-bent', label: 'Lock plate bent over a flat' },
  { id: 'bolts-wired', label: 'Bolts wired together' },
  { id: 'nut-punched', label: 'Nut punched into its slot' },
  { id: 'set-screw', label: 'Set screw in, with threadlocker' },
];
const never = { caution: 'A nut or plate that is not locked walks. No release without the lock.' };

/**
 * Family N, by the nut: two tapered bearings drawn together until they turn with the torque that the maker asks for.
 * @source makers' practice, no single source
 */
const byNut: Procedure = {
  id: 'n-planetary',
  family: 'N',
  version: 1,
  title: 'Hub with reduction, preloaded by its nut',
  tools: ['Pin tool of the nut', 'Cord for the pull scale'],
  singleUse: ['Face seal', 'Cover gasket or O-ring'],
  steps: [
    doStep(
      'adjust',
      'run-up',
      'Nut run up',
      'In small steps, the hub turned between them, until the slack is out and it begins to turn heavier.',
      { caution: 'Never back and forth to find the figure: past it, back off a whole turn and begin anew.' },
    ),
    turned,
    rolling,
    lockStep(['Lock the nut', 'As this nut asks; nothing of it used twice.'], fixings, never),
  ],
  readjust: [],
};

/**
 * Family N, by shims: the stack of shims under the retainer sets the preload; the rolling torque proves it.
 * @source makers' practice, no single source; the shims: geometry, see `shim-choice`
 */
const byShims: Procedure = {
  id: 'n-shims',
  family: 'N',
  version: 1,
  title: 'Hub preloaded by shims',
  tools: ['Micrometer', 'Depth gauge', 'Cord for the pull scale'],
  singleUse: ['Face seal', 'Cover gasket or O-ring'],
  steps: [
    {
      kind: 'shims',
      stage: 'adjust',
      id: 'shims',
      title: 'Shims chosen',
      text: 'With shims that leave some end play: hub turned, pushed and pulled, play read. From that and the preload of the sheet follows the stack.',
      caution: 'At zero play the preload does not show: measure with play, never from tight.',
      ...practice,
    },
    torqueStep(
      'adjust',
      'plate-bolts',
      'boltTorque',
      ['Retainer bolts', 'Crossing, in two rounds, the hub turned meanwhile.'],
      { makers: true },
    ),
    turned,
    rolling,
    lockStep(['Lock the bolts', 'As this retainer asks; nothing of it used twice.'], fixings, never),
  ],
  readjust: [],
};

/** Both ways of setting it, the first version of each. */
export const preloadedHub: readonly Procedure[] = [byNut, byShims];
