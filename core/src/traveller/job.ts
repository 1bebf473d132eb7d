import type { NotCounted, Side, StoredSide } from '../assembly/index.ts';
import type { AxleRole, Position } from '../axle-plan/index.ts';
import type { LayerId, Stack, Work } from '../stack/index.ts';
import type { Bill } from '../cost/index.ts';
import type { Symptom } from '../inspection/index.ts';
import type { Procedure, Sheet, Stage, StepData } from '../procedure/index.ts';
import type { Quantity } from '../quantity/index.ts';
import type { RetorqueDue } from '../interval/index.ts';
import type { Actor } from '../access/index.ts';
import type { BodyOf, Meter, StoredEvent } from './event.ts';
import type { Objection } from './objection.ts';

/** When, by whom, and by which event something was recorded. */
export interface Trace {
  eventId: string;
  /** Place in the job; a record that was corrected keeps its place. */
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

export interface Release extends Trace {
  /** Number of the rules that it was given by. */
  rules: number;
  overrideReason: string | null;
  overridden: readonly Objection[];
  /** Null where the wheel did not come off. */
  followUp: RetorqueDue | null;
  alsoDue: NonNullable<BodyOf<'wheel-end-released'>['alsoDue']>;
  /** The correction after which what it was given on does not hold; null while it stands. */
  inDoubt: { reason: string; at: string; by: Actor } | null;
}

/** A result of the reckoner that somebody put into the record. */
export type RecordedReckoning = Trace & Omit<BodyOf<'reckoning-kept'>, 'kind' | 'position'>;

export type Photo = Trace & Omit<BodyOf<'photo-added'>, 'kind' | 'position'>;

/** A supervisor's answer about a part. */
type Decided = Trace & Omit<BodyOf<'decision-made'>, 'kind' | 'position'>;
/** A supervisor's answer to a finding that no record answers. */
type Answered = Trace & Omit<BodyOf<'finding-answered'>, 'kind' | 'position'>;
type FollowUpDone = Trace & Omit<BodyOf<'follow-up-done'>, 'kind' | 'position'>;

/** One adjustment, from its start to its readings. Going back to Adjust opens the next one. */
export interface Round {
  number: number;
  from: 'start' | 'setting';
  turns: number | null;
  predictedMm: number | null;
  /** Place from which on its records count; -1 where nothing is to be set, so that what was set before counts. */
  seq: number;
  /** The nut was locked when it was asked for. */
  wasLocked: boolean;
  /** Not locked, but its second nut, ring or plate was on. */
  secured: boolean;
}

/** What the steps of a wheel end come from: how it is built, what is wanted of it, and what came. */
export interface Plan {
  stack: Stack;
  works: readonly Work[];
  alreadyOff: readonly LayerId[];
  together: boolean;
  /** Where each work was added in the job; from the opening where it is not named. */
  addedAt: Readonly<Partial<Record<Work, number>>>;
  /** Layers that are wanted open or off once more: wishes, that touch no metal. */
  wishes: readonly { layer: LayerId; how: 'open' | 'off'; seq: number }[];
  /** What the owner did not want done now, with date and risk where it is deferred. */
  unwanted: readonly (Trace & {
    work: Work;
    answer: 'defer' | 'decline';
    name: string;
    until: string | undefined;
    risk: string | undefined;
  })[];
  received: readonly (Trace & { what: string; as: 'received' | 'reused' })[];
}

/** One position being worked on: its own record, nothing copied from the other side. */
export interface WheelEnd {
  position: Position;
  /** The axle it is on, for life; jobs older than this name only the position. */
  axleId: string;
  axle: AxleRole | null;
  sheet: Sheet;
  plan: Plan;
  /** The procedure of a job of the first build, which is read only; null in every other. */
  firstBuild: Procedure | null;
  /** What is on, off, made and broken on it now; of a job of the first build nothing is known. */
  side: Side;
  /** The side as the job found it; null where nothing was known of it. */
  began: StoredSide | null;
  /** The other side of its axle is in the job as well: needed where what both share is opened. */
  withOther: boolean;
  /** Records that do not count, by event, and why. */
  notCounted: Readonly<Record<string, NotCounted>>;
  rounds: readonly Round[];
  records: readonly StepRecord[];
  readings: readonly Reading[];
  reckonings: readonly RecordedReckoning[];
  /** What was noticed of the unit before the job. */
  symptoms: readonly Symptom[];
  /** Who gave it, in this job, a band of more than twice the usual one. */
  widened: Actor | null;
  /** Findings that a supervisor answered. */
  answered: readonly Answered[];
  photos: readonly Photo[];
  decisions: readonly Decided[];
  followUpsDone: readonly FollowUpDone[];
  release: Release | null;
  /** Number of the rules whose acts it is held to; today's where it is not said. */
  rules?: number;
  /** A release that was given in this job and does not stand any more: what both sides share was opened since. */
  lapsed: Release | null;
  retorque: (Trace & Omit<BodyOf<'retorque-recorded'>, 'kind' | 'position'>) | null;
  /** When and why it was left out of the job; no reason where the owner's answer left nothing to do. Null while it is in. */
  leftOut: (Trace & { reason: string | null }) | null;
}

/** The newest estimate and bill of a job, and what the owner answered to that estimate. */
export interface JobMoney {
  /** `nth`: it is so many times that one was written in this job, from 1. */
  estimate: (Trace & { bill: Bill; nth: number }) | null;
  answer: (Trace & Omit<BodyOf<'owner-answered'>, 'kind'>) | null;
  actual: (Trace & { bill: Bill; nth: number }) | null;
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
  /** Wheel ends that were in it and were left out as they were. */
  leftOut: readonly WheelEnd[];
  events: readonly StoredEvent[];
}

/** The wheel end at a position, or undefined. */
export function wheelEndAt(job: Job, position: Position): WheelEnd | undefined {
  return job.wheelEnds.find((w) => w.position === position);
}

/** Wheel ends that are in a job or were left out of it. */
export const wheelEndsEver = ({ wheelEnds, leftOut }: Pick<Job, 'wheelEnds' | 'leftOut'>): WheelEnd[] => [
  ...wheelEnds,
  ...leftOut,
];

/** The wheel end at a position, also where it was left out of the job; or undefined. */
export const wheelEndEver = (job: Job, position: Position): WheelEnd | undefined =>
  wheelEndsEver(job).find((w) => w.position === position);

/** Round of the readings taken as found, before the first adjustment. */
export const AS_FOUND = 0;

/** The round at hand. */
export function currentRound(wheelEnd: WheelEnd): Round {
  return wheelEnd.rounds[wheelEnd.rounds.length - 1]!;
}

/** The round that a record belongs to now: one whose own round is no more, since what began it was struck, to the last. */
export const roundOf = ({ rounds }: Pick<WheelEnd, 'rounds'>, { round }: { round: number }): number =>
  Math.min(round, rounds.length);

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
