import type { AxleRole, Position } from '../axle-plan/index.ts';
import type { LayerId, Stack, Work } from '../stack/index.ts';
import type { Bill } from '../cost/index.ts';
import type { Symptom } from '../inspection/index.ts';
import type { Procedure, Sheet, Stage, StepData } from '../procedure/index.ts';
import type { Quantity } from '../quantity/index.ts';
import type { RetorqueDue } from '../interval/index.ts';
import type { Actor, BodyOf, Meter, StoredEvent } from './event.ts';
import type { Objection } from './objection.ts';

/** When, by whom, and by which event something was recorded. */
export interface Trace {
  eventId: string;
  /** Place in the job; of a correction that changes what was done with the nut, the place of the correction. */
  seq: number;
  /** When the server received it. */
  at: string;
  /** When it was done, as the device had it; the same where it was sent at once. */
  doneAt: string;
  by: Actor;
  /** Set when a later correction changed what stands here. */
  corrected?: { reason: string; at: string; by: Actor };
}

/** A step done, or skipped with a reason. */
export type StepRecord = Trace & {
  stage: Stage;
  stepId: string;
  round: number;
} & ({ data: StepData; skipped: null } | { data: null; skipped: string });

/** One cycle of push and pull. */
export interface Reading extends Trace {
  round: number;
  push: Quantity;
  pull: Quantity;
  source: 'typed' | 'pasted' | 'gauge';
  gauge?: string;
}

interface Release extends Trace {
  overrideReason: string | null;
  overridden: readonly Objection[];
  /** Null where the wheel did not come off. */
  followUp: RetorqueDue | null;
  alsoDue: NonNullable<BodyOf<'wheel-end-released'>['alsoDue']>;
}

/** A result of the reckoner that somebody put into the record. */
export type RecordedReckoning = Trace & Omit<BodyOf<'reckoning-kept'>, 'kind' | 'position'>;

export type Photo = Trace & Omit<BodyOf<'photo-added'>, 'kind' | 'position'>;

/** A supervisor's answer about a part. */
type Decided = Trace & Omit<BodyOf<'decision-made'>, 'kind' | 'position'>;
type FollowUpDone = Trace & Omit<BodyOf<'follow-up-done'>, 'kind' | 'position'>;

/** One adjustment, from its start to its readings. Going back to Adjust opens the next one. */
export interface Round {
  number: number;
  from: 'start' | 'setting';
  turns: number | null;
  predictedMm: number | null;
  /** The nut was locked, and the brake back on, when this round opened it. */
  wasLocked: boolean;
  brakeOn: boolean;
}

/** Place in the job from which on the records of a layer count, by layer; from the opening where it is not named. */
export type Since = Readonly<Partial<Record<LayerId, number>>>;

/** How the steps of a wheel end come about. */
export type Plan =
  /** By one procedure: jobs of the first build. */
  | { by: 'procedure'; procedure: Procedure }
  /** By the stack, the works and what was found. */
  | {
      by: 'route';
      stack: Stack;
      works: readonly Work[];
      alreadyOff: readonly LayerId[];
      together: boolean;
      since: { off: Since; back: Since };
      /** Steps whose figure changed with the sheet, and from where on their records count. */
      sinceStep: Readonly<Record<string, number>>;
      /** What the owner did not want done now, with date and risk where it is deferred. */
      unwanted: readonly (Trace & {
        work: Work;
        answer: 'defer' | 'decline';
        name: string;
        until: string | undefined;
        risk: string | undefined;
      })[];
      received: readonly (Trace & { what: string; as: 'received' | 'reused' })[];
    };
export type RoutePlan = Extract<Plan, { by: 'route' }>;

/** One position being worked on: its own record, nothing copied from the other side. */
export interface WheelEnd {
  position: Position;
  /** The axle it is on, for life; jobs older than this name only the position. */
  axleId: string;
  axle: AxleRole | null;
  sheet: Sheet;
  plan: Plan;
  rounds: readonly Round[];
  records: readonly StepRecord[];
  readings: readonly Reading[];
  reckonings: readonly RecordedReckoning[];
  photos: readonly Photo[];
  decisions: readonly Decided[];
  followUpsDone: readonly FollowUpDone[];
  release: Release | null;
  retorque: (Trace & Omit<BodyOf<'retorque-recorded'>, 'kind' | 'position'>) | null;
}

/** The newest estimate and bill of a job, and what the owner answered to that estimate. */
export interface JobMoney {
  estimate: (Trace & { bill: Bill }) | null;
  answer: (Trace & Omit<BodyOf<'owner-answered'>, 'kind'>) | null;
  actual: (Trace & { bill: Bill }) | null;
}

/** Why a job does not go on: held until it is resumed, or ended for good. */
export type Stopped = { reason: string; at: string; by: Actor } & (
  | { as: 'held' | 'void' }
  | ({ as: 'out-of-service' } & Pick<BodyOf<'ended-out-of-service'>, 'leaves' | 'told'>)
);

/** A job: nothing but the fold of its events. */
export interface Job {
  id: string;
  /** The shop's own number; null in jobs whose opening does not name it. */
  number: number | null;
  unitId: string;
  title: string;
  complaint: string;
  reportedBy: string;
  meter: Meter;
  symptoms: readonly Symptom[];
  /** Set while the job is held, with its reason; a voided job stays so. */
  stopped: Stopped | null;
  opened: { at: string; by: Actor };
  money: JobMoney;
  /** Version of the last event. */
  version: number;
  wheelEnds: readonly WheelEnd[];
  events: readonly StoredEvent[];
}

/** The wheel end at a position, or undefined. */
export function wheelEndAt(job: Job, position: Position): WheelEnd | undefined {
  return job.wheelEnds.find((w) => w.position === position);
}

/** Round of the readings taken as found, before the first adjustment. */
export const AS_FOUND = 0;

/** The round at hand. */
export function currentRound(wheelEnd: WheelEnd): Round {
  return wheelEnd.rounds[wheelEnd.rounds.length - 1]!;
}

/** The newest of a wheel end's records, readings and release. */
export function lastTrace(w: WheelEnd): Trace | undefined {
  const all: Trace[] = [...w.records, ...w.readings, ...w.reckonings, ...(w.release ? [w.release] : [])];
  return all.sort((a, b) => (a.at < b.at ? -1 : 1)).at(-1);
}

/** Whether an estimate or a bill is written. */
export const isPriced = ({ money }: Pick<Job, 'money'>): boolean =>
  money.estimate !== null || money.actual !== null;

/** A job is closed when every wheel end in it is released, when it was voided, or ended out of service. */
export function isClosed(job: Job): boolean {
  return (
    job.stopped?.as === 'void' ||
    job.stopped?.as === 'out-of-service' ||
    job.wheelEnds.every((w) => w.release !== null)
  );
}
