import { askStep, chooseStep, doStep, lockStep, softDrift, torqueStep } from '../procedure/index.ts';
import { act, firstAskedBy, redo, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';
import { linksBack } from './steering-links.ts';

const byTheMaker = {
  mark: 'common-practice',
  source: 'Common practice; the figures are the maker’s',
} as const;

/** Acts that the rules before number 3 asked for; all others are new with it. */
const asked = new Set(['kingpin-out', 'bushes', 'stub-on', 'kingpin-lock']);
const numbered = (acts: readonly Act[]): Act[] =>
  acts.flatMap((a) => (asked.has(a.id) ? [a] : firstAskedBy(3, [a])));

const isRenewed = (state: RouteState): boolean =>
  wants(state, 'kingpin') || state.renewed.has('kingpin-and-bushes');

/** A stub axle off its kingpin: links parted, lock out, pin driven, stub off. */
export const stubOff: Act[] = numbered(
  undo(
    'spindle',
    'off',
    doStep(
      'tear-down',
      'stub-links-off',
      'Track rod and drag link off',
      'Pins out, nuts off, joints parted from the steering arm with a splitter.',
    ),
    doStep(
      'tear-down',
      'kingpin-out',
      'Kingpin lock out, stub off',
      'Plugs and lock out, pin driven. Thrust bearing, washers and shims kept in order, top and bottom apart.',
      softDrift,
    ),
  ),
);

/**
 * A stub axle back on its kingpin: bushes to size, their clearance measured, thrust bearing, vertical play against its
 * shims, lock and its torque, plugs, grease, links with torque and pins; the toe is looked at on the ground.
 */
export const stubBack = (state: RouteState): Act[] =>
  numbered([
    ...redo(
      'spindle',
      chooseStep(
        'clean-and-seat',
        'bushes',
        [
          'Bushes',
          'In line, grease holes open. Some kits come to size and are never reamed: their sheet says so.',
        ],
        [
          { id: 'reamed', label: 'Pressed in and reamed to size' },
          { id: 'to-size', label: 'Kit comes to size: not reamed' },
          ...(isRenewed(state) ? [] : [{ id: 'old', label: 'Old bushes stay in' }]),
        ],
      ),
      {
        kind: 'dimension',
        what: 'kingpin-clearance',
        stage: 'clean-and-seat',
        id: 'kingpin-clearance',
        title: 'Pin in its bushes',
        text: 'Pin and bushes by micrometer, in two directions each: the clearance that is left, against the maker’s figure. The pin turns by hand.',
        ...byTheMaker,
      },
      askStep('assemble', 'thrust-bearing', 'Thrust bearing', [
        'Under the eye of the axle, the way up that its maker shows: its cover keeps the road out.',
        'Is the thrust bearing the right way up?',
      ]),
      doStep(
        'assemble',
        'stub-on',
        'Stub on, pin in',
        'Stub over the eye, thrust bearing and shims between, pin in with its flat to the lock.',
        softDrift,
      ),
      {
        kind: 'dimension',
        what: 'kingpin-vertical',
        stage: 'assemble',
        id: 'vertical-play',
        title: 'Vertical play',
        text: 'Stub lifted against the thrust bearing, feeler between stub and eye. Shims in or out until it lies in the maker’s figure.',
        ...byTheMaker,
      },
      {
        ...lockStep(
          ['Kingpin lock', 'The pin cannot turn or come out.'],
          [
            { id: 'lock-pin', label: 'Lock pin driven home, nut on' },
            { id: 'lock-bolt', label: 'Lock bolt through the pin, to the maker’s torque' },
          ],
        ),
        id: 'kingpin-lock',
      },
      torqueStep(
        'assemble',
        'kingpin-lock-bolt',
        'boltTorque',
        ['Bolt or nut of the kingpin lock', 'To figure.'],
        { makers: true, caution: 'A kingpin that comes out lets the wheel steer itself.' },
      ),
      askStep('assemble', 'kingpin-plugs', 'Plugs and caps', [
        'Both ends closed, rings or gaskets new.',
        'Are both ends of the pin closed?',
      ]),
      askStep('assemble', 'kingpin-grease', 'Kingpin greased', [
        'At every nipple, weight off the axle, until it comes out at the thrust bearing and at both bushes.',
        'Does new grease come out at each place?',
      ]),
    ),
    ...linksBack('spindle', { links: 'stub-links', pins: 'stub-pins' }),
    act(
      'spindle',
      'later',
      'supervisor',
      askStep('wheel-on', 'toe', 'Toe', [
        'Wheels straight ahead, on the ground: toe measured, or booked where the gauges are.',
        'Is the toe right, or is its measuring booked?',
      ]),
      { wait: 'level' },
    ),
  ]);
