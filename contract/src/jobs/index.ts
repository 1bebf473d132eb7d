import { z } from 'zod';
import { positionSchema, unitKindSchema } from '@lanternwright/core/axle-plan';
import { stageSchema } from '@lanternwright/core/procedure';
import { layerIds, workSchema } from '@lanternwright/core/stack';
import {
  commandSchema,
  jobOpenedSchema,
  objectionSchema,
  storedEventSchema,
} from '@lanternwright/core/traveller';
import { ownerSchema, readingRowSchema } from '../fleet/index.ts';
import { defineRoute, idParams, pageNumber, problemSchema } from '../route/index.ts';
import { followUpsRoute } from './follow-ups.ts';

export { FOLLOW_UPS_A_PAGE, type ShopFollowUp, type ShopFollowUps } from './follow-ups.ts';

const openQuestionSchema = z.object({
  component: z.string(),
  title: z.string(),
  seen: z.string(),
  note: z.string().optional(),
  askedBy: z.string(),
  at: z.iso.datetime(),
});

/** Where one wheel end of a job stands, for lists. */
export const wheelEndStandSchema = z.object({
  position: positionSchema,
  axleId: z.uuid(),
  stage: stageSchema,
  released: z.boolean(),
  /** Why its release does not hold any more. */
  inDoubt: z.string().nullable().default(null),
  trouble: z.string().nullable(),
  /** Who recorded last on it. */
  who: z.string().nullable(),
  /** Every step is recorded: a supervisor looks and signs. */
  waitsForRelease: z.boolean().default(false),
  /** Findings that wait for the supervisor. */
  asks: z.array(openQuestionSchema).default([]),
  /** Tools, parts and lubricant that are not at hand, each with the day it is due. */
  lacks: z.array(z.object({ title: z.string(), by: z.string().nullable() })).default([]),
  /** What was sealed has to cure before it goes on. */
  cures: z.boolean().default(false),
  works: z.array(workSchema).default([]),
  /** Which part of its steps is not done yet, 0 to 1. */
  left: z.number().min(0).max(1).default(1),
});
export type WheelEndStand = z.infer<typeof wheelEndStandSchema>;

export const jobSummarySchema = z.object({
  id: z.uuid(),
  number: z.int(),
  title: z.string(),
  unit: z.object({ id: z.uuid(), name: z.string(), kind: unitKindSchema, owner: ownerSchema }),
  openedAt: z.iso.datetime(),
  closedAt: z.iso.datetime().nullable(),
  /** Held or voided, with the reason; null while it runs. */
  stopped: z.object({ as: z.enum(['held', 'void', 'out-of-service']), reason: z.string() }).nullable(),
  /** Whether an estimate is written, and waits for the owner's answer. */
  estimate: z.enum(['none', 'asks', 'answered']),
  wheelEnds: z.array(wheelEndStandSchema),
});
export type JobSummary = z.infer<typeof jobSummarySchema>;

export const jobDetailSchema = z.object({
  number: z.int(),
  unit: z.object({
    id: z.uuid(),
    name: z.string(),
    kind: unitKindSchema,
    owner: ownerSchema,
    axles: z.array(z.object({ number: z.int(), role: z.string(), wheels: z.enum(['single', 'dual']) })),
  }),
  /** Earlier readings of the same unit, from other jobs. */
  before: z.array(readingRowSchema),
  /** How each wheel end last left another job: what stood against it, and why it went all the same. */
  releasedBefore: z.array(
    z.object({
      position: positionSchema,
      at: z.iso.datetime(),
      by: z.string(),
      overridden: z.array(objectionSchema),
      overrideReason: z.string().nullable(),
    }),
  ),
  /** What each wheel end was packed or filled with last, in another job; absent from copies that an earlier program made. */
  lubricantBefore: z
    .array(z.object({ position: positionSchema, name: z.string(), at: z.iso.datetime() }))
    .optional(),
  events: z.array(storedEventSchema),
});
export type JobDetail = z.output<typeof jobDetailSchema>;

/** A wheel end of a new job, with what is wanted of it. */
const wantedSchema = z.object({
  position: positionSchema,
  works: z.array(workSchema).min(1, 'choose the work').max(12),
  /** Layers that are off already where the unit comes in pieces. */
  alreadyOff: z.array(z.enum(layerIds)).max(12).default([]),
  /** Wheel, drum and hub in one on a dolly. */
  together: z.boolean().default(false),
});

/** A new job names the wheel ends; their sheets are taken from the axles as they are now. */
export const openJobSchema = jobOpenedSchema
  .pick({
    unitId: true,
    title: true,
    complaint: true,
    reportedBy: true,
    symptoms: true,
    meter: true,
    drive: true,
  })
  .extend({
    wheelEnds: z.array(wantedSchema).min(1, 'choose at least one wheel end').max(18),
    /** The booking that it is opened for: the two are one thing from then on. */
    bookingId: z.uuid().optional(),
  });
/** The other side of an axle joins a job, with the sender's own id for the record: sent twice, stored once. */
export const joinJobSchema = z.object({ id: z.uuid(), wheelEnd: wantedSchema });
export type JoinJobInput = z.input<typeof joinJobSchema>;
export type OpenJobInput = z.input<typeof openJobSchema>;

/** A command with the sender's own id (sent twice, stored once) and the version the sender saw. */
export const postEventSchema = z.object({
  id: z.uuid(),
  seenVersion: z.int().min(1),
  command: commandSchema,
  /** Who recorded it, where it may have waited on a device: it is taken only while that person is signed in. */
  as: z.uuid().optional(),
  /** Who recorded it, where that is not who sends it: a supervisor sends on what lies on a device. */
  recordedBy: z.uuid().optional(),
});
export type PostEventInput = z.input<typeof postEventSchema>;

/** A record that another person makes at this step, with their own login and password, with their PIN, or as one of the demo people. */
export const secondPersonSchema = postEventSchema.extend({
  person: z.union([
    z.object({ login: z.string().min(1).max(40), password: z.string().min(1).max(200) }),
    z.object({ personId: z.uuid(), pin: z.string().regex(/^\d{4,8}$/, 'four to eight digits') }),
    z.object({ demoId: z.uuid() }),
  ]),
});
export type SecondPersonInput = z.input<typeof secondPersonSchema>;

/** 409: the job has moved on and the command no longer fits. */
export const staleProblemSchema = problemSchema.extend({ job: jobDetailSchema });

export const liveMessageSchema = z.object({ jobId: z.uuid(), event: storedEventSchema });
export type LiveMessage = z.output<typeof liveMessageSchema>;

/** How many jobs stand on one page. */
export const JOBS_A_PAGE = 100;

export const jobsRoutes = {
  followUps: followUpsRoute,
  live: defineRoute({
    method: 'get',
    path: '/api/live',
    summary: 'Every record as it is stored, as a stream of server-sent events',
    access: 'see-jobs',
    answer: liveMessageSchema,
  }),
  list: defineRoute({
    method: 'get',
    path: '/api/jobs',
    summary: 'Open jobs, or closed ones, newest first, a page at a time',
    access: 'see-jobs',
    query: z.object({ status: z.enum(['open', 'closed']).default('open'), page: pageNumber }),
    answer: z.array(jobSummarySchema),
  }),
  job: defineRoute({
    method: 'get',
    path: '/api/jobs/:id',
    summary: 'One job with all its events',
    access: 'see-jobs',
    params: idParams,
    answer: jobDetailSchema,
  }),
  open: defineRoute({
    method: 'post',
    path: '/api/jobs',
    summary: 'Open a job on some wheel ends of a unit',
    access: 'open-jobs',
    body: openJobSchema,
    answer: z.object({ id: z.uuid(), number: z.int() }),
  }),
  join: defineRoute({
    method: 'post',
    path: '/api/jobs/:id/wheel-ends',
    summary: 'Take the other side of an axle of the job into it',
    access: 'work-on-jobs',
    params: idParams,
    body: joinJobSchema,
    answer: storedEventSchema,
  }),
  addPhoto: defineRoute({
    method: 'post',
    path: '/api/jobs/:id/photos',
    summary: 'Keep a photo for a job; an event with its hash then puts it into the record',
    access: 'work-on-jobs',
    params: idParams,
    body: z.object({ jpeg: z.base64().min(100).max(2_100_000) }),
    answer: z.object({ id: z.uuid(), sha256: z.string() }),
  }),
  photo: defineRoute({
    method: 'get',
    path: '/api/jobs/photos/:id',
    summary: 'A photo, as JPEG',
    access: 'see-jobs',
    params: idParams,
    answer: z.instanceof(Uint8Array),
  }),
  postEvent: defineRoute({
    method: 'post',
    path: '/api/jobs/:id/events',
    summary: 'Record something on a job',
    access: 'record-on-jobs',
    params: idParams,
    body: postEventSchema,
    answer: storedEventSchema,
  }),
  secondPerson: defineRoute({
    method: 'post',
    path: '/api/jobs/:id/second-person',
    summary: 'Record something as a second person, who signs with their own password at this step',
    access: 'work-on-jobs',
    params: idParams,
    body: secondPersonSchema,
    answer: storedEventSchema,
  }),
};
