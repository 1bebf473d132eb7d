import { inRounds } from './building.ts';
import type { Procedure, Step } from './step.ts';

const rp618 = { mark: 'published', source: 'TMC RP 618' } as const;

const washer = {
  id: 'washer',
  stage: 'adjust',
  kind: 'choose',
  title: 'Locking washer on',
  text: 'If the dowel or tang does not line up, turn the washer over. If it still does not, loosen the nut just enough.',
  caution: 'Never tighten to reach a hole.',
  options: [
    { id: 'lined-up', label: 'Lined up' },
    { id: 'turned-over', label: 'Washer turned over' },
    { id: 'loosened', label: 'Nut loosened to fit' },
  ],
  ...rp618,
} as const satisfies Step;

const jamNut = {
  id: 'jam-nut',
  stage: 'adjust',
  kind: 'torque',
  figure: 'jamTorque',
  title: 'Jam nut',
  text: 'Torque the outer nut. No rotation needed. It takes up thread clearance, so the end play falls now: measure after it, never before.',
  ...rp618,
} as const satisfies Step;

/**
 * Family A: two nuts and a locking washer on a threaded spindle.
 * @source TMC RP 618, wheel bearing adjustment procedure; the order and figures are recalled, so a
 * sheet that carries a recalled figure says so.
 */
const twoNutsOnce: Procedure = {
  id: 'a-two-nuts',
  family: 'A',
  version: 1,
  tools: ['Lock-nut sockets', 'Torque wrench to 400 lbf·ft', 'Dial indicator'],
  singleUse: ['Hub seal', 'Locking washer, where it was bent', 'Hub cap gasket'],
  title: 'Two nuts, torque and back off, verify',
  steps: [
    {
      id: 'lubricate',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Lubricate the bearings',
      text: 'Clean lubricant of the kind in the hub, on both bearings.',
      ...rp618,
    },
    {
      id: 'seat',
      stage: 'adjust',
      kind: 'torque',
      figure: 'seatTorque',
      title: 'Seat the bearings',
      text: 'Torque the adjusting nut while the wheel is turned. Three rounds of torque and rotation is good practice.',
      ...rp618,
    },
    {
      id: 'rotate',
      stage: 'adjust',
      kind: 'rotate',
      turns: 1,
      title: 'Rotate the wheel',
      text: 'At least one full turn, so that the rollers find their place against the ribs.',
      ...rp618,
    },
    {
      id: 'loosen',
      stage: 'adjust',
      kind: 'turn',
      turns: -1,
      title: 'Back off one full turn',
      text: 'The nut must now be hand loose.',
      ...rp618,
    },
    {
      id: 'set',
      stage: 'adjust',
      kind: 'torque',
      figure: 'setTorque',
      title: 'Set torque',
      text: 'Torque the adjusting nut again while the wheel is turned.',
      ...rp618,
    },
    {
      id: 'back-off',
      stage: 'adjust',
      kind: 'turn',
      turns: 'back-off',
      title: 'Final back-off',
      text: 'Back the nut off by the part of a turn that the axle and its thread ask for.',
      ...rp618,
    },
    washer,
    jamNut,
    {
      id: 'end-play',
      stage: 'verify',
      kind: 'measure',
      title: 'Measure end play',
      text: 'Base on the spindle end, tip square on a flat of the hub, brake free. Push and rock, read; pull and rock, read. Three cycles.',
      caution:
        'Never run a hub that measures tight or loose. If it stays loose after this, the bearings are worn: stop and inspect.',
      ...rp618,
    },
    {
      id: 'lock',
      stage: 'lock-and-fill',
      kind: 'lock',
      title: 'Lock the nut',
      text: 'Bend at least one tang over a flat of the outer nut; two is the careful habit. A dowel washer is locked by its screws or its tang.',
      caution: 'A nut that is not locked walks. No release without the lock.',
      methods: [
        { id: 'one-tang', label: 'One tang bent' },
        { id: 'two-tangs', label: 'Two tangs bent' },
        { id: 'dowel', label: 'Dowel washer, screws in' },
      ],
      ...rp618,
    },
  ],
  readjust: [
    {
      id: 'jam-off',
      stage: 'adjust',
      kind: 'instruct',
      title: 'Jam nut and washer off',
      text: 'Hold the adjusting nut where it stands. Jam nut off, washer off its dowel.',
      ...rp618,
    },
    {
      id: 'planned-turn',
      stage: 'adjust',
      kind: 'turn',
      turns: 'planned',
      title: 'Turn the adjusting nut',
      text: 'Turn from where the nut stands, by what the reading asks for.',
      ...rp618,
    },
    washer,
    jamNut,
  ],
};

/** Seating in three recorded rounds of torque and rotation; the second and third are good practice. */
function seatedInRounds(steps: readonly Step[]): Step[] {
  const [lubricate, seat, rotate, ...after] = steps as [Step, Step, Step, ...Step[]];
  const [seats, turns] = [inRounds(seat, 3, 'good-practice'), inRounds(rotate, 3, 'good-practice')];
  return [lubricate, ...seats.flatMap((s, i) => [s, turns[i]!]), ...after];
}

/** Family A, newest first. */
export const twoNuts: readonly Procedure[] = [
  { ...twoNutsOnce, version: 2, steps: seatedInRounds(twoNutsOnce.steps) },
  twoNutsOnce,
];
