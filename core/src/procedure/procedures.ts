import { sharedSteps } from './common-steps.ts';
import { twoNuts } from './family-a.ts';
import { onePieceNut } from './family-b.ts';
import { presetHub } from './family-c.ts';
import { farmTractorFront, steerSingleNut, towedCastellated } from './family-d.ts';
import { stakedByTorque, stakedByWasher } from './family-e.ts';
import { unitisedHub } from './family-f.ts';
import { semiFloating } from './family-g.ts';
import { roundLockNuts } from './family-h.ts';
import { shaftSeal } from './family-j.ts';
import { spindleNeedle } from './family-k.ts';
import { swivelBearings } from './family-l.ts';
import { swagedStuds } from './family-m.ts';
import { preloadedHub } from './family-n.ts';
import { stageOrder } from './stages.ts';
import type { Procedure, Step } from './step.ts';

/** The families' own steps, every version of them. */
const written: readonly Procedure[] = [
  ...twoNuts,
  onePieceNut,
  presetHub,
  ...steerSingleNut,
  towedCastellated,
  farmTractorFront,
  stakedByWasher,
  stakedByTorque,
  unitisedHub,
  semiFloating,
  roundLockNuts,
  shaftSeal,
  spindleNeedle,
  swivelBearings,
  swagedStuds,
  ...preloadedHub,
];

/** Shared steps that only a hub packed and sealed on the bench has. */
const ofPackedHub = ['seal', 'pack'];

/**
 * The version of each procedure that stands in the second version of the shared steps, written down: jobs of the
 * first build name it, and nothing added later may move it.
 */
const secondShared: Readonly<Record<string, number>> = {
  'a-two-nuts': 3,
  'b-lock-ring': 2,
  'c-preset': 2,
  'd-steer-single-nut': 3,
  'd-towed': 2,
  'd-farm-front': 2,
  'e-keyed-washer': 2,
  'e-torque': 2,
  'f-unitised': 2,
  'g-c-clip': 2,
  'h-lock-nuts': 2,
  'j-shaft-seal': 2,
  'k-spindle-needle': 2,
  'l-swivel': 2,
  'm-swaged-studs': 2,
};

/** A procedure's own steps, one version before, within the second version of the shared steps. */
function inSecondShared([id, version]: [string, number]): Procedure {
  const own = written.find((p) => p.id === id && p.version === version - 1)!;
  const omits = own.omits ?? [];
  return {
    ...own,
    version,
    shared: 2,
    omits: omits.includes('hub-on') ? [...omits, ...ofPackedHub] : omits,
  };
}

/** Every procedure and version of the first build. An old version stays: its jobs keep the one they opened with. */
export const procedures: readonly Procedure[] = [
  ...Object.entries(secondShared).map(inSecondShared),
  ...written,
];

/** The newest version of a procedure, or the version asked for. */
export function findProcedure(id: string, version?: number): Procedure | undefined {
  return procedures
    .filter((p) => p.id === id && (version === undefined || p.version === version))
    .sort((a, b) => b.version - a.version)[0];
}

/** Steps of a procedure with those around it, those it omits left out. */
function withShared({ omits = [], shared: version = 1 }: Procedure, family: readonly Step[]): Step[] {
  const { before, after } = sharedSteps[version];
  return [...before, ...family, ...after].filter((s) => !omits.includes(s.id) || family.includes(s));
}

/** Every step in the order of work, whatever is chosen. */
function inOrder(procedure: Procedure, adjust: 'start' | 'setting'): readonly Step[] {
  const family =
    adjust === 'start'
      ? procedure.steps
      : [...procedure.readjust, ...procedure.steps.filter((s) => s.stage !== 'adjust')];
  return withShared(procedure, family)
    .map((step, i) => ({ step, i }))
    .sort((a, b) => stageOrder(a.step.stage) - stageOrder(b.step.stage) || a.i - b.i)
    .map(({ step }) => step);
}

/** Kept by procedure, which is data that never changes: a job asks for its steps at every record. */
const ordered = new WeakMap<Procedure, Record<'start' | 'setting', readonly Step[]>>();

/**
 * The steps of one wheel end in the order of work.
 * @param adjust 'start' for the whole adjustment, 'setting' for a small change of the setting
 * @param chosen options chosen so far, by step id
 */
export function stepsOf(
  procedure: Procedure,
  adjust: 'start' | 'setting',
  chosen: Readonly<Record<string, string>>,
): Step[] {
  let steps = ordered.get(procedure);
  if (!steps) {
    steps = { start: inOrder(procedure, 'start'), setting: inOrder(procedure, 'setting') };
    ordered.set(procedure, steps);
  }
  return steps[adjust].filter((s) => !s.when || chosen[s.when.step] === s.when.option);
}
