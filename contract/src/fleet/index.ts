import { z } from 'zod';
import { roleSchema } from '@lanternwright/core/access';
import { placeSchema } from '@lanternwright/core/assembly';
import { axlesSchema, placedAxleSchema, positionSchema, unitKindSchema } from '@lanternwright/core/axle-plan';
import { duties, saidDutiesSchema, type Duty } from '@lanternwright/core/due';
import { LONGEST_REMARKS } from '@lanternwright/core/record';
import { layerIds, workSchema } from '@lanternwright/core/stack';
import { verdictSchema } from '@lanternwright/core/end-play';
import { meterSchema, type Meter } from '@lanternwright/core/traveller';
import { defineRoute, idParams, pageNumber } from '../route/index.ts';

export { meterSchema, type Meter };
export {
  meterRoutes,
  METERS_A_PAGE,
  type CorrectMeter,
  type MeterPage,
  type MeterRow,
  type NewMeterRead,
  type SwapMeter,
} from './meters.ts';

export const ownerSchema = z.object({ id: z.uuid(), name: z.string() });
export type Owner = z.infer<typeof ownerSchema>;

/** State of a wheel end as drawn: its last verdict, or what is going on. */
export const wheelEndStateSchema = z.enum([
  'in-band',
  'tight',
  'loose',
  'repeat',
  'not-measured',
  'working',
  'out-of-service',
]);
export type WheelEndState = z.infer<typeof wheelEndStateSchema>;

/** A layer that a job left off, open, or on and not finished, with who moved it last, when, and in which job. */
export const leftLayerSchema = z.object({
  layer: z.enum(layerIds),
  is: placeSchema,
  by: z.string().nullable().default(null),
  at: z.iso.datetime().nullable().default(null),
  jobId: z.uuid().nullable().default(null),
  job: z.int().nullable().default(null),
});
export type LeftLayer = z.infer<typeof leftLayerSchema>;

export const wheelEndSummarySchema = z.object({
  position: positionSchema,
  state: wheelEndStateSchema,
  endPlayMm: z.number().nullable(),
  readAt: z.iso.datetime().nullable(),
  readKm: z.number().nullable(),
  /** Why a job ended it out of service; null where none did, or a later one released it. */
  outOfService: z.string().nullable(),
  /** Layers that the last job left off, open or not finished; null where it left the wheel end whole. */
  left: z.array(leftLayerSchema).nullable().default(null),
});
export type WheelEndSummary = z.infer<typeof wheelEndSummarySchema>;

const axleShape = placedAxleSchema.pick({ id: true, number: true, role: true, wheels: true, brake: true });

export const unitSummarySchema = z.object({
  id: z.uuid(),
  owner: ownerSchema,
  name: z.string(),
  kind: unitKindSchema,
  plate: z.string(),
  meterKm: z.number().nullable(),
  hours: z.number().nullable(),
  meterDate: z.iso.date().nullable(),
  axles: z.array(axleShape),
  wheelEnds: z.array(wheelEndSummarySchema),
  openJobId: z.uuid().nullable(),
});
export type UnitSummary = z.infer<typeof unitSummarySchema>;

export const UNITS_A_PAGE = 60;

/** States of wheel ends that somebody has to do something about. */
export const standingStates = ['working', 'out-of-service', 'loose', 'tight'] as const;

const fleetQuerySchema = z.object({
  /** Words of a unit's name, plate, owner or kind. */
  search: z.string().max(80).default(''),
  owner: z.uuid().optional(),
  kind: unitKindSchema.optional(),
  state: wheelEndStateSchema.optional(),
  page: pageNumber,
});
export type FleetQuery = z.output<typeof fleetQuerySchema>;

export const fleetPageSchema = z.object({
  units: z.array(unitSummarySchema),
  /** How many units fit, and how many of them each owner on this page has. */
  total: z.int(),
  ofOwner: z.record(z.uuid(), z.int()),
  /** The whole fleet, whatever is asked for. */
  fleet: z.object({
    units: z.int(),
    standing: z.partialRecord(z.enum(standingStates), z.int()),
  }),
});
export type FleetPage = z.infer<typeof fleetPageSchema>;

/** A unit that somebody has to do something about, with how much of what is due is due now. */
export const needingUnitSchema = z.object({
  unit: unitSummarySchema,
  /** Follow-ups that are due or overdue, and works past their interval. */
  followUps: z.int(),
  due: z.int(),
});
export type NeedingUnit = z.infer<typeof needingUnitSchema>;
export const NEEDING_A_PAGE = 12;

export const fleetOverviewSchema = z.object({
  /** What needs something first: out of service, out of band, to be measured again, in a job, follow-ups, due. */
  needing: z.array(needingUnitSchema),
  /** How many units need something. */
  total: z.int(),
  /** Every owner with how many units they have, and how many of those need something. */
  owners: z.array(z.object({ id: z.uuid(), name: z.string(), units: z.int(), needing: z.int() })),
  fleet: fleetPageSchema.shape.fleet,
});
export type FleetOverview = z.infer<typeof fleetOverviewSchema>;

/** One settled set of readings: the projection of a round of Verify. */
export const readingRowSchema = z.object({
  jobId: z.uuid(),
  axleId: z.uuid(),
  position: positionSchema,
  round: z.int(),
  endPlayMm: z.number(),
  rangeMm: z.number(),
  cycles: z.int(),
  verdict: verdictSchema,
  at: z.iso.datetime(),
  by: z.string(),
  km: z.number().nullable(),
  /** The last of its job: what the wheel end left with. */
  final: z.boolean(),
});
export type ReadingRow = z.infer<typeof readingRowSchema>;

export const followUpSchema = z.object({
  jobId: z.uuid(),
  position: positionSchema,
  kind: z.enum(['retorque', 'oil-level', 'temporary', 'deferred', 'other-side']),
  /** Which of its kind, where a release opened several; the first is 0. */
  nth: z.int(),
  what: z.string(),
  fromKm: z.number().nullable(),
  byKm: z.number().nullable(),
  byHours: z.number().nullable(),
  byDate: z.iso.date(),
  state: z.enum(['early', 'due', 'overdue']),
});
export type FollowUp = z.infer<typeof followUpSchema>;

/** A work that is wanted on a wheel end at intervals, and when. */
export const dueSchema = z.object({
  position: positionSchema,
  work: workSchema,
  lastOn: z.iso.date().nullable(),
  dueOn: z.iso.date().nullable(),
  /** Between these days it lies, as far as the use of the unit goes. */
  earliest: z.iso.date().nullable(),
  latest: z.iso.date().nullable(),
  dueBy: z.enum(['distance', 'months', 'hours', 'out-of-band', 'deferred']).nullable(),
  missing: z.array(z.enum(['last', 'distance', 'hours'])),
  /** Duties of the unit that made it come sooner. */
  shortened: z.array(z.enum(Object.keys(duties) as [Duty, ...Duty[]])),
  state: z.enum(['overdue', 'soon', 'later', 'unknown']),
});
export type Due = z.infer<typeof dueSchema>;

export const unitDetailSchema = unitSummarySchema.omit({ axles: true }).extend({
  /** Counts its changes: whoever changes it says which one they saw. */
  version: z.int(),
  /** What makes its work come sooner. */
  duty: saidDutiesSchema,
  /** What the office knows of it; empty for an owner's contact. */
  remarks: z.string(),
  axles: z.array(placedAxleSchema),
  /** Axles that stood under it once, with what was measured on them. */
  takenOut: z.array(
    z.object({
      axle: placedAxleSchema,
      takenOutAt: z.iso.datetime(),
      readings: z.array(readingRowSchema),
    }),
  ),
  readings: z.array(readingRowSchema),
  followUps: z.array(followUpSchema),
  due: z.array(dueSchema),
  jobs: z.array(
    z.object({
      id: z.uuid(),
      number: z.int(),
      title: z.string(),
      openedAt: z.iso.datetime(),
      closedAt: z.iso.datetime().nullable(),
    }),
  ),
});
export type UnitDetail = z.output<typeof unitDetailSchema>;

const ownerName = z.string().trim().min(1, 'an owner is needed').max(80);
const unitName = z.string().trim().min(1, 'a name is needed').max(60);

const remarksSchema = z.string().trim().max(LONGEST_REMARKS);

/** Works that were done on a day. */
const serviceSchema = z.object({
  date: z.iso.date(),
  works: z.array(workSchema).min(1).max(20),
});

export const newUnitSchema = z.object({
  owner: ownerName,
  name: unitName,
  kind: unitKindSchema,
  plate: z.string().trim().max(20).default(''),
  meter: meterSchema.default({}),
  axles: axlesSchema,
  remarks: remarksSchema.default(''),
  /** What was done last on all of its wheel ends that have parts for it. */
  told: z.array(serviceSchema).max(20).default([]),
});
export type NewUnit = z.output<typeof newUnitSchema>;
export type NewUnitInput = z.input<typeof newUnitSchema>;

/** The axles a unit is to have: those it has by their ids, new ones without. */
export const changeAxlesSchema = z.object({
  seenVersion: z.int().min(0),
  axles: z
    .array(placedAxleSchema.extend({ id: z.uuid().optional() }))
    .min(1)
    .max(9),
});
export type ChangeAxles = z.output<typeof changeAxlesSchema>;

/** Works that were done on a wheel end, of which no job here tells. */
export const tellServiceSchema = serviceSchema.extend({ position: positionSchema });
export type TellService = z.output<typeof tellServiceSchema>;

/** Units of which the same is told at once. */
export const UNITS_TOLD_AT_ONCE = 100;
const tellServicesSchema = serviceSchema.extend({
  unitIds: z.array(z.uuid()).min(1, 'choose the units').max(UNITS_TOLD_AT_ONCE),
});
export type TellServices = z.output<typeof tellServicesSchema>;

const setRemarksSchema = z.object({ seenVersion: z.int().min(0), remarks: remarksSchema });
export type SetRemarks = z.output<typeof setRemarksSchema>;

const setDutySchema = z.object({ seenVersion: z.int().min(0), duty: saidDutiesSchema });
export type SetDuty = z.output<typeof setDutySchema>;

export const historyLineSchema = z.object({
  at: z.iso.datetime(),
  by: z.string(),
  jobId: z.uuid(),
  jobNumber: z.int(),
  position: positionSchema.nullable(),
  text: z.string(),
  /** Where it is a photo that stands. */
  photoId: z.uuid().nullable(),
});
export type HistoryLine = z.infer<typeof historyLineSchema>;

/** What one job did on one wheel end. */
export const visitSchema = z.object({
  jobId: z.uuid(),
  jobNumber: z.int(),
  title: z.string(),
  openedAt: z.iso.datetime(),
  closedAt: z.iso.datetime().nullable(),
  works: z.array(workSchema),
  /** End play as it came and as it left, mm; null where it was not measured. */
  asFoundMm: z.number().nullable(),
  asLeftMm: z.number().nullable(),
  verdict: z.string().nullable(),
  /** Parts that were used on it, each with the batch that its maker printed; none for an owner's contact. */
  parts: z.array(
    z.object({
      id: z.uuid(),
      number: z.string(),
      title: z.string(),
      quantity: z.int(),
      batch: z.string().nullable(),
    }),
  ),
  /** Who recorded last on it. */
  who: z.string().nullable(),
  photos: z.array(historyLineSchema.extend({ photoId: z.uuid() })),
});
export type Visit = z.infer<typeof visitSchema>;
export const VISITS_A_PAGE = 10;

/** Units, open jobs, tools, orders and people by words, parts by number; who may not see one kind is told of none. */
export const foundSchema = z.object({
  units: z.array(
    z.object({ id: z.uuid(), name: z.string(), kind: unitKindSchema, plate: z.string(), owner: z.string() }),
  ),
  jobs: z.array(
    z.object({ id: z.uuid(), number: z.int(), title: z.string(), unit: z.string(), open: z.boolean() }),
  ),
  parts: z.array(z.object({ id: z.uuid(), number: z.string(), title: z.string(), onHand: z.int() })),
  tools: z.array(z.object({ id: z.uuid(), code: z.string(), title: z.string() })).default([]),
  orders: z
    .array(z.object({ id: z.uuid(), number: z.int(), supplier: z.string(), status: z.string() }))
    .default([]),
  people: z.array(z.object({ id: z.uuid(), name: z.string(), role: roleSchema })).default([]),
  /** What makers printed on parts, each with how many units it is on. */
  batches: z
    .array(
      z.object({
        partId: z.uuid(),
        batch: z.string(),
        number: z.string(),
        title: z.string(),
        units: z.int(),
      }),
    )
    .default([]),
});
export type Found = z.infer<typeof foundSchema>;

export const fleetRoutes = {
  find: defineRoute({
    method: 'get',
    path: '/api/find',
    summary:
      'Units by name, plate, owner or kind, jobs by number, unit or title, parts by number, tools, orders and people; the likeliest first',
    access: 'signed-in',
    query: z.object({ text: z.string().trim().min(1).max(80) }),
    answer: foundSchema,
  }),
  list: defineRoute({
    method: 'get',
    path: '/api/fleet/units',
    summary: 'Units with the state of every wheel end, by owner and name, a page at a time',
    access: 'see-units',
    query: fleetQuerySchema,
    answer: fleetPageSchema,
  }),
  overview: defineRoute({
    method: 'get',
    path: '/api/fleet/overview',
    summary: 'Units that need something, the gravest first, a page at a time; owners with their counts',
    access: 'see-units',
    query: z.object({ page: pageNumber }),
    answer: fleetOverviewSchema,
  }),
  unit: defineRoute({
    method: 'get',
    path: '/api/fleet/units/:id',
    summary: 'One unit: axles with their sheets, readings, follow-ups, jobs',
    access: 'see-units',
    params: idParams,
    answer: unitDetailSchema,
  }),
  history: defineRoute({
    method: 'get',
    path: '/api/fleet/units/:id/history',
    summary: 'What was done on a unit, when and by whom, newest first',
    access: 'see-units',
    params: idParams,
    query: z.object({ position: positionSchema.optional(), job: z.uuid().optional() }),
    answer: z.array(historyLineSchema),
  }),
  visits: defineRoute({
    method: 'get',
    path: '/api/fleet/units/:id/visits',
    summary: 'Jobs on a wheel end, a line each, newest first, a page at a time',
    access: 'see-units',
    params: idParams,
    query: z.object({
      position: positionSchema,
      page: pageNumber,
      /** Words that are all in it: a work, a year, a part, a batch, a person. */
      search: z.string().trim().max(80).default(''),
    }),
    answer: z.object({ total: z.int(), rows: z.array(visitSchema) }),
  }),
  add: defineRoute({
    method: 'post',
    path: '/api/fleet/units',
    summary: 'Add a unit; its owner is made if the name is new',
    access: 'add-units',
    body: newUnitSchema,
    answer: ownerSchema.pick({ id: true }),
  }),
  replaceAxles: defineRoute({
    method: 'put',
    path: '/api/fleet/units/:id/axles',
    summary: 'Change the axles and sheets of a unit; running jobs keep what they opened with',
    access: 'change-fleet',
    params: idParams,
    body: changeAxlesSchema,
    answer: ownerSchema.pick({ id: true }),
  }),
  tellService: defineRoute({
    method: 'post',
    path: '/api/fleet/units/:id/services',
    summary: 'Tell when works were done on a wheel end that no job here tells of',
    access: 'add-units',
    params: idParams,
    body: tellServiceSchema,
    answer: ownerSchema.pick({ id: true }),
  }),
  tellServices: defineRoute({
    method: 'post',
    path: '/api/fleet/services',
    summary:
      'Tell of several units when works were done, on all of their wheel ends of which nobody knows it; what is known stays',
    access: 'add-units',
    body: tellServicesSchema,
    answer: z.object({
      /** On how many wheel ends something was told, and of how many units. */
      wheelEnds: z.int(),
      units: z.int(),
    }),
  }),
  setDuty: defineRoute({
    method: 'put',
    path: '/api/fleet/units/:id/duty',
    summary: "Set the duty that shortens a unit's intervals",
    access: 'change-fleet',
    params: idParams,
    body: setDutySchema,
    answer: ownerSchema.pick({ id: true }),
  }),
  setRemarks: defineRoute({
    method: 'put',
    path: '/api/fleet/units/:id/remarks',
    summary: 'Write what the office knows of a unit',
    access: 'change-fleet',
    params: idParams,
    body: setRemarksSchema,
    answer: ownerSchema.pick({ id: true }),
  }),
  owners: defineRoute({
    method: 'get',
    path: '/api/fleet/owners',
    summary: 'The owners the shop serves',
    access: 'see-units',
    answer: z.array(ownerSchema),
  }),
};
