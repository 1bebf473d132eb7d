import { askStep, chooseStep, doStep, practice, torqueStep, type TorqueKey } from '../procedure/index.ts';
import { layerOf, type LayerOf, type Stack } from '../stack/index.ts';
import { act, firstAskedBy, redo, redoLater, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';

const kills = 'A wheel that comes off kills.';

/** @source 29 CFR 1910.177, value from memory: what is deflated before its nuts are touched, and how it is filled again */
const rimRule = { mark: 'from-memory', source: '29 CFR 1910.177' } as const;

/** Whether the answer to the look at rims and tyres means that a tyre has to be filled again. */
export const isDeflated = (option: string | undefined): boolean =>
  option === 'core-out' || option === 'deflated';

/** The tyre goes first where it may burst. */
function deflating(wheel: LayerOf<'wheel'>): Act[] {
  if (wheel.kind === 'sprocket') return [];
  const dual = wheel.kind === 'dual';
  const out = { id: 'core-out', label: dual ? 'Both tyres deflated, cores out' : 'Tyre deflated, core out' };
  const sound = {
    id: 'sound',
    label: dual ? 'Sound, both stay up' : 'Rim sound, tyre stays up',
  };
  const former = {
    ...{ id: 'deflated', former: true as const },
    label: dual ? 'Both tyres deflated' : 'Rim damaged, tyre deflated',
  };
  return [
    act(
      'wheel',
      'ground',
      'never',
      chooseStep(
        'tear-down',
        'rims',
        [
          'Rims and tyres',
          'Core out first, of a tyre that ran at 80 % pressure or less, is or may be damaged, or is on a multi-piece rim.',
        ],
        // What is done more often comes first; neither is chosen by itself.
        dual ? [out, sound, former] : [sound, out, former],
        { caution: 'A damaged rim or a soft tyre bursts under the hands.', ...rimRule },
      ),
    ),
  ];
}

/** A track is slackened before its sprocket comes off: the grease behind its tensioner is under pressure. */
const slackened = doStep(
  'tear-down',
  'track-slack',
  'Track slackened',
  'Relief valve of the tensioner opened by no more turns than its maker says, until the track hangs loose.',
  { caution: 'Stand aside of the relief valve: its grease comes out under pressure and goes through skin.' },
);

/** The figure that the nuts of a wheel go by: what its studs centre has one of its own. */
export const wheelTorqueKey = (stack: Stack): TorqueKey =>
  layerOf(stack, 'wheel')?.pilot === 'stud' ? 'studPilotedTorque' : 'wheelTorque';

/**
 * Faces, seats and threads, by what the nuts seat on.
 * @source TMC RP 222 for oil on two-piece flange nuts and dry ball seats, value from memory
 */
const faces: Record<'flange' | 'ball' | 'cone' | 'unknown', string> = {
  flange:
    'Mating faces and threads clean, no paint. Two-piece flange nuts: two drops of oil between nut and washer, one or two on the first threads, none on a face.',
  ball: 'Mating faces, ball seats and threads clean and dry: no paint, no oil on a ball seat.',
  cone: 'Mating faces, tapered seats and threads clean and dry: no paint, no oil on a seat.',
  unknown: 'Mating faces and threads clean, no paint, no grease on the seats.',
};

/** Nuts cracked on the ground, wheel off on a dolly. */
export function wheelOff(wheel: LayerOf<'wheel'>, state: RouteState): Act[] {
  if (state.alreadyOff.includes('wheel')) return [];
  const sprocket = wheel.kind === 'sprocket';
  return [
    ...deflating(wheel),
    ...undo(
      'wheel',
      'ground',
      doStep(
        'tear-down',
        'wheel-cracked',
        sprocket ? 'Crack the sprocket bolts' : 'Crack the wheel nuts',
        wheel.leftHand
          ? 'A part turn each, on the ground or while the brake holds. On the left of the unit the thread is left-hand: they loosen clockwise.'
          : 'A part turn each, on the ground or while the brake holds.',
      ),
    ),
    ...(sprocket ? firstAskedBy(3, undo('wheel', 'off', slackened)) : []),
    ...undo(
      'wheel',
      'off',
      doStep(
        'tear-down',
        'wheel-off',
        sprocket ? 'Sprocket off' : 'Wheel off',
        sprocket ? 'Bolts out, sprocket straight off the hub.' : 'On a dolly, inner and outer kept apart.',
      ),
    ),
  ];
}

/** Faces clean, centring nuts first, in stages, full torque on the ground. */
export function wheelBack(wheel: LayerOf<'wheel'>, { chosen, stack }: RouteState): Act[] {
  const figure = wheelTorqueKey(stack);
  const inner = wheel.kind === 'dual' && wheel.pilot === 'stud';
  const sprocket = wheel.kind === 'sprocket';
  return [
    ...redo(
      'wheel',
      askStep('wheel-on', 'wheel-faces', 'Faces and threads', [
        faces[wheel.seat ?? 'unknown'],
        'Are faces and threads clean and bare?',
      ]),
    ),
    ...(wheel.centringNuts > 0
      ? redo(
          'wheel',
          doStep(
            'wheel-on',
            'centring-nuts',
            'Centring nuts first',
            `The ${wheel.centringNuts} tapered nuts draw the wheel to the middle before any other.`,
          ),
        )
      : []),
    ...(inner
      ? redo(
          'wheel',
          torqueStep(
            'wheel-on',
            'inner-nuts',
            figure,
            ['Inner nuts', 'To full torque before the outer wheel goes on.'],
            { makers: true, caution: kills },
          ),
        )
      : []),
    ...redo(
      'wheel',
      doStep(
        'wheel-on',
        'wheel-drawn',
        sprocket ? 'Sprocket on, drawn up in stages' : 'Wheel on, drawn up in stages',
        sprocket
          ? 'Teeth in the track, bolts crossing, at least two stages.'
          : 'Crossing pattern, at least two stages, wheel still clear of the ground.',
        sprocket ? {} : { caution: kills },
      ),
    ),
    ...(isDeflated(chosen['rims'])
      ? redoLater(
          'wheel',
          'wheel-on',
          askStep(
            'wheel-on',
            'inflated',
            'Tyre up',
            [
              'Rim looked at, nuts tight, no weight on it. Clip-on chuck, long hose. One that ran flat, or a multi-piece rim: in its cage, off the unit.',
              'Is every tyre at its pressure?',
            ],
            { caution: 'Stand clear of the side wall while it fills.', ...rimRule },
          ),
        )
      : []),
    ...redoLater(
      'wheel',
      'ground',
      torqueStep(
        'wheel-on',
        'wheel-nuts',
        figure,
        sprocket
          ? ['Sprocket bolts, full torque', 'Crossing pattern, then all of them again.']
          : [
              'Wheel nuts, full torque',
              'On the ground, not spinning. Crossing pattern, then all of them again.',
            ],
        sprocket ? { makers: true } : { makers: true, caution: kills },
      ),
    ),
    ...(sprocket
      ? firstAskedBy(
          3,
          redoLater('wheel', 'ground', {
            kind: 'dimension',
            what: 'track-sag',
            stage: 'wheel-on',
            id: 'track-sag',
            title: 'Track tension',
            text: 'Grease in until the track is tight, then driven a little to and fro. Sag between sprocket and roller, against the maker’s figure.',
            ...practice,
          }),
        )
      : []),
  ];
}

/** The first of the retorques: after the road, before the unit goes. The next is a follow-up. */
export const wheelAfterRoad = ({ kind }: LayerOf<'wheel'>, stack: Stack): Act[] => [
  act(
    'wheel',
    'later',
    'supervisor',
    torqueStep(
      'release',
      'wheel-nuts-road',
      wheelTorqueKey(stack),
      kind === 'sprocket'
        ? ['Sprocket bolts after the first hours', 'All of them again, crossing. What moved is looked at.']
        : ['Wheel nuts after the road', 'All of them again, crossing. What moved is looked at.'],
      kind === 'sprocket' ? { makers: true } : { makers: true, caution: kills },
    ),
    { wait: 'road' },
  ),
];

/** The retorque as a job of its own: nothing comes off. */
export function retorqueOnly(state: RouteState): Act[] {
  if (!wants(state, 'retorque') || state.reach.layers.has('wheel')) return [];
  const figure = wheelTorqueKey(state.stack);
  const wheel = layerOf(state.stack, 'wheel');
  const makers = { makers: true, caution: kills } as const;
  return [
    // An outer nut sits on the inner one, and hides it: a retorque of the outer nuts alone leaves the inner wheel loose.
    ...(wheel?.kind === 'dual' && wheel.pilot === 'stud'
      ? firstAskedBy(
          5,
          redoLater(
            'wheel',
            'ground',
            torqueStep(
              'wheel-on',
              'inner-nuts-again',
              figure,
              [
                'Inner nuts again',
                'Outer nuts loosened one after the other, the inner nut behind each to full torque.',
              ],
              makers,
            ),
          ),
        )
      : []),
    ...redoLater(
      'wheel',
      'ground',
      torqueStep(
        'wheel-on',
        'wheel-nuts',
        figure,
        ['Wheel nuts, full torque', 'On the ground. Crossing pattern, then all again.'],
        makers,
      ),
    ),
  ];
}
