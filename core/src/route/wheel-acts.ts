import { askStep, chooseStep, doStep, torqueStep } from '../procedure/index.ts';
import type { LayerOf } from '../stack/index.ts';
import { act, redo, redoLater, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';

const kills = 'A wheel that comes off kills.';

/** The tyre goes first where a rim may be damaged or a dual is touched. */
function deflating(wheel: LayerOf<'wheel'>): Act[] {
  if (wheel.kind === 'sprocket') return [];
  const caution = 'A damaged rim or a dual bursts under a man’s hands: deflate before any nut is touched.';
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
          'Look at every rim before a nut is touched. A damaged rim, or a dual: tyre deflated first.',
        ],
        wheel.kind === 'dual'
          ? [{ id: 'deflated', label: 'Both tyres deflated' }]
          : [
              { id: 'sound', label: 'Rim sound, tyre stays up' },
              { id: 'deflated', label: 'Rim damaged, tyre deflated' },
            ],
        { caution },
      ),
    ),
  ];
}

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
    ...undo(
      'wheel',
      'off',
      doStep(
        'tear-down',
        'wheel-off',
        sprocket ? 'Sprocket off' : 'Wheel off',
        sprocket ? 'Track slack, sprocket straight off.' : 'On a dolly, inner and outer kept apart.',
      ),
    ),
  ];
}

/** Faces clean, centring nuts first, in stages, full torque on the ground. */
export function wheelBack(wheel: LayerOf<'wheel'>, { chosen }: RouteState): Act[] {
  const inner = wheel.kind === 'dual' && wheel.pilot === 'stud';
  return [
    ...redo(
      'wheel',
      askStep('wheel-on', 'wheel-faces', 'Faces and threads', [
        'Mating faces and threads clean, no paint, no grease on the seats.',
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
            'wheelTorque',
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
        'Wheel on, drawn up in stages',
        'Crossing pattern, at least two stages, wheel still clear of the ground.',
        { caution: kills },
      ),
    ),
    ...(chosen['rims'] === 'deflated'
      ? redoLater(
          'wheel',
          'wheel-on',
          askStep(
            'wheel-on',
            'inflated',
            'Tyre up',
            [
              'Rim looked at, nuts drawn tight, no weight on it yet. Clip-on chuck, long hose, a multi-piece rim caged.',
              'Is every tyre at its pressure?',
            ],
            { caution: 'Stand clear of the side wall while it fills.' },
          ),
        )
      : []),
    ...redoLater(
      'wheel',
      'ground',
      torqueStep(
        'wheel-on',
        'wheel-nuts',
        'wheelTorque',
        ['Wheel nuts, full torque', 'On the ground, not spinning. Crossing pattern, then all of them again.'],
        { makers: true, caution: kills },
      ),
    ),
  ];
}

/** The first of the retorques: after the road, before the unit goes. The next is a follow-up. */
export const wheelAfterRoad = (): Act[] => [
  act(
    'wheel',
    'later',
    'supervisor',
    torqueStep(
      'release',
      'wheel-nuts-road',
      'wheelTorque',
      ['Wheel nuts after the road', 'All of them again, crossing. What moved is looked at.'],
      { makers: true, caution: kills },
    ),
    { wait: 'road' },
  ),
];

/** The retorque as a job of its own: nothing comes off. */
export function retorqueOnly(state: RouteState): Act[] {
  if (!wants(state, 'retorque') || state.reach.layers.has('wheel')) return [];
  return redoLater(
    'wheel',
    'ground',
    torqueStep(
      'wheel-on',
      'wheel-nuts',
      'wheelTorque',
      [
        'Wheel nuts, full torque',
        'On the ground. On stud-piloted duals loosen the outer nut to reach the inner. Crossing pattern, then all again.',
      ],
      { makers: true, caution: kills },
    ),
  );
}
