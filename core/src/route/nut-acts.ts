import {
  askStep,
  doStep,
  findProcedure,
  practice,
  torqueStep,
  type Procedure,
  type Sheet,
  type Step,
} from '../procedure/index.ts';
import { layerOf, type LayerOf, type NutKind } from '../stack/index.ts';
import { act, redo, undo, type Act } from './act.ts';
import { brakeFreed } from './brake-acts.ts';
import type { RouteState } from './state.ts';

type Nut = LayerOf<'nut'>;

/** The family's own steps, by procedure: the version stands here and is never "the newest". */
const versions: Record<string, number> = {
  'a-two-nuts': 2,
  'b-lock-ring': 1,
  'c-preset': 1,
  'd-steer-single-nut': 2,
  'd-towed': 1,
  'd-farm-front': 1,
  'e-keyed-washer': 1,
  'e-torque': 1,
  'h-lock-nuts': 1,
  'n-planetary': 1,
  'n-shims': 1,
};

/** What a nut is set by where the sheet is one of another construction. */
const usual: Record<NutKind, string> = {
  A: 'a-two-nuts',
  B: 'b-lock-ring',
  C: 'c-preset',
  D: 'd-towed',
  E: 'e-keyed-washer',
  H: 'h-lock-nuts',
  N: 'n-planetary',
};

/** The procedure that sets the nut of this wheel end. */
export function nutProcedure({ kind, setBy }: Nut, procedureId: string | null): Procedure {
  if (kind === 'N' && setBy === 'shims') return findProcedure('n-shims', versions['n-shims'])!;
  const own =
    procedureId && versions[procedureId] ? findProcedure(procedureId, versions[procedureId]) : undefined;
  if (own?.family === kind) return own;
  return findProcedure(usual[kind], versions[usual[kind]])!;
}

/** Done with the hub off, where the bearings can be reached. */
export const LUBRICATE = 'lubricate';

/** Steps of Adjust that leave nut, washer and hub where they are. */
const still = [LUBRICATE, 'school', 'hand-loose'];

function moved(step: Step): Act {
  const disturbs = step.stage === 'adjust' && step.kind !== 'rotate' && !still.includes(step.id);
  const guard = step.optional ? 'optional' : 'never';
  return act('nut', 'back', guard, step, disturbs ? { disturbs: true } : {});
}

const handLoose = askStep('adjust', 'hand-loose', 'Hand loose', [
  'After the full turn back the nut must turn by hand.',
  'Is the nut hand loose?',
]);

const rotateAgain: Step = {
  kind: 'rotate',
  turns: 1,
  stage: 'adjust',
  id: 'rotate-again',
  title: 'Rotate the hub',
  text: 'After every tightening, however small: the rollers find their place again.',
  ...practice,
};

/** Opening what locks the nut, so that it can be turned. */
const opening: Record<NutKind, () => Step> = {
  A: () => doStep('adjust', 'jam-off', 'Jam nut and washer off', 'Hold the adjusting nut where it stands.'),
  B: () => doStep('adjust', 'ring-out', 'Lock ring out', 'Lift the ring and leave the nut where it stands.'),
  C: () => doStep('adjust', 'lock-out', 'Lock opened', 'Leave the nut where it stands.'),
  D: () => doStep('adjust', 'pin-out', 'Pin out', 'Pull the cotter and leave the nut where it stands.'),
  E: () =>
    doStep(
      'adjust',
      'new-nut',
      'New nut',
      'A stake that was lifted does not hold again: a new nut, run to where the old one stood.',
    ),
  H: () =>
    doStep('adjust', 'plate-off', 'Lock plate or second nut off', 'Leave the inner nut where it stands.'),
  N: () => doStep('adjust', 'plate-off', 'Lock opened', 'Leave nut or retainer where it stands.'),
};

/** Steps of Adjust that secure the setting: they come after the last turn of the nut, whatever it was turned by. */
const securing = ['washer', 'ring-in', 'to-slot', 'jam-nut'];

/**
 * The steps of Adjust that set the nut, without those that secure it: they stay done while the nut is only opened and
 * turned from where it stands. Ids, in their order.
 */
export function settingSteps(nut: Nut, sheet: Sheet): string[] {
  const steps = nutProcedure(nut, sheet.procedureId).steps.filter((s) => s.stage === 'adjust');
  return steps.filter((s) => !securing.includes(s.id)).map((s) => s.id);
}

/** Closures whose being made means that the nut is secured, locked or not. */
export const secures = ['jam-nut', 'ring-in'];

function adjusting(nut: Nut, procedure: Procedure, { adjust, reach }: RouteState): Step[] {
  const { from, turns, wasLocked, secured } = adjust;
  // What holds a locked nut comes off with its lock; a stake that was lifted asks for a new nut besides.
  const again = secured || (wasLocked && nut.kind === 'E');
  const opened = again ? [opening[nut.kind]()] : [];
  if (from === 'setting' && procedure.readjust.length > 0) {
    const after = procedure.readjust.filter((s) => s.kind !== 'instruct');
    const at = after.findIndex((s) => s.kind === 'turn') + 1;
    return [...opened, ...after.slice(0, at), ...((turns ?? 0) > 0 ? [rotateAgain] : []), ...after.slice(at)];
  }
  const isReached = reach.layers.get('hub') === 'off';
  const steps = procedure.steps.filter((s) => s.stage === 'adjust' && (isReached || s.id !== LUBRICATE));
  const at = steps.findIndex((s) => s.id === 'loosen') + 1;
  return [...opened, ...steps.slice(0, at), ...(at > 0 ? [handLoose] : []), ...steps.slice(at)];
}

const jam: Step = torqueStep(
  'adjust',
  'jam-nut',
  'jamTorque',
  ['Jam nut', 'The second nut against the first. Measure after it, never before.'],
  { makers: true },
);

const secondLook = askStep('lock-and-fill', 'lock-looked-at', 'A second person looks at the lock', [
  'Another person of the shop, signed in or with their own password at this step.',
  'Is the nut locked?',
]);

const lockSeen = askStep('lock-and-fill', 'lock-seen', 'Look at the lock that others made', [
  'Tang, pin, stake, ring or plate where it belongs, whole, and none of it used twice.',
  'Is the nut locked?',
]);

/** What the lock looked like is noted before it is opened; nuts and washers off in order. */
export function nutOff(nut: Nut, { reach, alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes('nut')) return [];
  const looked: Step = {
    kind: 'found',
    stage: 'tear-down',
    id: 'lock-as-found',
    title: 'What the lock looked like',
    text: 'Before it is opened: tangs, pin, stake, ring or plate.',
    signs: [
      { id: 'not-locked', label: 'Not locked at all' },
      { id: 'half-locked', label: 'Locked in part: one screw, one tang cracked' },
      { id: 'nut-loose', label: 'Nut finger-loose' },
      { id: 'washer-missing', label: 'Washer missing' },
    ],
    ...practice,
  };
  const off = reach.layers.get('nut') === 'off';
  return undo(
    'nut',
    'off',
    looked,
    off
      ? nut.kind === 'N'
        ? doStep(
            'tear-down',
            'nut-off',
            'Nut or retainer off',
            'Shims kept together and measured, threads not scratched.',
          )
        : doStep('tear-down', 'nut-off', 'Nuts and washers off', 'In order, threads not scratched.')
      : doStep(
          'tear-down',
          'nut-opened',
          'Lock opened',
          {
            A: 'Tang straight, jam nut and washer off. The adjusting nut stays.',
            B: 'Ring lifted. The nut stays.',
            C: 'Lock opened. The nut stays.',
            D: 'Pin out. The nut stays.',
            E: 'Stake lifted: that nut is not used again.',
            H: 'Plate or second nut off. The inner nut stays.',
            N: 'Lock opened. Nut or retainer stays.',
          }[nut.kind],
        ),
  );
}

/** A pre-set nut that meets no lock place goes to the next one, and makers differ in which way. */
const toNextPlace = ({ nextPlace }: Sheet): string =>
  nextPlace === null
    ? 'Where it meets none, on or back as its maker says: enter that in the sheet.'
    : nextPlace === 'on'
      ? 'Where it meets none: on to the next, never back.'
      : 'Where it meets none: back to the last, never on.';

/** The family's Adjust, Verify and Lock; preload of round nuts is measured after the second one is tight. */
export function nutBack(nut: Nut, state: RouteState): Act[] {
  const { sheet, stack, adjust } = state;
  const procedure = nutProcedure(nut, sheet.procedureId);
  const brake = layerOf(stack, 'brake-outer') ?? layerOf(stack, 'brake-inner');
  const freed = brake && adjust.brakeOn ? brakeFreed() : null;
  const verify = procedure.steps.filter((s) => s.stage === 'verify').map(moved);
  const lock = procedure.steps
    .filter((s) => s.kind === 'lock')
    .map((s) => (nut.kind === 'C' ? { ...s, text: `${s.text} ${toNextPlace(sheet)}` } : s))
    .map(moved);
  const looked =
    sheet.schools.lockCheck === 'second-person'
      ? redo('nut', { ...secondLook, otherThan: 'lock' } as Step)
      : [];
  const seen = adjust.byOthers ? redo('nut', lockSeen) : [];
  const measured = [...(freed ? [freed.before] : []), ...verify];
  const steps = adjusting(nut, procedure, state);
  // A castellated second nut is drawn against the first, then on to the slot whose pin goes through both.
  const slot = nut.kind === 'D' ? steps.findIndex((s) => s.id === 'to-slot') : -1;
  const jamAt = slot < 0 ? steps.length : slot;
  return [
    ...[...steps.slice(0, jamAt), ...(nut.jammed ? [jam] : []), ...steps.slice(jamAt)].map(moved),
    ...(nut.kind === 'H' ? [...lock, ...measured] : [...measured, ...lock]),
    ...looked,
    ...seen,
    ...(freed ? [freed.after] : []),
  ];
}
