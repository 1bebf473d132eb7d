import { askStep, doStep, practice, torqueStep, type Step } from '../procedure/index.ts';
import { layerOf, type LayerOf } from '../stack/index.ts';
import { act, redo, redoLater, undo, type Act } from './act.ts';
import { afterBadOil, oilOut, oilSeen } from './oil-acts.ts';
import { wants, type RouteState } from './state.ts';

const bolted = ['flange', 'hub-lock', 'carrier'];
/** What is cracked with the wheel on the ground: a carrier’s cover comes off in the air. */
const crackedFirst = ['flange', 'hub-lock'];

/** Fasteners cracked on the ground where there are any, then cap, flange or hub lock off. */
export function capOff(cap: LayerOf<'cap'>, state: RouteState): Act[] {
  const { alreadyOff } = state;
  if (alreadyOff.includes('cap')) return [];
  const count = cap.fasteners ? `${cap.fasteners} of them, a` : 'A';
  const ground = crackedFirst.includes(cap.kind)
    ? undo(
        'cap',
        'ground',
        doStep(
          'tear-down',
          'cap-cracked',
          cap.kind === 'flange' ? 'Crack the flange nuts' : 'Crack the hub-lock bolts',
          `${count} part turn each, before the wheel is off.`,
        ),
      )
    : [];
  const words: Record<typeof cap.kind, [string, string, string?]> = {
    flange: [
      'Flange off, shaft drawn',
      cap.cones
        ? 'Nuts run to the stud ends, flange struck softly, cones out, then nuts off. Draw the shaft, catch the oil.'
        : 'Nuts off, shaft drawn straight. Catch the oil.',
      cap.cones ? 'Loose cones fly: the nuts stay on the stud ends until they are out.' : undefined,
    ],
    'hub-lock': ['Hub lock off', 'Bolts, lock and gasket, in order.'],
    'oil-cap': [
      'Oil cap off',
      'Bolts out in a crossing pattern, cap off its joint without a lever on the seat.',
    ],
    'grease-cap': ['Grease cap off', 'Work round it, no lever against the spindle end.'],
    carrier: [
      'Cover and planet carrier off, sun shaft out',
      'Bolts out, carrier drawn straight, thrust washers kept in their order. Sun shaft after it.',
      'Heavy, and its edges are sharp: lifting eye and hoist, no fingers between.',
    ],
  };
  const [title, text, caution] = words[cap.kind];
  return [
    ...ground,
    ...oilOut(state),
    ...undo('cap', 'off', doStep('tear-down', 'cap-off', title, text, caution ? { caution } : {})),
  ];
}

const oilAtTheMark = (carrier: boolean) =>
  redoLater(
    'cap',
    'level',
    askStep('lock-and-fill', 'oil-level', 'Oil level and plug', [
      carrier
        ? 'Unit on the level, the mark on the cover turned level, oil up to the plug, plug in.'
        : 'Unit on the level, oil at the mark, plug in.',
      'Is the oil at the mark and the plug in?',
    ]),
  );

/** The oil level as a work of its own: the cap stays on, the wheel on the ground. */
export function oilLevelOnly(state: RouteState): Act[] {
  if (!wants(state, 'oil-level') || state.reach.layers.has('cap')) return [];
  if (layerOf(state.stack, 'hub')?.fill !== 'oil') return [];
  const added: Step = {
    id: 'oil-added',
    stage: 'lock-and-fill',
    kind: 'fill',
    title: 'Oil added',
    text: 'The oil that is in it, to the mark. One that sinks again leaks: find where.',
    ...practice,
  };
  return [
    ...oilSeen(state),
    act('cap', 'later', 'optional', added, { wait: 'level' }),
    ...oilAtTheMark(layerOf(state.stack, 'cap')?.kind === 'carrier'),
  ];
}

const carrierIn = askStep('lock-and-fill', 'carrier-in', 'Sun shaft and carrier in', [
  'Thrust washers as they were, gears oiled, teeth let in without force; the hub turned by hand.',
  'Does it turn freely, without a tight spot or a click?',
]);

/** Joint named, torque to figure, oil level when the unit stands level. */
export function capBack(cap: LayerOf<'cap'>, state: RouteState): Act[] {
  const hub = layerOf(state.stack, 'hub');
  const oil = hub?.fill === 'oil';
  const fill: Step = hub
    ? {
        kind: 'fill',
        joint: true,
        stage: 'lock-and-fill',
        id: 'fill',
        title:
          { flange: 'Shaft in, flange on', carrier: 'Cover on, oil in' }[cap.kind as string] ??
          'Fill and close',
        text: oil
          ? 'Oil in, gasket or sealant named. The level is looked at once more when the unit stands level.'
          : 'A little grease in the cap, square on its seat. Gasket or sealant named where there is one.',
        ...practice,
      }
    : doStep(
        'lock-and-fill',
        'fill',
        'Cap on',
        'Dry: the bearing behind it is sealed for its life, and no grease goes to it.',
      );
  return [
    ...afterBadOil(state),
    ...(cap.kind === 'carrier' ? redo('cap', carrierIn) : []),
    ...redo('cap', fill),
    ...(bolted.includes(cap.kind)
      ? redo(
          'cap',
          torqueStep(
            'lock-and-fill',
            'flange-nuts',
            'flangeTorque',
            [
              { flange: 'Flange nuts', 'hub-lock': 'Hub-lock bolts', carrier: 'Cover bolts' }[
                cap.kind as string
              ]!,
              cap.cones ? 'Cone washers in, crossing pattern, to figure.' : 'Crossing pattern, to figure.',
            ],
            { makers: true },
          ),
        )
      : redo(
          'cap',
          askStep('lock-and-fill', 'cap-square', 'Cap square', [
            'Tapped on square, clear of the spindle end.',
            'Is the cap on square, and does nothing rub?',
          ]),
        )),
    ...(oil ? oilAtTheMark(cap.kind === 'carrier') : []),
  ];
}
