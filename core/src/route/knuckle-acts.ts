import {
  askStep,
  doStep,
  measureDrag,
  practice,
  softDrift,
  torqueStep,
  type Step,
} from '../procedure/index.ts';
import type { LayerOf } from '../stack/index.ts';
import { redo, redoLater, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';
import { linksBack } from './steering-links.ts';
import { stubBack, stubOff } from './stub-acts.ts';

const makers = { makers: true } as const;

export function spindleOff(spindle: LayerOf<'spindle'>, state: RouteState): Act[] {
  if (state.alreadyOff.includes('spindle')) return [];
  if (spindle.kind === 'stub') return stubOff;
  return undo(
    'spindle',
    'off',
    doStep(
      'tear-down',
      'spindle-off',
      'Spindle nuts off, spindle off',
      'Straight off the studs, splash shield or backing plate with it.',
    ),
    ...(wants(state, 'spindle-bearing')
      ? [
          doStep(
            'tear-down',
            'needle-out',
            'Needle bearing out',
            'Driven out from the far side with a soft drift.',
            softDrift,
          ),
        ]
      : []),
  );
}

export function spindleBack(spindle: LayerOf<'spindle'>, state: RouteState): Act[] {
  if (spindle.kind === 'stub') return stubBack(state);
  const needle = wants(state, 'spindle-bearing') || state.renewed.has('needle-bearing');
  return [
    ...(needle
      ? redo('spindle', {
          kind: 'dimension',
          what: 'needle-depth',
          stage: 'clean-and-seat',
          id: 'needle-depth',
          title: 'Needle bearing in',
          text: 'Pressed below flush by the thickness of its seal. Measure both.',
          ...practice,
        })
      : []),
    ...redo(
      'spindle',
      askStep('assemble', 'spindle-seal', 'Spindle seal and grease', [
        'Flat side of the seal to the bearing. Needles greased wholly.',
        'Is the seal in, its flat side to the bearing?',
      ]),
      torqueStep(
        'assemble',
        'spindle-nuts',
        'spindleTorque',
        ['Spindle nuts', 'New where the maker asks for it, crossing, to figure.'],
        makers,
      ),
    ),
  ];
}

const ringOff: Step = doStep(
  'tear-down',
  'ring-off',
  'Seal ring unbolted, split seal out',
  'Bolts and half rings in order, felt and old seal out. Ball wiped and looked at: a groove in it cuts the new seal.',
);

const splitSealIn: Step = askStep('assemble', 'split-seal-in', 'Split seal in', [
  'Ball clean and greased, joint of the seal at the top, its lip to the grease.',
  'Is the seal round the ball, its joint at the top?',
]);

export function knuckleOff({ alreadyOff, reach }: RouteState): Act[] {
  if (alreadyOff.includes('knuckle')) return [];
  if (reach.layers.get('knuckle') === 'open') return undo('knuckle', 'off', ringOff);
  return undo(
    'knuckle',
    'off',
    doStep(
      'tear-down',
      'links-off',
      'Track rod and drag link off',
      'Pins out, joints parted, seal ring unbolted.',
    ),
    doStep(
      'tear-down',
      'caps-off',
      'Caps or arms off, knuckle off',
      'Shims kept with their cap, top and bottom apart.',
      {
        caution: 'Heat only away from tyres and grease.',
      },
    ),
  );
}

const sealRing: Step = doStep(
  'assemble',
  'seal-ring',
  'Seal ring bolted',
  'Felt and seal round the ball, every bolt.',
);

const knuckleLevel = () =>
  redoLater(
    'knuckle',
    'level',
    askStep('lock-and-fill', 'knuckle-level', 'Knuckle and axle oil', [
      'Level with the plug, unit on the level.',
      'Is the level right and the plug in?',
    ]),
  );

export function knuckleBack({ splitSeal }: LayerOf<'knuckle'>, { reach }: RouteState): Act[] {
  const split = splitSeal ? redo('knuckle', splitSealIn) : [];
  if (reach.layers.get('knuckle') === 'open')
    return [...split, ...redo('knuckle', sealRing), ...knuckleLevel()];
  const preload: Step = {
    ...measureDrag(),
    id: 'swivel-preload',
    title: 'Swivel preload',
    text: 'By pull at the steering arm, links off, before the seal ring goes on: no seal drag in it.',
    caution: 'A swivel that steers in steps has a dented cup: look at it again.',
  };
  return [
    ...redo(
      'knuckle',
      askStep('clean-and-seat', 'races-dry', 'Cups home and dry', [
        'Cups masked while the ball is painted, dry and clean so that they cannot turn.',
        'Are the cups dry, clean and home?',
      ]),
      doStep(
        'assemble',
        'axle-seal',
        'Inner axle seal',
        'Dry on its outside, lubricated at the lip, dowel side out where it has one.',
      ),
      askStep('assemble', 'two-greases', 'Two greases', [
        'Joint grease in the knuckle, wheel-bearing grease in the bearings: never one in place of the other.',
        'Is each grease in its place?',
      ]),
      torqueStep(
        'adjust',
        'cap-bolts',
        'capTorque',
        ['Swivel caps', 'With their own shims, in stages, to figure.'],
        makers,
      ),
      preload,
    ),
    ...split,
    ...redo('knuckle', sealRing),
    ...linksBack('knuckle', { links: 'links', pins: 'joint-pins' }),
    ...knuckleLevel(),
  ];
}
