import { askStep, chooseStep, doStep, practice, torqueStep, type Step } from '../procedure/index.ts';
import type { LayerOf } from '../stack/index.ts';
import { act, firstAskedBy, redo, redoLater, undo, type Act } from './act.ts';
import { wants, type RouteState } from './state.ts';

type OuterBrake = LayerOf<'brake-outer'>;
type InnerBrake = LayerOf<'brake-inner'>;

const dust = 'Brake dust as if it held asbestos: wet or vacuum, never blow.';

/** Where the sheet does not say what chamber there is, it is asked at the caging. */
const caging: Step = chooseStep(
  'tear-down',
  'caging',
  [
    'Spring brake caged',
    'By the book, last before it comes apart: nothing but the chocks holds it then. A service chamber has no spring.',
  ],
  [
    { id: 'caged', label: 'Caged' },
    { id: 'none', label: 'No spring brake here' },
  ],
  { caution: 'A spring brake that lets go takes a hand. Caged, or released by the book.' },
);

const caged: Step = doStep(
  'tear-down',
  'caged',
  'Spring brake caged',
  'By the book, last before it comes apart: nothing but the chocks holds it then.',
  { caution: 'A spring brake that lets go takes a hand. Caged, or released by the book.' },
);

/** What keeps a spring brake from letting go: by its chamber, or asked where the sheet does not say. */
function springBrakeOff({ by, chamber }: OuterBrake): Act[] {
  if (by !== 'air' || chamber === 'service') return [];
  return undo('brake-outer', 'ground', chamber === 'spring' ? caged : caging);
}

/** Records from before the brake had a chamber say “caged” of any air brake. */
export const cagedBefore = ({ by }: OuterBrake): Act[] =>
  by === 'air' ? undo('brake-outer', 'ground', caged) : [];

const backedOff: Step = doStep(
  'tear-down',
  'adjuster-off',
  'Adjuster backed off',
  'Until the shoes are clear, so that the drum slides off them with wheel and hub.',
);

/** Spring brakes caged last before it comes apart; caliper on a hook, drum off. Off with wheel and hub, it is backed off. */
export function outerBrakeOff(brake: OuterBrake, { alreadyOff, reach }: RouteState): Act[] {
  if (alreadyOff.includes('brake-outer')) return [];
  if (reach.layers.get('brake-outer') === 'open')
    return [...springBrakeOff(brake), ...undo('brake-outer', 'off', backedOff)];
  return [
    ...springBrakeOff(brake),
    ...undo(
      'brake-outer',
      'off',
      doStep(
        'tear-down',
        'brake-off',
        brake.kind === 'disc' ? 'Caliper on a hook, rotor off' : 'Adjuster backed off, drum off',
        brake.kind === 'disc'
          ? 'Caliper and bracket unbolted, hung by a wire, never by its hose.'
          : 'Back the adjuster off, drum on a dolly.',
        { caution: dust },
      ),
    ),
  ];
}

/** Measured linings, every bolt to figure, hose, spring brake, pedal or air; the adjuster may wait for the wheel. */
export function outerBrakeBack(brake: OuterBrake, state: RouteState): Act[] {
  const { chosen } = state;
  const sprung = brake.by === 'air' && brake.chamber !== 'service' && chosen['caging'] !== 'none';
  // An adjuster that is set decides whether the brake holds: proved after it.
  const adjusted = brake.adjuster && brake.kind === 'drum';
  const proof = proved('brake-proved', brake.by);
  return [
    ...redo('brake-outer', linings()),
    ...caliperSlides(brake, state),
    ...measured('brake-outer', brake.kind === 'disc' ? 'rotor' : 'drum', state),
    ...(brake.kind === 'disc'
      ? redo(
          'brake-outer',
          torqueStep(
            'lock-and-fill',
            'bracket-bolts',
            'bracketTorque',
            ['Bracket bolts', 'Clean threads, to figure.'],
            {
              makers: true,
            },
          ),
          torqueStep(
            'lock-and-fill',
            'caliper-bolts',
            'caliperTorque',
            ['Caliper bolts', 'Off its hook and on.'],
            {
              makers: true,
            },
          ),
        )
      : redo(
          'brake-outer',
          doStep('lock-and-fill', 'drum-on', 'Drum on', 'Faces clean, straight over the shoes.'),
        )),
    ...redo(
      'brake-outer',
      askStep('lock-and-fill', 'hose', 'Hose and lines', [
        'Hose not twisted, bracket and clips on, clear of the wheel through full lock.',
        'Is every hose on its bracket and clear?',
      ]),
    ),
    ...(sprung
      ? redo(
          'brake-outer',
          askStep('lock-and-fill', 'uncaged', 'Spring brake uncaged', [
            'Caging bolt out and in its pocket.',
            'Is the spring brake working again?',
          ]),
        )
      : []),
    ...(adjusted ? redoLater('brake-outer', 'wheel-on', adjuster(brake.adjusting)) : []),
    ...clearance(brake, state),
    ...(adjusted && brake.by === 'air' ? strokeMeasured(state) : []),
    ...(adjusted ? redoLater('brake-outer', 'wheel-on', proof) : redo('brake-outer', proof)),
  ];
}

/** Shoes, magnet, wires, cams behind the hub. */
export function innerBrakeOff({ kind }: InnerBrake, { alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('brake-inner')) return [];
  return undo(
    'brake-inner',
    'off',
    doStep(
      'tear-down',
      'inner-brake-off',
      kind === 'electric' ? 'Shoes and magnet off' : 'Shoes off',
      kind === 'electric' ? 'Note how the wires run, then part them.' : 'Springs in order, cams looked at.',
      { caution: dust },
    ),
  );
}

/** A brake that is worked on has its drum or rotor measured against the figure cast into it. */
function measured(layer: 'brake-outer' | 'brake-inner', part: 'drum' | 'rotor', state: RouteState): Act[] {
  if (!wants(state, 'brakes', 'linings')) return [];
  return firstAskedBy(
    3,
    redo(layer, {
      kind: 'wear',
      part,
      stage: 'lock-and-fill',
      id: 'brake-wear',
      title: part === 'drum' ? 'Drum measured' : 'Rotor measured',
      text:
        part === 'drum'
          ? 'Diameter at several places, against the discard figure cast into it, not the figure to machine to. No crack that reaches an edge.'
          : 'Thickness at several places and runout, against the discard figure cast into it. No crack that reaches an edge.',
      ...practice,
    }),
  );
}

const isAirDisc = ({ kind, by }: OuterBrake, state: RouteState) =>
  kind === 'disc' && by === 'air' && wants(state, 'brakes', 'linings');

/** The pins and boots of an air disc brake, while its caliper hangs. @source common practice, no source */
const caliperSlides = (brake: OuterBrake, state: RouteState): Act[] =>
  isAirDisc(brake, state)
    ? firstAskedBy(
        5,
        redo(
          'brake-outer',
          askStep('lock-and-fill', 'guide-pins', 'Guide pins and boots', [
            'Caliper slid by hand over its whole way; pins, bushes and their caps looked at. Tappet boots and pin boots whole and seated: water behind one eats the adjuster.',
            'Does the caliper slide freely, and is every boot whole?',
          ]),
        ),
      )
    : [];

/** The clearance that the adjuster of an air disc brake keeps, once its caliper is on. */
const clearance = (brake: OuterBrake, state: RouteState): Act[] =>
  isAirDisc(brake, state)
    ? firstAskedBy(
        5,
        redoLater('brake-outer', 'wheel-on', {
          kind: 'dimension',
          what: 'running-clearance',
          stage: 'wheel-on',
          id: 'running-clearance',
          title: 'Running clearance',
          text: 'Brake applied a few times, then released; caliper pushed inward by hand, feeler between tappet and pad plate on both tappets. Too much or none: the adjuster is at fault, not the setting.',
          caution: 'Nobody near the caliper while the brake is applied.',
          mark: 'from-memory',
          source: 'Common practice, figure by the maker',
        }),
      )
    : [];

/** The stroke proves the adjuster of an air brake. @source 49 CFR 393.47(e), value from memory */
const strokeMeasured = (state: RouteState): Act[] =>
  wants(state, 'brakes', 'linings')
    ? firstAskedBy(
        3,
        redoLater('brake-outer', 'wheel-on', {
          kind: 'stroke',
          stage: 'wheel-on',
          id: 'pushrod-stroke',
          title: 'Pushrod stroke',
          text: 'Engine off, 90 to 100 psi (620 to 690 kPa) in the reservoir. From the face of the chamber to the clevis pin, released and then applied. An automatic adjuster over its limit has a cause: find it, turning it answers nothing.',
          caution: 'Nobody near the pushrod while it is applied.',
          mark: 'from-memory',
          source: '49 CFR 393.47(e)',
        }),
      )
    : [];

/** Shoes, magnet and wires before the hub goes on; pedal and adjuster when the wheel is on. */
export function innerBrakeBack({ kind, by }: InnerBrake, state: RouteState): Act[] {
  return [
    ...redo('brake-inner', linings()),
    ...measured('brake-inner', 'drum', state),
    ...redo(
      'brake-inner',
      askStep('assemble', 'shoe-contact', 'Shoe contact, cams free', [
        'Each shoe held in the drum: contact over its whole face. Cams and pivots free. One that bears at its ends is exchanged, or cut by a lining lathe with its dust drawn off; never ground dry.',
        'Do the shoes bear over their whole face?',
      ]),
    ),
    ...(kind === 'electric'
      ? redo(
          'brake-inner',
          askStep('assemble', 'magnet', 'Magnet', [
            'By its wear marks; replaced when the marks are gone.',
            'Does the magnet still show its marks, or is it new?',
          ]),
          askStep('assemble', 'wires', 'Wires joined', [
            'Joined, sealed, clipped. Actuate it and listen.',
            'Does the magnet draw when it is switched on?',
          ]),
        )
      : []),
    ...redoLater('brake-inner', 'wheel-on', adjuster()),
    ...(by === 'electric' ? [] : redoLater('brake-inner', 'wheel-on', proved('inner-brake-proved', by))),
  ];
}

function linings(): Step {
  return {
    kind: 'linings',
    stage: 'lock-and-fill',
    id: 'brakes-back',
    title: 'Linings',
    text: 'Measured inner and outer. Slides cleaned and greased, solvent and grease off linings.',
    ...practice,
  };
}

const adjusters: Record<'manual' | 'automatic' | 'unknown', [string, string]> = {
  manual: [
    'Tighten while turning until it can hardly be turned, then back until it just turns freely. Its angle at right angles to the rod when applied.',
    'Is the brake adjusted, and does the wheel turn freely?',
  ],
  automatic: [
    'Set up once by the maker’s sheet, then applied until it has taken up. Its angle by the maker’s sheet and template: it takes up wrongly at another. It is not adjusted by hand after that.',
    'Does it take up by itself, stand at its angle, and does the wheel turn freely?',
  ],
  unknown: [
    'Tighten while turning until it can hardly be turned, then back until it just turns freely. A self-adjusting one is only checked.',
    'Is the brake adjusted, and does the wheel turn freely?',
  ],
};

const adjuster = (kind: keyof typeof adjusters = 'unknown'): Step =>
  askStep('wheel-on', 'adjuster', 'Adjuster', adjusters[kind]);

/** How a brake is proved: title, what is done, and the question. */
const proofs: Record<'air' | 'hydraulic' | 'overrun', [string, [string, string]]> = {
  air: [
    'Air built, brake proved',
    ['Build the air, apply, listen for leaks.', 'Does the brake apply and hold, without a leak?'],
  ],
  hydraulic: [
    'Pedal pumped',
    ['Pump the pedal until it is firm, before the unit moves.', 'Is the pedal firm?'],
  ],
  overrun: [
    'Overrun brake proved',
    [
      'Handbrake on, each wheel turned by hand; then off, the drawbar pushed in and drawn out, both wheels turned in reverse and forwards.',
      'Do both sides hold alike, and come free?',
    ],
  ],
};

function proved(id: string, by: keyof typeof proofs): Step {
  const [title, words] = proofs[by];
  return askStep('lock-and-fill', id, title, words);
}

/** Where the brake stays on, it is released for the measurement and redone after the lock. */
export function brakeFreed(): { before: Act; after: Act } {
  return {
    before: act(
      'nut',
      'back',
      'never',
      askStep('verify', 'brake-freed', 'Brake freed', [
        'The brake stays on: release it, or push the pads back, so that nothing holds the hub.',
        'Does the hub turn without any drag of the brake?',
      ]),
    ),
    after: act(
      'nut',
      'back',
      'never',
      askStep('lock-and-fill', 'brake-again', 'Brake working again', [
        'What was released or pushed back is back: pedal pumped or air built.',
        'Does the brake apply and hold?',
      ]),
    ),
  };
}
