import { measureEndPlay, practice } from './building.ts';
import { twoNuts } from './family-a.ts';
import type { Procedure, Step } from './step.ts';

const rp618 = { mark: 'published', source: 'TMC RP 618' } as const;

const cotter = {
  id: 'lock',
  stage: 'lock-and-fill',
  kind: 'lock',
  title: 'New cotter in',
  text: 'A new pin each time, both legs dealt with. Cap tapped on square.',
  caution: 'A nut that is not pinned walks. No release without the lock.',
  methods: [
    { id: 'cotter-over-end', label: 'New cotter, leg over the spindle end' },
    { id: 'cotter-wrapped', label: 'New cotter, legs round the nut' },
  ],
  ...practice,
} as const satisfies Step;

const readjust: readonly Step[] = [
  {
    id: 'pin-out',
    stage: 'adjust',
    kind: 'instruct',
    title: 'Pin out',
    text: 'Pull the cotter and leave the nut where it stands.',
    ...practice,
  },
  {
    id: 'planned-turn',
    stage: 'adjust',
    kind: 'turn',
    turns: 'planned',
    title: 'Turn the nut to its slot',
    text: 'Turn from where the nut stands, by what the reading asks for, until the slot and the hole line up.',
    ...practice,
  },
];

const toSlot = {
  id: 'to-slot',
  stage: 'adjust',
  kind: 'choose',
  title: 'To the slot that takes the pin',
  text: 'If slot and hole do not line up, loosen to the next slot.',
  caution: 'Never tighten to reach a hole.',
  options: [
    { id: 'lined-up', label: 'Lined up' },
    { id: 'loosened', label: 'Loosened to the next slot' },
  ],
} as const;

/**
 * Family D on a heavy steer axle: a single castellated nut, set by torque and back-off. It shares with the
 * two-nut procedure everything up to the back-off. Newest first.
 * @source TMC RP 618, single nut with cotter
 */
export const steerSingleNut: readonly Procedure[] = twoNuts.map(({ version, steps }) => ({
  id: 'd-steer-single-nut',
  family: 'D',
  version,
  title: 'Heavy steer axle, single castellated nut',
  tools: ['Socket of the nut', 'Torque wrench to 200 lbf·ft', 'Dial indicator'],
  singleUse: ['Cotter', 'Hub seal', 'Hub cap gasket'],
  steps: [
    ...steps.slice(
      0,
      steps.findIndex((s) => s.id === 'washer'),
    ),
    { ...toSlot, ...rp618 },
    measureEndPlay(rp618),
    cotter,
  ],
  readjust,
}));

/**
 * Family D on a towed caravan or light trailer. Two schools; which one was followed is recorded.
 * @source common practice, no single source
 */
export const towedCastellated: Procedure = {
  id: 'd-towed',
  family: 'D',
  version: 1,
  title: 'Towed caravan or light trailer, castellated nut',
  tools: ['Socket of the nut', 'Torque wrench to 50 lbf·ft', 'Brake adjuster spoon'],
  singleUse: ['Cotter', 'Hub seal'],
  steps: [
    {
      id: 'school',
      stage: 'adjust',
      kind: 'choose',
      title: 'Which way to set it',
      text: 'Both ways are accepted. Which one was followed is recorded.',
      options: [
        { id: 'torque', label: 'Torque, then back off' },
        { id: 'finger', label: 'Finger tight, then next slot' },
      ],
      ...practice,
    },
    {
      id: 'seat',
      stage: 'adjust',
      kind: 'torque',
      figure: 'seatTorque',
      title: 'Seat the bearings',
      text: 'Torque the nut while the drum is turned.',
      when: { step: 'school', option: 'torque' },
      ...practice,
    },
    {
      id: 'free',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Back off until it turns freely',
      text: 'No further than needed: the drum turns freely and no movement is felt.',
      when: { step: 'school', option: 'torque' },
      ...practice,
    },
    {
      id: 'finger-tight',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Finger tight',
      text: 'Turn the drum and run the nut up with the fingers until it stops.',
      when: { step: 'school', option: 'finger' },
      ...practice,
    },
    { ...toSlot, ...practice },
    measureEndPlay(),
    cotter,
  ],
  readjust,
};

/**
 * Family D on a farm tractor's front hub.
 * @source common practice, no single source
 */
export const farmTractorFront: Procedure = {
  id: 'd-farm-front',
  family: 'D',
  version: 1,
  title: 'Farm tractor front hub, castellated nut',
  tools: ['Socket of the nut', 'Hub puller'],
  singleUse: ['Cotter', 'Hub seal', 'Cap gasket'],
  steps: [
    {
      id: 'snug',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Snug the nut',
      text: 'Run the nut up until the hub drags a little.',
      ...practice,
    },
    {
      id: 'rotate',
      stage: 'adjust',
      kind: 'rotate',
      turns: 7,
      title: 'Turn the hub seven or eight times',
      text: 'The rollers find their place.',
      ...practice,
    },
    {
      id: 'home',
      stage: 'adjust',
      kind: 'turn',
      turns: 0.125,
      title: 'A further 1/8 to 1/4 turn',
      text: 'Then turn the hub both ways to bring the cups home.',
      ...practice,
    },
    {
      id: 'free',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Back off to the first slot that frees the hub',
      text: 'No movement felt, spins freely. One cross-hole gives coarse steps, two crossed holes half of that.',
      ...practice,
    },
    { ...toSlot, ...practice },
    measureEndPlay(),
    cotter,
  ],
  readjust,
};
