import { type Step, type StepData } from '../../procedure/index.ts';
import { type Work } from '../../stack/index.ts';
import { type Actor, type Command, type Job, type JobOpened, type WheelEnd } from '../index.ts';
export declare const supervisor: Actor;
export declare const technician: Actor;
export declare function openingOn(
  positions: readonly string[],
  sheetId?: string,
  works?: Work[],
  more?: Partial<NonNullable<JobOpened['wheelEnds'][number]['route']>>,
): JobOpened;
/** A job being worked on in a test: every record goes through `decide`. */
export declare class TestJob {
  job: Job;
  constructor(opening?: JobOpened);
  /** The moment of the next record: a minute after the one before. */
  get now(): string;
  /** @returns why it was refused, or null */
  try(command: Command, by?: Actor): string | null;
  do(command: Command, by?: Actor): void;
  at(position: string): WheelEnd;
  step(position: string): Step | null;
  /** Records the step at hand with its usual answer. */
  recordStep(position: string, data?: StepData, by?: Actor): string | null;
  /** Does a step that is recorded already once more. */
  redo(position: string, stepId: string, data: StepData): string | null;
  /** Leaves the step at hand out. */
  skip(position: string, reason?: string): string | null;
  readings(position: string, ...inches: number[]): void;
  /** Works until a step is at hand; measurements read 0.003 in. Without a step, until nothing is left but the release. */
  workTo(position: string, stepId?: string): void;
}
/** Every one of these parts sound. */
export declare function soundParts(parts: readonly string[]): Extract<
  StepData,
  {
    kind: 'judge';
  }
>;
/** What an honest technician records for a step; what cures has cured. */
export declare function answer(w: WheelEnd, step: Step): StepData;
