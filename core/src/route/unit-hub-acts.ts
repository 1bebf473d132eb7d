import { askStep, doStep, lockStep, practice, torqueStep, type Step } from '../procedure/index.ts';
import type { LayerOf } from '../stack/index.ts';
import { act, redo, undo, type Act } from './act.ts';
import { sensorMeasured } from './sensor-acts.ts';
import type { RouteState } from './state.ts';

const makers = { makers: true } as const;

/** Unitised hub: axle nut broken on the ground, bolts from behind, sensor lead noted. */
export function unitHubOff(hub: LayerOf<'unit-hub'>, { alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('unit-hub')) return [];
  if (hub.kind !== 'bolted') return slidOff(hub);
  return [
    ...undo(
      'unit-hub',
      'ground',
      doStep(
        'tear-down',
        'axle-nut-broken',
        'Break the axle nut',
        'Pin out, nut broken loose with the wheel down on the ground again.',
      ),
    ),
    ...undo(
      'unit-hub',
      'off',
      doStep(
        'tear-down',
        'unit-hub-off',
        'Hub bolts out, hub off',
        `Bolts from behind, hub pulled off the splines.${hub.sensor ? ' Note how the sensor lead ran, unplug it.' : ''}`,
      ),
    ),
  ];
}

/** A hub that is held by its axle nut alone: nothing in it is opened, ever. */
function slidOff(hub: LayerOf<'unit-hub'>): Act[] {
  const compact = hub.kind === 'compact';
  return undo(
    'unit-hub',
    'off',
    doStep(
      'tear-down',
      'axle-nut-broken',
      'Axle nut off',
      compact ? 'Its lock opened, the nut off.' : 'The flange nut off: it is used once.',
    ),
    doStep(
      'tear-down',
      'unit-hub-off',
      compact ? 'Compact hub off' : 'Drum off with its bearing',
      compact
        ? `Straight off the spindle on a dolly, never by its seals.${hub.sensor ? ' Sensor pushed back, ring not touched.' : ''}`
        : 'Adjuster backed off, drum drawn straight. Brake dust is wetted, never blown.',
      { caution: compact ? 'Never opened: its bearings and grease are sealed for its life.' : NO_HAMMER },
    ),
  );
}

const NO_HAMMER = 'No hammer on the drum: the bearing in it is spoiled.';

const noMovement: Step = {
  kind: 'measure',
  stage: 'verify',
  id: 'end-play',
  title: 'No movement',
  text: 'Push and pull, rock at 12 and 6. By feel no movement at all; by dial the maker’s limit.',
  ...practice,
};

/** A hub that slides on to its spindle: nut to its own torque, never less, never twice the same. */
function slidOn(hub: LayerOf<'unit-hub'>): Act[] {
  const compact = hub.kind === 'compact';
  return redo(
    'unit-hub',
    doStep(
      'clean-and-seat',
      'bore-clean',
      'Spindle clean',
      'Bare metal, no burr, the film of grease or paste that the maker names and no other.',
    ),
    doStep(
      'assemble',
      'unit-hub-on',
      compact ? 'Compact hub on' : 'Drum and bearing on',
      'Straight on to the spindle, home against its shoulder, by hand or by the nut.',
    ),
    torqueStep(
      'adjust',
      'axle-nut',
      'nutTorque',
      [
        'Axle nut',
        compact
          ? 'To the maker’s figure, the hub turned meanwhile. No end play is set and no back-off made.'
          : 'A new flange nut, to the maker’s figure.',
      ],
      { makers: true, caution: 'No weight and no rolling before the axle nut has its torque.' },
    ),
    noMovement,
    lockStep(
      ['Axle nut locked', 'As this nut asks; nothing of it used twice.'],
      compact
        ? [
            { id: 'lock-plate', label: 'Lock plate or ring in its place' },
            { id: 'staked', label: 'Collar staked into its slot' },
            { id: 'prevailing-torque', label: 'New self-locking nut' },
          ]
        : [{ id: 'prevailing-torque', label: 'New self-locking flange nut' }],
    ),
  );
}

const onKnuckle = (): Act[] => [
  ...redo(
    'unit-hub',
    doStep(
      'clean-and-seat',
      'bore-clean',
      'Bore and splines clean',
      'Bare metal in the bore, anti-seize on splines and bore.',
    ),
    doStep(
      'assemble',
      'unit-hub-on',
      'Hub in',
      'Straight over the splines, flange home against the knuckle.',
    ),
    torqueStep(
      'adjust',
      'hub-bolts',
      'boltTorque',
      ['Hub bolts, first pass', 'Medium threadlocker, side to side.'],
      makers,
    ),
    torqueStep(
      'adjust',
      'hub-bolts-2',
      'boltTorque',
      ['Hub bolts, second pass', 'All of them again, side to side.'],
      makers,
    ),
    torqueStep('adjust', 'axle-nut', 'nutTorque', ['Axle nut', 'To the maker’s sheet.'], {
      makers: true,
      caution: 'No weight and no rolling before the axle nut has its torque.',
    }),
    noMovement,
    lockStep(
      [
        'New pin in the axle nut',
        'The castle nut goes on to the next slot, never back: the reverse of a bearing nut.',
      ],
      [
        { id: 'cotter', label: 'Nut on to the next slot, new pin' },
        { id: 'prevailing-torque', label: 'New self-locking nut' },
      ],
    ),
  ),
];

export function unitHubBack(hub: LayerOf<'unit-hub'>): Act[] {
  return [
    ...(hub.kind === 'bolted' ? onKnuckle() : slidOn(hub)),
    ...(hub.sensor
      ? [
          act(
            'unit-hub',
            'back',
            'supervisor',
            askStep('lock-and-fill', 'sensor-lead', 'Sensor lead', [
              'On its old route, every clip in, clear of wheel and shaft through full lock.',
              'Is the lead clipped and clear?',
            ]),
          ),
          ...sensorMeasured('unit-hub'),
        ]
      : []),
  ];
}

/** Shaft seal behind a ring and shim on small machines. */
export function sealHubOff({ alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('seal-hub')) return [];
  return undo(
    'seal-hub',
    'off',
    doStep(
      'tear-down',
      'seal-out',
      'Screws, hub, ring, shim, seal',
      'Grub screws, hub, snap ring, shim; old seal out with a pick, shaft not scratched.',
    ),
  );
}

export const sealHubBack = (): Act[] =>
  redo(
    'seal-hub',
    {
      kind: 'pack',
      stage: 'assemble',
      id: 'pack-seal',
      title: 'Pack the new seal',
      text: 'Full of the named grease, no voids, outside lubricated.',
      caution: 'Wrong grease destroys. Never mix thickeners.',
      ...practice,
    },
    askStep('assemble', 'seal-home', 'Seal home, ring in', [
      'Sleeve over the shaft’s edge, push home square; shim, snap ring.',
      'Is the seal square, and the ring in its groove all round?',
    ]),
    torqueStep(
      'adjust',
      'grub-screws',
      'boltTorque',
      ['Hub and grub screws', 'Medium threadlocker, to figure.'],
      makers,
    ),
    lockStep(
      ['Screws locked', 'Threadlocker on clean threads.'],
      [{ id: 'threadlocker', label: 'Every screw with medium threadlocker' }],
    ),
  );
