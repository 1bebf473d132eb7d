import {
  findProcedure,
  stageOrder,
  stepsOf,
  type Procedure,
  type Stage,
  type Step,
} from '../procedure/index.ts';
import type { Command, WheelEndOpened } from './event.ts';
import { refusal, type Refusal } from './refusal.ts';
import { currentRound, type Job, type StepRecord, type WheelEnd } from './job.ts';

/**
 * Jobs of the first build went by one procedure for each wheel end, knew no layers, and are only read now. An open one
 * ends out of service, and the job after it says how the wheel end stands.
 */

/** The procedure that a wheel end was opened with; null where it was opened with a route, undefined where it is unknown. */
export function procedureOf({
  sheet,
  procedureVersion,
  route,
}: WheelEndOpened): Procedure | null | undefined {
  return route ? null : findProcedure(sheet.procedureId ?? '', procedureVersion);
}

/** Why nothing more is recorded in such a job. */
export const readOnly =
  'This job was opened before the program knew layers, and can only be read: end it out of service, and open another that says how the wheel end stands';

/** What such a job can still be told: how it ends, its bill, and what is due after it. */
const stillHeard: ReadonlySet<Command['kind']> = new Set([
  'ended-out-of-service',
  'job-voided',
  'job-resumed',
  'bill-written',
  'owner-answered',
  'retorque-recorded',
  'follow-up-done',
] as const);

/** Why a job of the first build does not hear a command; null where it does, and for every other job. */
export const whyOnlyRead = ({ wheelEnds }: Pick<Job, 'wheelEnds'>, { kind }: Command): Refusal | null =>
  wheelEnds.some((w) => w.firstBuild) && !stillHeard.has(kind) ? refusal('first-build') : null;

const ADJUST = stageOrder('adjust');

/** The steps of the procedure with what was recorded; from Adjust on, of the last round. */
export function stepsRead(w: WheelEnd, procedure: Procedure): { step: Step; record: StepRecord | null }[] {
  const round = currentRound(w);
  const records = new Map<string, StepRecord>();
  const chosen: Record<string, string> = {};
  for (const record of w.records) {
    if (stageOrder(record.stage) >= ADJUST && record.round !== round.number) continue;
    records.set(`${record.stage}/${record.stepId}`, record);
    if (record.data?.kind === 'choose') chosen[record.stepId] = record.data.option;
  }
  return stepsOf(procedure, round.from, chosen).map((step) => ({
    step,
    record: records.get(`${step.stage}/${step.id}`) ?? null,
  }));
}

/** Every step that the procedure has, whatever was chosen. */
export const stepsEverRead = (procedure: Procedure): readonly Step[] => [
  ...stepsOf(procedure, 'start', {}),
  ...procedure.steps,
  ...procedure.readjust,
];

/** The state of a stage that has nothing to show: the first build went through all of them in their order. */
export const stageRead = (stage: Stage, now: Stage): 'done' | 'ahead' =>
  stageOrder(stage) < stageOrder(now) ? 'done' : 'ahead';
