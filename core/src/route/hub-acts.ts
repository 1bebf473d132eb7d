import { askStep, doStep, practice, softDrift, type Step } from '../procedure/index.ts';
import { layerOf, type LayerOf } from '../stack/index.ts';
import { act, firstAskedBy, redo, undo, type Act } from './act.ts';
import { sensorMeasured } from './sensor-acts.ts';
import { isSleeved } from './parts.ts';
import { wants, type RouteState } from './state.ts';

type Hub = LayerOf<'hub'>;

export function hubOff(hub: Hub, { alreadyOff, together, works }: RouteState): Act[] {
  if (alreadyOff.includes('hub')) return [];
  const with_ = together ? 'Wheel, drum and hub together on a dolly' : 'Hub straight off';
  return [
    ...undo(
      'hub',
      'off',
      doStep(
        'tear-down',
        'hub-off',
        together ? 'Wheel and hub off in one' : 'Hub off',
        `${with_}, outer bearing held.${hub.toneRing ? ' Tone ring protected.' : ''}`,
        { caution: 'Hub and drum on a dolly. Hot hubs burn.' },
      ),
    ),
    ...(hub.studs === 'swaged' && works.includes('studs')
      ? undo(
          'hub',
          'off',
          doStep(
            'tear-down',
            'swage-cut',
            'Cut the swage away',
            'All of it, before the stud is pressed out.',
            {
              caution: 'Pressed out with its swage on, a stud stretches the hole and the drum warps.',
            },
          ),
        )
      : []),
  ];
}

const cupsHome: Step = askStep(
  'clean-and-seat',
  'cup-home',
  'Cups home',
  [
    'Bore clean, cup square. The sound changes from dull to ringing, and a 0.005 in (0.13 mm) feeler does not enter behind the cup.',
    'Is every cup home?',
  ],
  softDrift,
);

/** A pre-set hub: the spacer was ground to its bearings. */
const matched: Step = askStep('assemble', 'matched-set', 'Spacer and bearings as one set', [
  'Both bearings and the spacer from one set, or of the class that the maker names for a half-stand set.',
  'Do spacer and bearings belong together?',
]);

const bearings = ['cups-and-rollers', 'cage', 'hub-bore'];

/** A grooved journal gets a new surface for the lip. @source common practice, figure by the sleeve's maker */
const wearSleeve: Step = {
  kind: 'dimension',
  what: 'sleeve-depth',
  stage: 'clean-and-seat',
  id: 'wear-sleeve',
  title: 'Wear sleeve on',
  text: 'Journal measured at three places off the groove: within what the sleeve’s sheet allows. Groove filled, sleeve driven on with its own tool to a depth that covers the old groove and leaves the lip on its middle; its flange taken off where the sheet says so.',
  caution: 'No hammer on the sleeve itself: a dent leaks.',
  mark: 'common-practice',
  source: 'Common practice; size and depth are the sleeve maker’s',
};

/** Two metal faces, each on a rubber ring: dry rubber, oiled faces, pairs never mixed. */
const faceSeal: readonly Step[] = [
  askStep(
    'assemble',
    'seal',
    'Face seal in',
    [
      'Rubber rings and their seats clean and dry, pressed in square with the tool, not twisted. Both faces clean, a film of clean oil on them, the pair never mixed with another.',
      'Is each half square, its rubber untwisted all the way round?',
    ],
    { caution: 'No oil on the rubber: it creeps out and the ring turns in its seat.' },
  ),
  {
    kind: 'dimension',
    what: 'face-seal-height',
    stage: 'assemble',
    id: 'seal-height',
    title: 'Height at four places',
    text: 'From the housing to the metal face at four places. The difference between the highest and the lowest, against the maker’s figure.',
    ...practice,
  },
];

/** Cups home where they are renewed, studs in before the hub goes on, packed, sealed, straight on. */
export function hubBack(hub: Hub, state: RouteState): Act[] {
  const renewed = wants(state, 'bearings', 'hub') || bearings.some((id) => state.renewed.has(id));
  const studs = wants(state, 'studs') || state.renewed.has('studs');
  const pack: Step = {
    kind: 'pack',
    stage: 'assemble',
    id: 'pack',
    title: hub.fill === 'oil' ? 'Oil the bearings' : 'Pack the bearings',
    text:
      hub.fill === 'oil'
        ? 'Clean oil of the kind in the hub on both bearings.'
        : 'Grease until it comes through the rollers, cavity coated and not filled.',
    caution: 'Wrong grease destroys. Never mix thickeners.',
    ...practice,
  };
  const seal: Step = {
    kind: 'seal',
    stage: 'assemble',
    id: 'seal',
    title: 'Seal in',
    text: 'Square, lip lubricated, its lips on sound journal and clear of the old groove.',
    caution: 'No hammer on the seal itself: driver or flat block.',
    mark: 'published',
    source: 'ISO 6194-1 for the journal, common practice for the depth',
  };
  return [
    ...(hub.seal === 'lip' && isSleeved(state) ? firstAskedBy(5, redo('hub', wearSleeve)) : []),
    ...(renewed ? redo('hub', cupsHome) : []),
    ...(renewed && layerOf(state.stack, 'nut')?.kind === 'C'
      ? firstAskedBy(4, [act('hub', 'back', 'supervisor', matched)])
      : []),
    ...(studs
      ? redo(
          'hub',
          askStep('assemble', 'studs-home', 'Studs drawn home', [
            hub.studs === 'swaged'
              ? 'Pressed home square, shoulder against the flange. Drum against a dial: it runs true.'
              : 'Pressed or drawn home square, shoulder against the flange, before the hub goes on.',
            'Is every stud home, of its length, and square?',
          ]),
        )
      : []),
    ...redo(
      'hub',
      pack,
      ...(hub.seal === 'face' ? faceSeal : [seal]),
      doStep(
        'assemble',
        'hub-on',
        'Hub on',
        'Straight on to the spindle without dragging the seal; outer bearing, washer, nut by hand.',
      ),
    ).map((a) => (a.id === 'hub-on' ? { ...a, disturbs: true as const } : a)),
    ...(hub.toneRing
      ? [
          act(
            'hub',
            'back',
            'supervisor',
            askStep('assemble', 'sensor', 'Sensor and tone ring', [
              'Ring clean and true, sensor pushed up against it, lead on its clips.',
              'Is the sensor up to the ring and its lead clipped?',
            ]),
          ),
          ...sensorMeasured('hub'),
        ]
      : []),
  ];
}
