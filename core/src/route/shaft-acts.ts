import { askStep, chooseStep, doStep, practice, softDrift, torqueStep } from '../procedure/index.ts';
import type { LayerOf } from '../stack/index.ts';
import { redo, redoLater, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';

const makers = { makers: true } as const;

/** Shaft by its C-clip, or the driven shaft behind the spindle. */
export function shaftOff(shaft: LayerOf<'shaft'>, { alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('shaft')) return [];
  return shaft.kind === 'c-clip'
    ? undo(
        'shaft',
        'off',
        doStep(
          'tear-down',
          'pin-out',
          'Pin bolt, pin and clip out',
          'In neutral, turned until the pin bolt shows. Bolt, cross pin, shaft in, clip out.',
        ),
        doStep('tear-down', 'shaft-out', 'Shaft out', 'Straight out; then seal and bearing with the puller.'),
      )
    : undo(
        'shaft',
        'off',
        doStep(
          'tear-down',
          'shaft-out',
          'Driven shaft out',
          'Straight out, not dragged over the inner seal.',
        ),
      );
}

export function shaftBack(shaft: LayerOf<'shaft'>, state: RouteState): Act[] {
  if (shaft.kind === 'driven')
    return redo(
      'shaft',
      askStep('assemble', 'shaft-order', 'Shaft in, order on it', [
        'V-seal, its square side to the shield; thrust washer, its bevel to the joint; V-groove seal, its V to the washer.',
        'Does each stand the right way round?',
      ]),
    );
  const bearing =
    wants(state, 'bearings', 'shaft') ||
    ['shaft-bearing', 'shaft-journal'].some((id) => state.renewed.has(id));
  return [
    ...(bearing
      ? redo(
          'shaft',
          askStep(
            'clean-and-seat',
            'bearing-home',
            'Bearing home',
            [
              'Driven in square until the sound changes, driver on the outer ring.',
              'Did the sound change, and is it square?',
            ],
            softDrift,
          ),
        )
      : []),
    ...redo(
      'shaft',
      {
        kind: 'seal',
        stage: 'assemble',
        id: 'shaft-seal-in',
        title: 'Seal square',
        text: 'Lip lubricated and on sound journal, clear of the old groove.',
        caution: 'No hammer on the seal itself: driver or flat block.',
        mark: 'published',
        source: 'ISO 6194-1 for the journal, common practice for the depth',
      },
      askStep('assemble', 'shaft-in', 'Shaft back, clip in', [
        'Without dragging on the seal; splines by turning, not by force. Clip in its groove, shaft pulled out against it, pin through.',
        'Does the clip sit in its groove, and is the pin through?',
      ]),
      torqueStep(
        'adjust',
        'pin-bolt',
        'nutTorque',
        ['Pin bolt', 'New threadlocker on a clean thread, to figure.'],
        {
          makers: true,
          caution: 'A pin that comes out lets the shaft and the wheel leave the axle.',
        },
      ),
      {
        kind: 'dimension',
        what: 'shaft-movement',
        stage: 'verify',
        id: 'shaft-movement',
        title: 'Shaft movement',
        text: 'In and out by the dial, against the axle’s own figure. It has end movement by design and is never held against an end-play band.',
        ...practice,
      },
    ),
  ];
}

/** The axle that left and right share: opened once, closed when neither side needs it. */
export function axleOff({ alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('axle')) return [];
  return undo(
    'axle',
    'off',
    doStep(
      'tear-down',
      'axle-opened',
      'Axle drained, cover off',
      'Cover from the bottom, the top bolt last. Look at the oil: milky is water, glitter is metal.',
    ),
  );
}

/** Joint named, cover in three recorded stages, cure time over, oil to the plug. */
export function axleBack({ chosen }: RouteState): Act[] {
  const drawn = (id: string, title: string) =>
    doStep('lock-and-fill', id, title, 'Crossing pattern, a part of the figure.');
  return [
    ...redo(
      'axle',
      chooseStep(
        'lock-and-fill',
        'axle-cover-joint',
        ['Cover joint', 'Faces clean and dry. Both are accepted.'],
        [
          { id: 'gasket', label: 'Gasket' },
          { id: 'sealant', label: 'Sealant, left to cure' },
        ],
      ),
      drawn('axle-cover-1', 'Cover bolts, first stage'),
      drawn('axle-cover-2', 'Cover bolts, second stage'),
      torqueStep(
        'lock-and-fill',
        'axle-cover-3',
        'coverTorque',
        ['Cover bolts, last stage', 'Crossing pattern, to figure.'],
        makers,
      ),
    ),
    ...(chosen['axle-cover-joint'] === 'sealant'
      ? redoLater('axle', 'level', {
          kind: 'cure',
          stage: 'lock-and-fill',
          id: 'axle-cover-cured',
          title: 'Sealant cured',
          text: 'No oil before the sealant’s own time is over, at the temperature of this air. Everything else goes on meanwhile.',
          ...practice,
        })
      : []),
    ...redoLater(
      'axle',
      'level',
      {
        kind: 'fill',
        stage: 'lock-and-fill',
        id: 'axle-oil',
        title: 'Axle oil',
        text: 'The axle’s own oil by its name, to the lower edge of the plug hole.',
        ...practice,
      },
      askStep('lock-and-fill', 'axle-level', 'Axle oil level and plug', [
        'Unit on the level, oil at the plug hole, plug tight.',
        'Is the oil at the plug hole and the plug tight?',
      ]),
    ),
  ];
}

/** Steps of the axle: one record serves left and right. */
export const sharedSteps: ReadonlySet<string> = new Set([
  'axle-opened',
  'axle-cover-joint',
  'axle-cover-1',
  'axle-cover-2',
  'axle-cover-3',
  'axle-cover-cured',
  'axle-oil',
  'axle-level',
]);
