import { z } from 'zod';
import { actorSchema } from '../access/index.ts';
import { placeSchema, sideSchema } from '../assembly/index.ts';
import { billSchema } from '../cost/index.ts';
import {
  componentOf,
  dispositionSchema,
  driveActs,
  driveVerdicts,
  symptomSchema,
  type DriveAct,
  type DriveVerdict,
} from '../inspection/index.ts';
import { axleRoles, positionSchema, type AxleRole } from '../axle-plan/index.ts';
import { retorqueDueSchema } from '../interval/index.ts';
import { sheetSchema, stageSchema, stepDataSchema } from '../procedure/index.ts';
import { layerIds, stackSchema, workSchema } from '../stack/index.ts';
import { readOnce } from './one-of-a-kind.ts';
import { toolSchema } from '../tool/index.ts';
import { convert, distanceSchema, hoursSchema, readingSchema, torqueSchema } from '../quantity/index.ts';

import { objectionSchema } from './objection.ts';
import { RULES } from './rules.ts';
import { followUpKinds, type FollowUpKind } from './follow-up-kinds.ts';

const words = z.string().trim().min(1).max(500);
const name = z.string().trim().min(1).max(80);
const round = z.int().min(1).max(99);

/** The unit's meters as read at intake or later. */
export const meterSchema = z.object({ distance: distanceSchema.optional(), hours: hoursSchema.optional() });
export type Meter = z.output<typeof meterSchema>;

/** The odometer in km, or null where it was not read. */
export function meterKm({ distance }: Meter): number | null {
  return distance ? convert(distance.value, distance.unit, 'km') : null;
}

export const meterHours = ({ hours }: Meter): number | null =>
  hours ? convert(hours.value, hours.unit, 'h') : null;

/** When it was done, by the clock of the device it was recorded on; left out where it was sent at once. */
const doneAt = z.iso.datetime().optional();

const stepAt = { position: positionSchema, stage: stageSchema, stepId: z.string().min(1).max(60), round };

const stepRecorded = z.object({
  kind: z.literal('step-recorded'),
  ...stepAt,
  data: stepDataSchema,
  doneAt,
});
const stepSkipped = z.object({ kind: z.literal('step-skipped'), ...stepAt, reason: words });
const readingTaken = z.object({
  kind: z.literal('reading-taken'),
  position: positionSchema,
  /** 0 for the reading as found, before anything is loosened. */
  round: z.int().min(0).max(99),
  push: readingSchema,
  pull: readingSchema,
  source: z.enum(['typed', 'pasted', 'gauge']),
  gauge: name.optional(),
  doneAt,
});
const adjustReopened = z.object({
  kind: z.literal('adjust-reopened'),
  position: positionSchema,
  /** The round that is left behind. */
  round,
  from: z.enum(['start', 'setting']),
  /** Planned turn of the nut, positive tightens; with `setting`. */
  turns: z.number().min(-5).max(5).optional(),
  predictedMm: z.number().min(-25).max(25).optional(),
});
const retorqueRecorded = z.object({
  kind: z.literal('retorque-recorded'),
  position: positionSchema,
  torque: torqueSchema,
  tool: name,
  /** The tool as the shop's list had it that day; never of an outside workshop. */
  listed: toolSchema.optional(),
  doneBy: name.optional(),
  distance: distanceSchema.optional(),
  /** Of a unit with an hour meter alone. */
  hours: hoursSchema.optional(),
  note: words.optional(),
});
const HUGE_RECKONING = 40_000;

const followUpKind = z.enum(Object.keys(followUpKinds) as [FollowUpKind, ...FollowUpKind[]]);

const followUpDone = z.object({
  kind: z.literal('follow-up-done'),
  position: positionSchema,
  followUp: followUpKind,
  /** Which of its kind, where a release opened several; the first is 0. */
  nth: z.int().min(0).max(20).default(0),
  doneBy: name.optional(),
  note: words.optional(),
});
/** A supervisor's answer to a finding that could go either way. */
const decisionMade = z.object({
  kind: z.literal('decision-made'),
  position: positionSchema,
  component: name,
  decision: dispositionSchema.exclude(['ask']),
  reason: words,
});
/** A supervisor's answer to a finding that no record answers: put right, and how, or looked into and not so. */
const findingAnswered = z.object({
  kind: z.literal('finding-answered'),
  position: positionSchema,
  finding: z.string().min(1).max(60),
  how: z.enum(['put-right', 'not-so']),
  reason: words,
});
/** Records that came late from a device count all the same: a supervisor knows that they were done after what they follow. */
const lateCounted = z.object({
  kind: z.literal('late-counted'),
  position: positionSchema,
  /** Ids of the records. */
  records: z.array(z.uuid()).min(1).max(200),
  reason: words,
});
/** A photo, kept beside the record; its hash stands here. */
const photoAdded = z.object({
  kind: z.literal('photo-added'),
  position: positionSchema,
  stage: stageSchema,
  photoId: z.uuid(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** The part it shows, where it was taken of one. */
  component: z
    .string()
    .refine((id) => componentOf(id) !== undefined, 'is no part that is judged')
    .optional(),
  caption: z.string().trim().max(200),
});

/** An estimate for the owner before the work, or what it came to in the end. */
const billWritten = z.object({
  kind: z.literal('bill-written'),
  as: z.enum(['estimate', 'actual']),
  bill: billSchema,
});

/** What an owner can answer to an estimate. */
export const ownerAnswers = { 'do-now': 'Do it now', defer: 'Defer it', decline: 'Decline it' } as const;
export type OwnerAnswer = keyof typeof ownerAnswers;
const ownerAnswered = z.object({
  kind: z.literal('owner-answered'),
  answer: z.enum(Object.keys(ownerAnswers) as [OwnerAnswer, ...OwnerAnswer[]]),
  /** Who said so on the owner's side. */
  name,
  /** What they want to say with it. */
  message: z.string().trim().min(1).max(500).optional(),
  /** Record of the estimate that was answered, where the owner's contact answered it themselves. */
  estimate: z.uuid().optional(),
  until: z.iso.date().optional(),
  /** The risk the owner takes by deferring, named. */
  risk: words.optional(),
  /** Works that were answered otherwise than the whole: they come off the route, or stand as deferred. */
  works: z
    .array(
      z.object({
        position: positionSchema,
        work: workSchema,
        answer: z.enum(['defer', 'decline']),
        until: z.iso.date().optional(),
        risk: words.optional(),
      }),
    )
    .max(60)
    .optional(),
});

const jobHeld = z.object({ kind: z.literal('job-held'), reason: words });
const jobResumed = z.object({ kind: z.literal('job-resumed') });
const jobVoided = z.object({ kind: z.literal('job-voided'), reason: words });

const reckoningKept = z.object({
  kind: z.literal('reckoning-kept'),
  position: positionSchema,
  /** The calculation's name in the registry, and its title as a person reads it. */
  name: z.string().regex(/^[a-z0-9-]{1,40}$/),
  title: name,
  /** The figures that matter, in words. */
  summary: words,
  reckoned: z
    .object({ input: z.json(), result: z.json() })
    .refine((r) => JSON.stringify(r).length <= HUGE_RECKONING, 'is too long to keep in a record'),
  note: words.optional(),
});
/** What was noted at intake, put right. */
const intake = z.object({
  kind: z.literal('intake'),
  complaint: z.string().trim().max(500),
  reportedBy: z.string().trim().max(80),
  symptoms: z.array(symptomSchema).max(20),
  meter: meterSchema,
});
/** More work on a wheel end, found on the way: the route grows, what is recorded stays. */
const workAdded = z.object({
  kind: z.literal('work-added'),
  position: positionSchema,
  work: workSchema,
  reason: words,
  photoId: z.uuid().optional(),
});
/** Work whose layers are untouched is not done after all. */
const workWithdrawn = z.object({
  kind: z.literal('work-withdrawn'),
  position: positionSchema,
  work: workSchema,
  reason: words,
});
/** A wheel end that is as it was is not done in this job. */
const wheelEndLeftOut = z.object({
  kind: z.literal('wheel-end-left-out'),
  position: positionSchema,
  reason: words,
});
/** A layer that was put back is opened once more. */
const layerOpened = z.object({
  kind: z.literal('layer-opened'),
  position: positionSchema,
  layer: z.enum(layerIds),
  reason: words,
});
/** The wheel end is built otherwise than its sheet says. */
const sheetChanged = z.object({
  kind: z.literal('sheet-changed'),
  position: positionSchema,
  sheet: readOnce(sheetSchema),
  stack: readOnce(stackSchema),
  /** Layers that are off, open or broken and that the new stack does not have: which they are in it; null: never there. */
  lost: z
    .array(z.object({ layer: z.enum(layerIds), is: z.enum(layerIds).nullable() }))
    .max(12)
    .optional(),
  reason: words,
});
/**
 * How a wheel end stands, for what this record cannot know: a unit bought used, pieces in a crate, a tyre shop, a tablet
 * that was lost. What is not named stays as it is known. It makes no closure.
 */
const asItStands = z.object({
  kind: z.literal('as-it-stands'),
  position: positionSchema,
  layers: z
    .array(z.object({ layer: z.enum(layerIds), is: placeSchema }))
    .min(1)
    .max(12),
  /** Who did it: a shop, a person, or nobody knows. */
  who: name,
  reason: words,
});
/** A part that was not there when the work began has come, or the old one goes in again. */
const partReceived = z.object({
  kind: z.literal('part-received'),
  position: positionSchema,
  /** Id of the readiness line. */
  what: z.string().trim().min(1).max(120),
  as: z.enum(['received', 'reused']),
  note: words.optional(),
});
/** The job ends without a release: the unit stays, or leaves without rolling on this axle. */
const endedOutOfService = z.object({
  kind: z.literal('ended-out-of-service'),
  reason: words,
  leaves: z.enum(['stays', 'on-a-bed', 'axle-lifted']),
  /** Who was informed, on the owner's side. */
  told: name,
});

const correction = z.object({
  kind: z.literal('correction'),
  /** Id of the event that was wrong. */
  corrects: z.uuid(),
  reason: words,
  /** What should have been recorded; null strikes the event out. */
  replacement: z.discriminatedUnion('kind', [stepRecorded, readingTaken, intake]).nullable(),
});
/** A correction as it is stored: with the releases that it puts in doubt, decided once. */
const corrected = correction.extend({ doubts: z.array(positionSchema).max(18).optional() });
/** What an earlier job left was corrected after this one began from it. */
const beganCorrected = z.object({
  kind: z.literal('began-corrected'),
  position: positionSchema,
  began: sideSchema.nullable(),
  doubts: z.array(positionSchema).max(18).optional(),
});
const releaseAsked = z.object({
  kind: z.literal('wheel-end-released'),
  position: positionSchema,
  /** A supervisor's written reason to release in spite of what stands against it. */
  overrideReason: words.optional(),
  alsoDue: z
    .array(z.object({ kind: followUpKind, byDate: z.iso.date(), what: words }))
    .max(4)
    .optional(),
});

/** Records that are stored as they were asked for; a release gets its follow-up added. */
const asAsked = [
  stepRecorded,
  stepSkipped,
  readingTaken,
  adjustReopened,
  retorqueRecorded,
  reckoningKept,
  photoAdded,
  decisionMade,
  findingAnswered,
  lateCounted,
  followUpDone,
  billWritten,
  ownerAnswered,
  jobHeld,
  jobResumed,
  jobVoided,
  workAdded,
  workWithdrawn,
  wheelEndLeftOut,
  layerOpened,
  sheetChanged,
  partReceived,
  asItStands,
  endedOutOfService,
] as const;

const commands = z.discriminatedUnion('kind', [...asAsked, correction, releaseAsked]);
export type Command = z.output<typeof commands>;
export type CommandInput = z.input<typeof commands>;
/** What a person can ask of an open job. Named types keep what is built on it short. */
export const commandSchema: z.ZodType<Command, CommandInput> = commands;

/** A wheel end as the job takes it over from the axle: figures frozen as they are today. */
const wheelEndOpened = z.object({
  position: positionSchema,
  axleId: z.uuid().optional(),
  sheet: readOnce(sheetSchema),
  /** Jobs of the first build walk one version of one procedure. */
  procedureVersion: z.int().min(1).optional(),
  /** How it is built and what is wanted of it; what its route is derived from. */
  route: z
    .object({
      /** Version of the rules that derive the route. */
      rules: z.literal(1),
      stack: readOnce(stackSchema),
      works: z.array(workSchema).min(1).max(12),
      alreadyOff: z.array(z.enum(layerIds)).max(12).default([]),
      together: z.boolean().default(false),
    })
    .optional(),
  /** The side as the record had it when the job was opened; left out where nothing was known of it. */
  began: sideSchema.optional(),
  /** What the axle does; null in jobs older than this field. */
  axle: z
    .enum(Object.keys(axleRoles) as [AxleRole, ...AxleRole[]])
    .nullable()
    .default(null),
});

export type WheelEndOpened = z.output<typeof wheelEndOpened>;
const wheelEndOpenedSchema: z.ZodType<WheelEndOpened, z.input<typeof wheelEndOpened>> = wheelEndOpened;

/** The first event of every job. */
export const jobOpenedSchema = z.object({
  kind: z.literal('job-opened'),
  /** The shop's own number of the job; jobs older than this have theirs in the record of the shop. */
  number: z.int().min(1).optional(),
  unitId: z.uuid(),
  title: z.string().trim().min(1).max(120),
  complaint: z.string().trim().max(500),
  reportedBy: z.string().trim().max(80),
  symptoms: z.array(symptomSchema).max(20).default([]),
  meter: meterSchema,
  /** Whether it may be driven, as whoever opened the job saw it, and what was done about it. */
  drive: z
    .object({
      verdict: z.enum(Object.keys(driveVerdicts) as [DriveVerdict, ...DriveVerdict[]]),
      done: z.enum(Object.keys(driveActs) as [DriveAct, ...DriveAct[]]),
    })
    .optional(),
  wheelEnds: z.array(wheelEndOpenedSchema).min(1).max(18),
});
export type JobOpened = z.output<typeof jobOpenedSchema>;

const released = releaseAsked.extend({
  /** What stood against the release when a supervisor overrode it. */
  overridden: z.array(objectionSchema).max(60),
  /** Null where the wheel did not come off. */
  followUp: retorqueDueSchema.nullable(),
  /**
   * Number of the rules that gave the verdict; jobs of the first build have none. From 2 on a thin lining is for the
   * yard only, from 3 on a kingpin is measured.
   */
  rules: z.int().min(1).max(RULES).optional(),
  /** Who releases did part of the work. */
  ownWork: z.boolean().optional(),
});

/** The other side of an axle of the job joins it: opened later, as the shop's pages have it then. */
const wheelEndJoined = z.object({
  kind: z.literal('wheel-end-joined'),
  position: positionSchema,
  wheelEnd: wheelEndOpenedSchema,
});

const eventBodies = z.discriminatedUnion('kind', [
  ...asAsked,
  corrected,
  beganCorrected,
  wheelEndJoined,
  jobOpenedSchema,
  released,
]);
export type EventBody = z.output<typeof eventBodies>;
/** What is stored: the truth about a job. */
export const eventBodySchema: z.ZodType<EventBody> = eventBodies;
export type BodyOf<K extends EventBody['kind']> = Extract<EventBody, { kind: K }>;

const storedEvents = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  /** Place in the job, from 1, without gaps. */
  version: z.int().min(1),
  at: z.iso.datetime(),
  by: actorSchema,
  body: eventBodySchema,
});
/** Named, so that what is built on it stays short. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- an alias would be written out wherever it is used
export interface StoredEvent extends z.output<typeof storedEvents> {}
/** An event as the server stored it. */
export const storedEventSchema: z.ZodType<StoredEvent> = storedEvents;
