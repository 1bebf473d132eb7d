import { stepsAfter, stepsBefore } from './common-steps.ts';
import { twoNuts } from './family-a.ts';
import { farmTractorFront, steerSingleNut, towedCastellated } from './family-d.ts';
import type { Sheet } from './sheet.ts';
import { stageOrder, type Procedure, type Step } from './step.ts';

/** Every procedure and version. An old version stays: running jobs keep the one they opened with. */
export const procedures: readonly Procedure[] = [twoNuts, steerSingleNut, towedCastellated, farmTractorFront];

/** The newest version of a procedure, or the version asked for. */
export function findProcedure(id: string, version?: number): Procedure | undefined {
  return procedures
    .filter((p) => p.id === id && (version === undefined || p.version === version))
    .sort((a, b) => b.version - a.version)[0];
}

/**
 * Why a wheel end with this sheet cannot be adjusted by the traveller yet, or null.
 * A sheet must carry every figure its procedure asks for.
 */
export function whyNotAdjustable(sheet: Sheet): string | null {
  const procedure = sheet.procedureId === null ? undefined : findProcedure(sheet.procedureId);
  if (!procedure) return `There is no procedure for “${sheet.title}” yet`;
  if (!sheet.thread || !sheet.lock) return `The sheet “${sheet.title}” names no thread and lock`;
  if (!sheet.band) return `The sheet “${sheet.title}” has no end-play band`;
  for (const step of [...procedure.steps, ...stepsAfter]) {
    if (step.kind === 'torque' && !sheet[step.figure])
      return `The sheet “${sheet.title}” has no figure for “${step.title}”`;
    if (step.kind === 'turn' && step.turns === 'back-off' && !sheet.backOff) {
      return `The sheet “${sheet.title}” has no back-off`;
    }
  }
  return null;
}

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
  const family =
    adjust === 'start'
      ? procedure.steps
      : [...procedure.readjust, ...procedure.steps.filter((s) => s.stage !== 'adjust')];
  return [...stepsBefore, ...family, ...stepsAfter]
    .filter((s) => !s.when || chosen[s.when.step] === s.when.option)
    .map((step, i) => ({ step, i }))
    .sort((a, b) => stageOrder(a.step.stage) - stageOrder(b.step.stage) || a.i - b.i)
    .map(({ step }) => step);
}
