import type { StepData } from '../../procedure/index.ts';
import { quantity } from '../../quantity/index.ts';
import { plainTechnician } from '../../rig/index.ts';
import { againstRelease, progressOf, type Command, type CommandInput } from '../index.ts';
import { supervisor, type TestJob } from './work.ts';

/** A reason that is long enough for a release in spite of something. */
export const REASON = 'It is wanted back on the road this evening';
/** The command that releases a wheel end. */
export const release = (position: string, overrideReason?: string) =>
  ({ kind: 'wheel-end-released', position, ...(overrideReason ? { overrideReason } : {}) }) as const;
/** What stands against the release of a wheel end. */
export const codes = (t: TestJob, position: string) => againstRelease(t.at(position)).map((o) => o.code);
/** Steps of a wheel end, in their order. */
export const ids = (t: TestJob, position: string) => progressOf(t.at(position)).map((p) => p.step.id);
/** Steps of a wheel end that no record counts for. */
export const todo = (t: TestJob, position: string) =>
  progressOf(t.at(position)).flatMap((p) => (p.record ? [] : [p.step.id]));

/** A record of any step, at hand or not. */
export const step = (t: TestJob, position: string, stage: string, stepId: string, data: StepData) =>
  ({
    kind: 'step-recorded',
    position,
    stage,
    stepId,
    round: t.at(position).rounds.length,
    data,
  }) as Command & CommandInput;
export const did = { kind: 'instruct' } as const;
export const yes = { kind: 'inspect', ok: true } as const;
/** A torque reached with a listed wrench, lbf·ft. */
export const torque = (value: number, more: object = {}) =>
  ({
    kind: 'torque',
    torque: quantity(value, 'lbf-ft'),
    ...plainTechnician.wrench(quantity(value, 'lbf-ft').si),
    rounds: 1,
    ...more,
  }) as const;

/** The last record of a step. */
export const recordOf = (t: TestJob, stepId: string) =>
  t.job.events.findLast((e) => e.body.kind === 'step-recorded' && e.body.stepId === stepId)!;
/** Corrects the last record of a step, or strikes it out. */
export const correct = (t: TestJob, stepId: string, data: StepData | null, by = supervisor) => {
  const was = recordOf(t, stepId);
  if (was.body.kind !== 'step-recorded') throw new Error('no step');
  const replacement = data ? { ...was.body, data } : null;
  return t.try({ kind: 'correction', corrects: was.id, reason: 'Written in the wrong row', replacement }, by);
};
