import { z } from 'zod';
import { lipFacingIds, measuredIds, partKindIds, partSchema, priceSchema } from '@lanternwright/core/part';
import { thickenerIds } from '@lanternwright/core/lubricant';
import { positionSchema } from '@lanternwright/core/axle-plan';
import { movementSchema, reservationSchema } from '@lanternwright/core/record';
import { storeDaySchema } from './day.ts';
import { defineRoute, idParams, okSchema, pageNumber } from '../route/index.ts';

export { ordersRoutes, ORDERS_A_PAGE, type Delivered, type Order, type Proposed } from './orders.ts';
export { COUNT_AFTER_DAYS, COUNTS_SHOWN, PICKS_SHOWN, type StoreDay } from './day.ts';

export const PARTS_A_PAGE = 40;
/** What was paid for a part, so many times back. */
export const PAID_SHOWN = 12;
/** Movements that stand on a part's own page. */
export const MOVEMENTS_SHOWN = 60;

const partLineSchema = z.object({
  id: z.uuid(),
  kind: z.enum(partKindIds),
  title: z.string(),
  number: z.string(),
  /** In the store, wherever. */
  onHand: z.int(),
  /** Of them kept for jobs; more than there are where they are short. */
  reserved: z.int(),
  places: z.array(z.object({ place: z.string(), quantity: z.int() })),
  reorderLevel: z.int().nullable(),
  /** Of a grease, where somebody has told it. */
  thickener: z.enum(thickenerIds).nullish(),
  supersededBy: z.object({ id: z.uuid(), number: z.string() }).nullable(),
});
export type PartLine = z.output<typeof partLineSchema>;

/** Why a part was found. */
const foundSchema = z.object({
  /** same: its own number; crossing: another it is sold under; like: it has the signs that were read; near: one that is nearly so. */
  how: z.enum(['same', 'crossing', 'like', 'near', 'title', 'listed']),
  /** The number that was found, as it is written. */
  number: z.string(),
  /** Signs between it and what was read. */
  distance: z.number(),
});
export type Found = z.output<typeof foundSchema>;

const partsPageSchema = z.object({
  parts: z.array(partLineSchema.extend({ found: foundSchema })),
  more: z.boolean(),
});
export type PartsPage = z.output<typeof partsPageSchema>;

const millimetres = z.coerce.number<number>().positive().max(2000).optional();
const measuredQuery = z.object({
  kind: z.enum(partKindIds).optional(),
  bore: millimetres,
  outside: millimetres,
  width: millimetres,
  lips: z.coerce.number<number>().int().min(1).max(4).optional(),
  facing: z.enum(lipFacingIds).optional(),
  /** By how much a dimension may differ, mm. */
  tolerance: z.coerce.number<number>().min(0.01).max(5).default(0.3),
});
export type MeasuredQuery = z.output<typeof measuredQuery>;

const fitSchema = z.object({
  off: z.partialRecord(z.enum(measuredIds), z.number()),
  unknown: z.array(z.enum(measuredIds)),
  fits: z.boolean(),
  lips: z.enum(['same', 'other', 'unknown', 'not-asked']),
  far: z.number(),
});
const measuredPartSchema = partLineSchema.extend({
  dims: partSchema.shape.dims,
  lips: partSchema.shape.lips,
  fit: fitSchema,
});
export type MeasuredPart = z.output<typeof measuredPartSchema>;

const movementRowSchema = movementSchema.omit({ to: true, returnOf: true }).extend({
  version: z.int(),
  at: z.iso.datetime(),
  byName: z.string(),
  change: z.int(),
  to: z.string().nullable(),
  who: z.string().nullable(),
  jobId: z.uuid().nullable(),
  jobNumber: z.int().nullable(),
  position: z.string().nullable(),
  line: z.string().nullable(),
  reason: z.string().nullable(),
  orderId: z.uuid().nullable(),
  price: priceSchema.nullable(),
  online: z.boolean().nullable(),
  reference: z.string().nullable(),
  batch: z.string().nullable(),
});
export type MovementRow = z.output<typeof movementRowSchema>;

const reservationRowSchema = reservationSchema.extend({ jobNumber: z.int().nullable(), unit: z.string() });
export type ReservationRow = z.output<typeof reservationRowSchema>;

const storePartSchema = z.object({
  part: partSchema,
  version: z.int(),
  changedAt: z.iso.datetime(),
  changedBy: z.string(),
  onHand: z.int(),
  reserved: z.int(),
  /** Old ones that the supplier takes back. */
  cores: z.int(),
  places: z.array(z.object({ place: z.string(), quantity: z.int() })),
  lent: z.array(z.object({ who: z.string(), quantity: z.int() })),
  reservations: z.array(reservationRowSchema),
  /** The newest first. */
  movements: z.array(movementRowSchema),
  supersededBy: z.object({ id: z.uuid(), number: z.string() }).nullable(),
  /** What was paid for one, the newest first. */
  paid: z.array(z.object({ at: z.iso.datetime(), price: priceSchema, orderNumber: z.int().nullable() })),
});
export type StorePart = z.output<typeof storePartSchema>;

/** What the wheel ends of a unit cost: their share of its bills without taxes, and by distance. */
const unitCostsSchema = z.object({
  currency: z.string(),
  /** From when on, and over which distance, the unit is known. */
  since: z.iso.date().nullable(),
  km: z.number().nullable(),
  wheelEnds: z.array(
    z.object({
      position: positionSchema,
      jobs: z.int(),
      minor: z.int(),
      minorPer10000Km: z.int().nullable(),
    }),
  ),
  /** Bills in another currency, which are left out. */
  otherCurrency: z.int(),
});
export type UnitCosts = z.output<typeof unitCostsSchema>;

/** Sent twice it happens once: the browser names the record. */
const moving = <T extends z.ZodType>(movement: T) => z.object({ recordId: z.uuid(), movement });

/** What people tell; what a supplier's service answers is recorded from its answer alone. */
const toldMovement = movementSchema.omit({ online: true, returnOf: true, reference: true });
const onJob = toldMovement.extend({
  what: z.enum(['used', 'returned']),
  jobId: z.uuid(),
  position: positionSchema,
});
const inStore = toldMovement.extend({
  what: z.enum(['received', 'counted', 'scrapped', 'moved', 'lent', 'lent-back', 'core-returned']),
});

const comingSchema = z.object({
  orderId: z.uuid(),
  orderNumber: z.int(),
  expected: z.iso.date(),
  late: z.boolean(),
});
/** How the store can answer a line of a readiness list. */
const standSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('here'), parts: z.array(z.object({ number: z.string(), place: z.string() })) }),
  z.object({ state: z.literal('ordered'), number: z.string(), coming: comingSchema }),
  z.object({ state: z.literal('late'), number: z.string(), coming: comingSchema }),
  z.object({ state: z.literal('none') }),
]);

/** A line of a job's readiness list that a part answers, and how it stands. */
const jobPartsSchema = z.object({
  position: z.string(),
  /** As the list records it: `part:hub-seal`; empty for what was used besides. */
  line: z.string(),
  title: z.string(),
  stand: standSchema,
  /** Parts that fit the sheet of this wheel end here. */
  fitting: z.array(
    partLineSchema.extend({
      /** Batches that came last: what the maker printed on them. */
      batches: z.array(z.string()).default([]),
      /** For which other jobs it is kept, those that come last first. */
      keptFor: z.array(
        z.object({
          id: z.uuid(),
          jobNumber: z.int(),
          unit: z.string(),
          quantity: z.int(),
          day: z.iso.date().nullable(),
        }),
      ),
    }),
  ),
  kept: z.array(
    z.object({
      ...{ id: z.uuid(), partId: z.uuid(), number: z.string(), quantity: z.int() },
      /** The program keeps it, since the job is booked or its work went deeper. */
      planned: z.boolean(),
    }),
  ),
  used: z.array(
    z.object({
      partId: z.uuid(),
      number: z.string(),
      title: z.string(),
      quantity: z.int(),
      price: priceSchema.nullable(),
      /** Of the last that was used. */
      batch: z.string().nullable().default(null),
    }),
  ),
});
export type JobParts = z.output<typeof jobPartsSchema>;

/** Where one batch of a part went, the last first. */
const batchUseSchema = z.object({
  unitId: z.uuid(),
  unit: z.string(),
  owner: z.string(),
  position: z.string(),
  jobId: z.uuid(),
  jobNumber: z.int(),
  at: z.iso.datetime(),
  quantity: z.int(),
});
export type BatchUse = z.output<typeof batchUseSchema>;

const shortageSchema = z.object({
  part: partLineSchema,
  leadDays: z.int().nullable(),
  /** The first day on which there is not enough. */
  shortOn: z.iso.date().nullable(),
  /** What is short first. */
  first: z.string().nullable(),
  missing: z.int(),
  /** The last day to order so that it comes in time; null where nobody knows how long it takes. */
  orderBy: z.iso.date().nullable(),
  late: z.boolean(),
  /** What is on its way of it; an order that is late does not count as coming. */
  onOrder: z.array(comingSchema.extend({ quantity: z.int() })),
  /** Open jobs for which there is not enough, while an order of it is late. */
  holdsUp: z.array(z.object({ jobId: z.uuid(), unit: z.string(), date: z.iso.date() })),
  /** What is wanted on each day, and for which units. */
  demands: z.array(z.object({ date: z.iso.date(), quantity: z.int(), what: z.string() })),
});
export type Shortage = z.output<typeof shortageSchema>;

const seenVersion = z.int().min(0);

export const storesRoutes = {
  parts: defineRoute({
    method: 'get',
    path: '/api/stores/parts',
    summary:
      'Parts by number read off an old one (? and * for what cannot be read), near numbers, crossings, or words',
    access: 'see-stores',
    query: z.object({
      text: z.string().trim().max(80).default(''),
      kind: z.enum(partKindIds).optional(),
      page: pageNumber,
    }),
    answer: partsPageSchema,
  }),
  byMeasure: defineRoute({
    method: 'get',
    path: '/api/stores/by-measure',
    summary: 'Parts by what was measured of an old one, the nearest first, with their differences in mm',
    access: 'see-stores',
    query: measuredQuery,
    answer: z.array(measuredPartSchema),
  }),
  part: defineRoute({
    method: 'get',
    path: '/api/stores/parts/:id',
    summary: 'A part: where how many lie, what is kept for whom, what moved',
    access: 'see-stores',
    params: idParams,
    answer: storePartSchema,
  }),
  batch: defineRoute({
    method: 'get',
    path: '/api/stores/parts/:id/batch',
    summary: 'On which units a batch of a part is, the last first',
    access: 'see-stores',
    params: idParams,
    query: z.object({ batch: z.string().trim().min(1).max(40) }),
    answer: z.array(batchUseSchema),
  }),
  day: defineRoute({
    method: 'get',
    path: '/api/stores/day',
    summary: 'The storekeeper’s day: what to lay out for whom, what comes, what is late, what to count',
    access: 'keep-stores',
    answer: storeDaySchema,
  }),
  list: defineRoute({
    method: 'put',
    path: '/api/stores/parts',
    summary: 'Put a part on the list, or change one by its id',
    access: 'keep-stores',
    body: z.object({ seenVersion, part: partSchema }),
    answer: storePartSchema,
  }),
  move: defineRoute({
    method: 'post',
    path: '/api/stores/parts/:id/movements',
    summary:
      'Record what happened to parts in the store: received, counted, scrapped, moved, lent, core returned',
    access: 'keep-stores',
    params: idParams,
    body: moving(inStore),
    answer: storePartSchema,
  }),
  use: defineRoute({
    method: 'post',
    path: '/api/stores/parts/:id/uses',
    summary: 'Record that parts were used on a job, or returned from it',
    access: 'use-parts',
    params: idParams,
    /** `instead`: what was kept for other jobs and is kept for them no longer, since this one takes it. */
    body: moving(onJob).extend({ instead: z.array(z.uuid()).max(50).default([]) }),
    answer: storePartSchema,
  }),
  jobParts: defineRoute({
    method: 'get',
    path: '/api/stores/jobs/:id',
    summary: 'Parts that a job needs, line by line: what fits, what is kept for it, what it used',
    access: 'see-stores',
    params: idParams,
    answer: z.array(jobPartsSchema),
  }),
  reserve: defineRoute({
    method: 'post',
    path: '/api/stores/parts/:id/reservations',
    summary: 'Keep parts for a job; more than there are is a shortage that is known early',
    access: 'use-parts',
    params: idParams,
    body: z.object({ reservation: reservationSchema.omit({ planned: true }) }),
    answer: okSchema,
  }),
  reserveAll: defineRoute({
    method: 'post',
    path: '/api/stores/jobs/:id/reservations',
    summary:
      'Keep for a job what its routes need and nobody has taken or kept for it yet, as far as it lies here',
    access: 'use-parts',
    params: idParams,
    answer: z.array(jobPartsSchema),
  }),
  endReservation: defineRoute({
    method: 'delete',
    path: '/api/stores/parts/:id/reservations/:reservationId',
    summary: 'Keep parts for a job no longer',
    access: 'use-parts',
    params: z.object({ id: z.uuid(), reservationId: z.uuid() }),
    answer: okSchema,
  }),
  shortages: defineRoute({
    method: 'get',
    path: '/api/stores/shortages',
    summary:
      'Parts that will be short: what is planned, due and open against what lies here, eight weeks ahead',
    access: 'see-stores',
    answer: z.array(shortageSchema),
  }),
  unitCosts: defineRoute({
    method: 'get',
    path: '/api/stores/units/:id/costs',
    summary: 'What the wheel ends of a unit cost so far, and by distance',
    access: 'see-prices',
    params: idParams,
    answer: unitCostsSchema,
  }),
  labels: defineRoute({
    method: 'get',
    path: '/api/stores/parts/:id/labels.pdf',
    summary: 'Labels of a part with a code of its number, as PDF: a reader that types finds the part by it',
    access: 'see-stores',
    params: idParams,
    query: z.object({ copies: z.coerce.number<number>().int().min(1).max(60).default(1) }),
    answer: z.instanceof(Uint8Array),
  }),
};
