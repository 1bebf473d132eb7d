import { judgeEndPlay, type EndPlayResult } from '../end-play/index.ts';
import { componentOf, conditionOf } from '../inspection/index.ts';
import { bandInMm, stages, type Stage, type Step } from '../procedure/index.ts';
import { judgedParts } from './findings.ts';
import { stageRead, stepsEverRead, stepsRead } from './first-build.ts';
import { AS_FOUND, currentRound, roundOf, type Reading, type StepRecord, type WheelEnd } from './job.ts';
import { actsOf, routeProgress } from './route-progress.ts';
import { everyAct } from '../route/index.ts';

/** A step with what was recorded for it, if anything. */
export interface StepProgress {
  step: Step;
  record: StepRecord | null;
}

/** `nothing`: this route has nothing to do in the stage. */
export type StageState = 'done' | 'now' | 'ahead' | 'trouble' | 'nothing';

/** Cycle of one reading, in mm. */
export function playMm(reading: Pick<Reading, 'push' | 'pull'>): number {
  return Math.abs(reading.pull.si - reading.push.si) * 1000;
}

/** Readings of one round that still count, in the order taken: none from before the nut was last moved. */
export function readingsOf(wheelEnd: WheelEnd, round = currentRound(wheelEnd).number): Reading[] {
  const from = round === currentRound(wheelEnd).number ? wheelEnd.side.nutMoved : 0;
  return wheelEnd.readings.filter((r) => roundOf(wheelEnd, r) === round && r.seq > from);
}

/** What the readings of a round mean against the sheet's band; null without readings. */
export function verdictOf(wheelEnd: WheelEnd, round = currentRound(wheelEnd).number): EndPlayResult | null {
  const readings = readingsOf(wheelEnd, round);
  const { band } = wheelEnd.sheet;
  if (readings.length === 0 || !band) return null;
  const cycles = readings.map((r) => ({ pushMm: r.push.si * 1000, pullMm: r.pull.si * 1000 }));
  return judgeEndPlay({ cycles, band: bandInMm(band) });
}

/** The last round that has readings, and its verdict. */
export function lastVerdict(wheelEnd: WheelEnd): { round: number; result: EndPlayResult } | null {
  for (const number of [...wheelEnd.rounds.map((r) => r.number).reverse(), AS_FOUND]) {
    const result = verdictOf(wheelEnd, number);
    if (result) return { round: number, result };
  }
  return null;
}

/** Steps of a wheel end in order, each with the record that counts for it. */
export const progressOf = (w: WheelEnd): readonly StepProgress[] =>
  w.firstBuild ? stepsRead(w, w.firstBuild) : routeProgress(w);

/** Steps of some kinds that a wheel end has, with what was recorded. */
export const stepsOfKind = (wheelEnd: WheelEnd, ...kinds: Step['kind'][]): StepProgress[] =>
  progressOf(wheelEnd).filter((p) => kinds.includes(p.step.kind));

/** The locking of the nut, and the second person who looked at it. */
export const lockSteps = (wheelEnd: WheelEnd): StepProgress[] =>
  progressOf(wheelEnd).filter(
    ({ step }) => step.kind === 'lock' || (step.kind === 'inspect' && step.otherThan !== undefined),
  );

/** A step a wheel end can have, whatever was chosen. */
export function stepTitled(w: WheelEnd | undefined, stage: string, stepId: string): Step | undefined {
  if (!w) return undefined;
  return stepsEver(w).find((s) => s.stage === stage && s.id === stepId);
}

/** Every step a wheel end has now, or can have. */
function stepsEver(w: WheelEnd): readonly Step[] {
  if (w.firstBuild) return stepsEverRead(w.firstBuild);
  return [...actsOf(w), ...everyAct(w.plan.stack, w.sheet).values()];
}

/** The first step that is neither done nor skipped; null when only the release is left. */
export function stepAtHand(wheelEnd: WheelEnd): Step | null {
  return progressOf(wheelEnd).find((p) => p.record === null)?.step ?? null;
}

/** The stage in which a wheel end stands. */
export function stageAtHand(wheelEnd: WheelEnd): Stage {
  return stepAtHand(wheelEnd)?.stage ?? 'release';
}

/** A finding that waits for the supervisor. */
export interface OpenQuestion {
  component: string;
  title: string;
  /** What was seen, in words. */
  seen: string;
  note: string | undefined;
  askedBy: string;
  at: string;
}

/** Findings that ask the supervisor and have no answer since. */
export function openQuestions(wheelEnd: WheelEnd): OpenQuestion[] {
  return [...judgedParts(wheelEnd).values()]
    .filter(
      ({ finding, record }) =>
        finding.disposition === 'ask' &&
        !wheelEnd.decisions.some((d) => d.component === finding.component && d.seq > record.seq),
    )
    .map(({ finding: { component, seen, note }, record }) => {
      return {
        component,
        title: componentOf(component)?.title ?? component,
        seen: conditionOf(component, seen)?.words ?? seen,
        note,
        askedBy: record.by.name,
        at: record.at,
      };
    });
}

/** Records of the work at hand that waited on a device too long to count. */
export function lateRecords(w: WheelEnd): StepRecord[] {
  const round = currentRound(w).number;
  return w.records.filter((r) => roundOf(w, r) === round && w.notCounted[r.eventId]?.why === 'late');
}

/** The round to which a measuring step's readings belong: as found in Diagnose, else the current one. */
export function readingRound(wheelEnd: WheelEnd, step: Step): number {
  return step.stage === 'diagnose' ? AS_FOUND : currentRound(wheelEnd).number;
}

/** State of every stage of a wheel end: a cell of the traveller each. */
export function stageStates(wheelEnd: WheelEnd): Record<Stage, StageState> {
  const progress = progressOf(wheelEnd);
  const now = stageAtHand(wheelEnd);
  const states = {} as Record<Stage, StageState>;
  for (const { id } of stages) {
    const here = progress.filter((p) => p.step.stage === id);
    const records = here.filter((p) => !p.step.optional).map((p) => p.record);
    if (wheelEnd.release && id === 'release') states[id] = 'done';
    else if (records.some((r) => r && isTrouble(r))) states[id] = 'trouble';
    else if (id === now) states[id] = 'now';
    else if (wheelEnd.firstBuild) states[id] = stageRead(id, now);
    else if (here.length === 0)
      states[id] = id === 'intake' ? 'done' : id === 'release' ? 'ahead' : 'nothing';
    else states[id] = here.every((p) => p.record) ? 'done' : 'ahead';
  }
  const verdict = verdictOf(wheelEnd)?.verdict;
  if (verdict === 'tight' || verdict === 'loose') states.verify = 'trouble';
  return states;
}

function isTrouble(record: StepRecord): boolean {
  return record.skipped !== null || (record.data.kind === 'inspect' && !record.data.ok);
}
