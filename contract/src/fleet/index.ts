import { z } from 'zod';
import { axlesSchema, placedAxleSchema, positionSchema, unitKindSchema } from '@lanternwright/core/axle-plan';
import { verdictSchema } from '@lanternwright/core/end-play';
import { meterSchema, type Meter } from '@lanternwright/core/traveller';
import { defineRoute, idParams } from '../route/index.ts';

export { meterSchema, type Meter };

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

export const wheelEndSummarySchema = z.object({
  position: positionSchema,
  state: wheelEndStateSchema,
  endPlayMm: z.number().nullable(),
  readAt: z.iso.datetime().nullable(),
  readKm: z.number().nullable(),
  /** Why a job ended it out of service; null where none did, or a later one released it. */
  outOfService: z.string().nullable(),
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
  byDate: z.iso.date(),
  state: z.enum(['early', 'due', 'overdue']),
});
export type FollowUp = z.infer<typeof followUpSchema>;

export const unitDetailSchema = unitSummarySchema.omit({ axles: true }).extend({
  /** Counts its changes: whoever changes it says which one they saw. */
  version: z.int(),
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

export const newUnitSchema = z.object({
  owner: ownerName,
  name: unitName,
  kind: unitKindSchema,
  plate: z.string().trim().max(20).default(''),
  meter: meterSchema.default({}),
  axles: axlesSchema,
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

export const historyLineSchema = z.object({
  at: z.iso.datetime(),
  by: z.string(),
  jobId: z.uuid(),
  jobNumber: z.int(),
  position: positionSchema.nullable(),
  text: z.string(),
});
export type HistoryLine = z.infer<typeof historyLineSchema>;

export const fleetRoutes = {
  list: defineRoute({
    method: 'get',
    path: '/api/fleet/units',
    summary: 'All units with the state of every wheel end',
    access: 'see-units',
    answer: z.array(unitSummarySchema),
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
    query: z.object({ position: positionSchema.optional() }),
    answer: z.array(historyLineSchema),
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
  owners: defineRoute({
    method: 'get',
    path: '/api/fleet/owners',
    summary: 'The owners the shop serves',
    access: 'see-units',
    answer: z.array(ownerSchema),
  }),
};
