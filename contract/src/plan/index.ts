import { z } from 'zod';
import { positionSchema } from '@lanternwright/core/axle-plan';
import { absenceSchema, bookingSchema } from '@lanternwright/core/record';
import { weekSchema } from '@lanternwright/core/work-plan';
import { leftLayerSchema, unitSummarySchema } from '../fleet/index.ts';
import { jobSummarySchema } from '../jobs/index.ts';
import { defineRoute, idParams } from '../route/index.ts';
import { duePageSchema, dueQuery, unitHead } from './due.ts';

export { DUE_A_PAGE, type DueUnit } from './due.ts';

export const bookedSchema = bookingSchema.extend({
  id: z.uuid(),
  version: z.int(),
  /** No proposal and no mending moves it. */
  locked: z.boolean(),
  /** When somebody said that it is here; null while it is expected. */
  cameAt: z.iso.datetime().nullable(),
  /** When it left its bay. */
  leftAt: z.iso.datetime().nullable(),
  unit: unitHead,
  /** Names of the people, in their order. */
  names: z.array(z.string()),
  job: z.object({ id: z.uuid(), number: z.int(), title: z.string() }).nullable(),
});
export type Booked = z.output<typeof bookedSchema>;

export const newBookingSchema = bookingSchema;
/** What is said of a unit that is booked. */
const whereItIs = ['come', 'not-here', 'miss', 'end'] as const;
export type WhereItIs = (typeof whereItIs)[number];
export type NewBooking = z.input<typeof newBookingSchema>;

export const moveBookingSchema = bookingSchema
  .pick({ bayId: true, people: true, tools: true, from: true, until: true })
  .extend({ seenVersion: z.int().min(1) });
export type MoveBooking = z.input<typeof moveBookingSchema>;

const seen = z.object({ seenVersion: z.int().min(1) });
export const cancelBookingSchema = seen.extend({
  reason: z.string().trim().min(1, 'enter a reason').max(200),
});
export type CancelBooking = z.output<typeof cancelBookingSchema>;

/** A meter reading that does not fit the others. */
const doubtedSchema = z.object({
  unit: unitHead,
  date: z.iso.date(),
  km: z.number().nullable(),
  hours: z.number().nullable(),
});

/** A wheel end that no job works on and that is not as it should be: not whole, out of service, or out of its band. */
const apartSchema = z.object({
  unit: unitHead,
  position: positionSchema,
  /** Why its job ended, or why its release is in doubt. */
  outOfService: z.string().nullable(),
  left: z.array(leftLayerSchema),
  /** Its last reading, where that is out of its band. */
  outOfBand: z
    .object({ verdict: z.enum(['loose', 'tight']), endPlayMm: z.number(), at: z.iso.datetime() })
    .nullable()
    .default(null),
});

/** The shop this morning: what stands in the bays, what waits and what comes in. */
export const floorSchema = z.object({
  /** Of this moment and of today, what is here and has not left, and what should have come, in the order of their beginning. */
  bookings: z.array(bookedSchema),
  /** What did not come, and is neither booked again nor in a job since. */
  missed: z.array(bookedSchema).default([]),
  /** Open jobs, newest first; those in a bay and those in none. */
  jobs: z.array(jobSummarySchema),
  moreJobs: z.boolean(),
  /** Units of those jobs and bookings, drawn as their axle plans. */
  units: z.array(unitSummarySchema),
  doubted: z.array(doubtedSchema),
  /** Wheel ends that are not as they should be and in no open job, at most eight; those that are not whole first. */
  apart: z.array(apartSchema).default([]),
  /** Who can be put on a unit. */
  people: z.array(z.object({ id: z.uuid(), name: z.string() })),
});
export type Floor = z.output<typeof floorSchema>;

const toldAbsenceSchema = absenceSchema.extend({
  id: z.uuid(),
  version: z.int(),
  /** Who or what it is. */
  name: z.string(),
});
export type ToldAbsence = z.output<typeof toldAbsenceSchema>;
export type NewAbsence = z.input<typeof absenceSchema>;

const weekOrShops = weekSchema.nullable();
const shiftSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  /** Hours of their own; null where they work when the shop does. */
  week: weekOrShops,
});
export type Shift = z.output<typeof shiftSchema>;
/** Hours of a person's own, beside what was seen of them before. */
const changeShiftSchema = z.object({ week: weekOrShops, seen: weekOrShops });
export type ChangeShift = z.input<typeof changeShiftSchema>;

/** A unit and its work, for which a time is looked for. */
export const promiseAskedSchema = z.object({
  unitId: z.uuid(),
  works: bookingSchema.shape.works.unwrap().min(1, 'choose the work'),
  /** The day on which it is to be finished; null: as soon as can be. */
  by: z.iso.date().nullable(),
});
export type PromiseAsked = z.output<typeof promiseAskedSchema>;

const proposalKind = z.enum(['propose', 'mend', 'promise']);
export const askProposalSchema = z
  .object({
    kind: proposalKind,
    /** What is due within so many days is planned. */
    days: z.int().min(1).max(84).default(28),
    owner: z.uuid().optional(),
    /** How long a better plan is looked for, seconds. */
    seconds: z.int().min(1).max(20).default(5),
    promise: promiseAskedSchema.optional(),
  })
  .refine((asked) => (asked.kind === 'promise') === (asked.promise !== undefined), {
    message: 'is needed for a promise, and for nothing else',
    path: ['promise'],
  });
export type AskProposal = z.input<typeof askProposalSchema>;

const stand = z.object({
  bayId: z.string(),
  people: z.array(z.uuid()),
  names: z.array(z.string()),
  from: z.iso.datetime(),
  until: z.iso.datetime(),
});

/** A booking that is proposed: new, or an old one that moves. */
const proposedSchema = z.object({
  unit: unitHead,
  jobId: z.uuid().nullable(),
  /** The booking that moves, as it was seen; null for a new one. */
  bookingId: z.uuid().nullable(),
  seenVersion: z.int().nullable(),
  tools: z.array(z.uuid()),
  /** What is to be done, wheel end by wheel end; of an open job it says itself. */
  works: bookingSchema.shape.works.optional(),
  was: stand.nullable(),
  to: stand,
  /** Why it begins then and not before, or why it moves: a sentence. */
  because: z.string(),
  /** What is done, and how long that takes, hours from few to many. */
  what: z.string(),
  hours: z.object({ low: z.number(), usual: z.number(), high: z.number(), measured: z.int() }).nullable(),
  /** Days after the day it is due; 0 where it is in time. */
  lateDays: z.number(),
});
export type Proposed = z.output<typeof proposedSchema>;

/** What work needs of the store and is not free there. */
const partNotHereSchema = z.object({
  title: z.string(),
  quantity: z.int(),
  /** The day on which it can be had; null where nobody knows. */
  by: z.iso.date().nullable(),
  how: z.enum(['on-order', 'to-order', 'unknown']),
});
export type PartNotHere = z.output<typeof partNotHereSchema>;

const promisedSchema = z.object({
  by: z.iso.date().nullable(),
  /** Whether the day holds: with nothing else moved, with the other rows moved, or not at all. */
  holds: z.enum(['free', 'moving', 'late']),
  parts: z.array(partNotHereSchema),
});

const proposalResultSchema = z.object({
  rows: z.array(proposedSchema),
  /** Units that found no place, with why. */
  unplaced: z.array(z.object({ unit: unitHead, why: z.string() })),
  /** How much better a plan could be at the most, a part of 1; null where nothing is late. */
  gap: z.number().nullable(),
  /** Visits that are saved by doing at once what is due close together. */
  visitsSaved: z.int(),
  /** Of a promise: the first row is its unit. */
  promise: promisedSchema.optional(),
});
export type ProposalResult = z.output<typeof proposalResultSchema>;

const proposalSchema = z.object({
  id: z.uuid(),
  kind: proposalKind,
  askedAt: z.iso.datetime(),
  state: z.enum(['waiting', 'running', 'ready', 'stopped', 'failed']),
  done: z.number(),
  result: proposalResultSchema.nullable(),
});
export type Proposal = z.output<typeof proposalSchema>;

const loadHours = z.object({ low: z.number(), usual: z.number(), high: z.number() });
/** Hours a week: what people have, what is booked, what is due besides. */
const weekLoadSchema = z.object({
  monday: z.iso.date(),
  capacity: z.number(),
  booked: z.number(),
  due: loadHours,
});
export type WeekLoad = z.output<typeof weekLoadSchema>;

export const calendarSubjects = {
  shop: 'The whole shop',
  bay: 'A bay',
  person: 'A person',
  owner: 'An owner',
} as const;
const calendarOf = z.enum(Object.keys(calendarSubjects) as [keyof typeof calendarSubjects]);
/** Whose calendar it is; of the shop, `of` is empty. */
const newCalendarSchema = z.object({ what: calendarOf, of: z.string().max(60) });
export type NewCalendar = z.output<typeof newCalendarSchema>;
const calendarSchema = z.object({
  id: z.uuid(),
  what: calendarOf,
  name: z.string(),
  madeAt: z.iso.datetime(),
  madeBy: z.string(),
});
export type Calendar = z.output<typeof calendarSchema>;
/**
 * Where a calendar is read, without the shop’s own address where that is not set. Whoever knows it reads it: it is told
 * once.
 */
const madeCalendarSchema = z.object({ id: z.uuid(), address: z.string() });
export type MadeCalendar = z.output<typeof madeCalendarSchema>;

const answer = z.object({ id: z.uuid() });

const fromUntil = z.object({ from: z.iso.datetime(), until: z.iso.datetime() });

export const planRoutes = {
  floor: defineRoute({
    method: 'get',
    path: '/api/plan/floor',
    summary: 'What stands in the bays now and today, and the open jobs',
    access: 'see-plan',
    answer: floorSchema,
  }),
  due: defineRoute({
    method: 'get',
    path: '/api/plan/due',
    summary: 'Units by what is due on them first, a page at a time; unknown ones apart',
    access: 'see-plan',
    query: dueQuery,
    answer: duePageSchema,
  }),
  bookings: defineRoute({
    method: 'get',
    path: '/api/plan/bookings',
    summary: 'What is booked from one day to another, six weeks at most',
    access: 'see-plan',
    query: fromUntil,
    answer: z.array(bookedSchema),
  }),
  book: defineRoute({
    method: 'post',
    path: '/api/plan/bookings',
    summary: 'Book a bay for a unit, with who works on it',
    access: 'plan-work',
    body: newBookingSchema,
    answer,
  }),
  move: defineRoute({
    method: 'put',
    path: '/api/plan/bookings/:id',
    summary: 'Move a booking to another bay, time or people',
    access: 'plan-work',
    params: idParams,
    body: moveBookingSchema,
    answer,
  }),
  sayWhere: defineRoute({
    method: 'post',
    path: '/api/plan/bookings/:id/where',
    summary: 'Mark a booked unit as arrived, not here, missed, or gone from its bay',
    access: 'plan-work',
    params: idParams,
    body: seen.extend({ what: z.enum(whereItIs) }),
    answer,
  }),
  cancel: defineRoute({
    method: 'post',
    path: '/api/plan/bookings/:id/cancel',
    summary: 'Take a booking back, with why',
    access: 'plan-work',
    params: idParams,
    body: cancelBookingSchema,
    answer,
  }),
  lock: defineRoute({
    method: 'post',
    path: '/api/plan/bookings/:id/lock',
    summary: 'Lock or unlock a booking',
    access: 'plan-work',
    params: idParams,
    body: seen.extend({ locked: z.boolean() }),
    answer,
  }),
  absences: defineRoute({
    method: 'get',
    path: '/api/plan/absences',
    summary: 'Who and what is away from one moment to another',
    access: 'see-plan',
    query: fromUntil,
    answer: z.array(toldAbsenceSchema),
  }),
  tellAbsence: defineRoute({
    method: 'post',
    path: '/api/plan/absences',
    summary: 'Add an absence',
    access: 'plan-work',
    body: absenceSchema,
    answer,
  }),
  cancelAbsence: defineRoute({
    method: 'post',
    path: '/api/plan/absences/:id/cancel',
    summary: 'Take an absence back',
    access: 'plan-work',
    params: idParams,
    body: seen,
    answer,
  }),
  shifts: defineRoute({
    method: 'get',
    path: '/api/plan/shifts',
    summary: 'Technicians, each with hours of their own where these are not the shop’s',
    access: 'plan-work',
    answer: z.array(shiftSchema),
  }),
  changeShift: defineRoute({
    method: 'put',
    path: '/api/plan/shifts/:id',
    summary: 'Set the hours of a person, or the hours of the shop for them',
    access: 'plan-work',
    params: idParams,
    body: changeShiftSchema,
    answer: z.array(shiftSchema),
  }),
  ask: defineRoute({
    method: 'post',
    path: '/api/plan/proposals',
    summary: 'Ask for a plan of what is due, or for the plan to be mended',
    access: 'plan-work',
    body: askProposalSchema,
    answer,
  }),
  proposal: defineRoute({
    method: 'get',
    path: '/api/plan/proposals/:id',
    summary: 'How far a plan is, and what it proposes',
    access: 'see-plan',
    params: idParams,
    answer: proposalSchema,
  }),
  stop: defineRoute({
    method: 'post',
    path: '/api/plan/proposals/:id/stop',
    summary: 'Stop a plan that is being made',
    access: 'plan-work',
    params: idParams,
    answer,
  }),
  accept: defineRoute({
    method: 'post',
    path: '/api/plan/proposals/:id/accept',
    summary: 'Book what is proposed for some units, all of it or nothing',
    access: 'plan-work',
    params: idParams,
    body: z.object({ units: z.array(z.uuid()).min(1, 'choose at least one').max(2000) }),
    answer: z.object({ booked: z.int() }),
  }),
  capacity: defineRoute({
    method: 'get',
    path: '/api/plan/capacity',
    summary: 'Hours people have and hours asked for, twelve weeks on',
    access: 'see-plan',
    answer: z.array(weekLoadSchema),
  }),
  dueCsv: defineRoute({
    method: 'get',
    path: '/api/plan/due.csv',
    summary: 'What is due as CSV, as it is filtered',
    access: 'see-plan',
    query: dueQuery.omit({ page: true }),
    answer: z.string(),
  }),
  bookingsCsv: defineRoute({
    method: 'get',
    path: '/api/plan/bookings.csv',
    summary: 'What is booked as CSV, six weeks at most',
    access: 'see-plan',
    query: fromUntil,
    answer: z.string(),
  }),
  weekPdf: defineRoute({
    method: 'get',
    path: '/api/plan/week/:monday.pdf',
    summary: 'A week on paper, as PDF',
    access: 'see-plan',
    params: z.object({ monday: z.iso.date() }),
    answer: z.instanceof(Uint8Array),
  }),
  calendars: defineRoute({
    method: 'get',
    path: '/api/plan/calendars',
    summary: 'Calendars that other programs read',
    access: 'see-plan',
    answer: z.array(calendarSchema),
  }),
  makeCalendar: defineRoute({
    method: 'post',
    path: '/api/plan/calendars',
    summary: 'Make a calendar that other programs read at a secret address',
    access: 'plan-work',
    body: newCalendarSchema,
    answer: madeCalendarSchema,
  }),
  revokeCalendar: defineRoute({
    method: 'post',
    path: '/api/plan/calendars/:id/revoke',
    summary: 'Close the address of a calendar',
    access: 'plan-work',
    params: idParams,
    answer,
  }),
  calendar: defineRoute({
    method: 'get',
    path: '/api/calendars/:secret.ics',
    summary: 'A calendar, as iCalendar, for whoever has its address',
    access: 'anyone',
    params: z.object({ secret: z.string().min(1).max(80) }),
    answer: z.string(),
  }),
};
