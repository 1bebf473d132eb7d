import { oppositeOf } from '../../axle-plan/index.ts';
import { familySheet, type Sheet, type Step, type StepData } from '../../procedure/index.ts';
import { quantity } from '../../quantity/index.ts';
import { answerStep, measuredBy } from '../../rig/index.ts';
import { usualStack, type BuiltAxle, type Work } from '../../stack/index.ts';
import {
  append,
  currentRound,
  decide,
  decideJoining,
  describeRefusal,
  fold,
  progressOf,
  readingRound,
  stepAtHand,
  wheelEndAt,
  type Actor,
  type Command,
  type Job,
  type JobOpened,
  type StoredEvent,
  type WheelEnd,
} from '../index.ts';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const supervisor: Actor = { id: uuid(900), name: 'Sup', role: 'supervisor' };
export const technician: Actor = { id: uuid(901), name: 'Tech', role: 'technician' };

/** What a test axle of these sheets is like. */
const axleOf = (sheetId: string): BuiltAxle => {
  const role = /drive|g-c-clip|^j-/.test(sheetId)
    ? 'drive'
    : /trailer|towed/.test(sheetId)
      ? 'trailer'
      : 'steer';
  const brake = /^[efhkl]-/.test(sheetId) ? 'disc' : /^j-|farm/.test(sheetId) ? 'none' : 'drum';
  return { role, wheels: role === 'drive' ? 'dual' : 'single', brake };
};

export function openingOn(
  positions: readonly string[],
  sheetId = 'a-drive-tang',
  works: Work[] = ['seal'],
  more: Partial<NonNullable<JobOpened['wheelEnds'][number]['route']>> = {},
): JobOpened {
  const sheet: Sheet = familySheet(sheetId)!;
  const axle = axleOf(sheetId);
  const stack = [...usualStack(sheet.procedureId, axle)!];
  return {
    kind: 'job-opened',
    unitId: uuid(800),
    title: 'Drive axle seals',
    complaint: 'Seal weep',
    reportedBy: 'driver',
    symptoms: [],
    meter: { distance: quantity(611_240, 'km') },
    wheelEnds: positions.map((position) => ({
      position,
      sheet,
      axle: axle.role,
      route: { rules: 1, stack, works, alreadyOff: [], together: false, ...more },
    })),
  };
}

/** With the other side of an axle whose shafts share a pin: it is only looked at. */
export function withOtherSide(opening: JobOpened): JobOpened {
  const [w, more] = opening.wheelEnds;
  if (more || !w?.route?.stack.some((l) => l.layer === 'axle')) return opening;
  const other = { ...w, position: oppositeOf(w.position), route: { ...w.route, works: ['check' as const] } };
  return { ...opening, wheelEnds: [w, other] };
}

/** A job being worked on in a test: every record goes through `decide`. */
export class TestJob {
  job: Job;

  constructor(opening: JobOpened = openingOn(['2L', '2R'])) {
    this.job = fold([
      {
        id: uuid(1),
        jobId: uuid(700),
        version: 1,
        at: '2026-11-25T07:00:00.000Z',
        by: technician,
        body: opening,
      },
    ]);
  }

  /** The moment of the next record: a minute after the one before. */
  get now(): string {
    return new Date(Date.UTC(2026, 10, 25, 7, this.job.version + 1)).toISOString();
  }

  /** @returns why it was refused, or null */
  try(command: Command, by: Actor = technician): string | null {
    const decision = decide(this.job, command, { by, today: '2026-11-25', now: this.now });
    if (!decision.ok) return describeRefusal(decision.refusal, this.job);
    const version = this.job.version + 1;
    const at = this.now;
    this.job = append(this.job, {
      id: uuid(version),
      jobId: this.job.id,
      version,
      at,
      by,
      body: decision.event,
    });
    return null;
  }

  /** Takes a wheel end into the job. @throws Error where it is refused */
  join(wheelEnd: JobOpened['wheelEnds'][number]): void {
    const decision = decideJoining(this.job, wheelEnd, {
      by: supervisor,
      today: '2026-11-25',
      now: this.now,
    });
    if (!decision.ok) throw new Error(describeRefusal(decision.refusal, this.job));
    this.job = this.withEvent(decision.event);
  }

  /** The job with one more event that no person asks for. */
  withEvent(body: StoredEvent['body']): Job {
    const version = this.job.version + 1;
    return append(this.job, {
      id: uuid(version),
      jobId: this.job.id,
      version,
      at: this.now,
      by: supervisor,
      body,
    });
  }

  do(command: Command, by: Actor = technician): void {
    const refused = this.try(command, by);
    if (refused) throw new Error(`${command.kind}: ${refused}`);
  }

  at(position: string): WheelEnd {
    return wheelEndAt(this.job, position)!;
  }

  step(position: string): Step | null {
    return stepAtHand(this.at(position));
  }

  /** Records the step at hand with its usual answer. */
  recordStep(
    position: string,
    data: StepData = answer(this.at(position), this.step(position)!),
    by?: Actor,
  ): string | null {
    const step = this.step(position)!;
    const { stage, id } = step;
    const other = step.kind === 'inspect' && step.otherThan ? supervisor : technician;
    return this.try(
      {
        kind: 'step-recorded',
        position,
        stage,
        stepId: id,
        round: currentRound(this.at(position)).number,
        data,
      },
      by ?? other,
    );
  }

  /** Does a step that is recorded already once more. */
  redo(position: string, stepId: string, data: StepData): string | null {
    const { step } = progressOf(this.at(position)).find((p) => p.step.id === stepId)!;
    const round = currentRound(this.at(position)).number;
    return this.try({ kind: 'step-recorded', position, stage: step.stage, stepId, round, data });
  }

  /** Leaves the step at hand out. */
  skip(position: string, reason = 'for the test'): string | null {
    const { stage, id } = this.step(position)!;
    const round = currentRound(this.at(position)).number;
    return this.try({ kind: 'step-skipped', position, stage, stepId: id, round, reason });
  }

  readings(position: string, ...inches: number[]): void {
    const round = readingRound(this.at(position), this.step(position)!);
    for (const value of inches) {
      this.do({
        kind: 'reading-taken',
        position,
        round,
        push: quantity(0, 'in'),
        pull: quantity(value, 'in'),
        source: 'typed',
      });
    }
  }

  /** Works until a step is at hand; measurements read 0.003 in. Without a step, until nothing is left but the release. */
  workTo(position: string, stepId?: string): void {
    let left = MOST_STEPS;
    for (let step = this.step(position); step && step.id !== stepId; step = this.step(position)) {
      if (left-- === 0) throw new Error(`${step.id} is at hand again and again`);
      if (byDial(this.at(position), step)) this.readings(position, 0.003, 0.003, 0.003);
      const refused = this.recordStep(position);
      if (refused) throw new Error(`${step.id}: ${refused}`);
    }
  }
}

/** A check that finds its wheel end loose, 0.0093 in with a band to 0.005, and a supervisor who lets it go. */
export function leaveLoose(t: TestJob, position: string, overrideReason: string): void {
  while (t.step(position)!.kind !== 'measure') t.recordStep(position);
  t.readings(position, 0.0093, 0.0092, 0.0094);
  t.recordStep(position);
  t.workTo(position);
  t.do({ kind: 'wheel-end-released', position, overrideReason }, supervisor);
}

/** More than any work takes; a step that never counts must end a test. */
const MOST_STEPS = 400;

/** Every one of these parts sound. */
export function soundParts(parts: readonly string[]): Extract<StepData, { kind: 'judge' }> {
  const findings = parts.map((component) => ({ component, seen: 'sound', disposition: 'reuse' as const }));
  return { kind: 'judge', hardWorked: false, findings };
}

/** Whether a step of this wheel end is done with the dial. */
const byDial = (w: WheelEnd, step: Step) => step.kind === 'measure' && measuredBy(w, step) === 'dial';

/** What an honest technician records for a step; what cures has cured. */
export function answer(w: WheelEnd, step: Step): StepData {
  return step.kind === 'cure' ? { kind: 'cure', hours: 0.001 } : answerStep(w, step);
}
