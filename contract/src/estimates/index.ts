import { z } from 'zod';
import { positionSchema } from '@lanternwright/core/axle-plan';
import { billSchema, taxSchema } from '@lanternwright/core/cost';
import { priceSchema } from '@lanternwright/core/part';
import { workSchema } from '@lanternwright/core/stack';
import { unitHead } from '../plan/due.ts';
import { defineRoute, idParams } from '../route/index.ts';

/** What the shop charges, and what its estimates and bills say besides. */
export const ratesSchema = z.object({
  /** An hour of labour; null where it is not set. */
  hour: priceSchema.nullable(),
  suppliesPercent: z.number('a number').min(0).max(100, '100 at most'),
  taxes: z.array(taxSchema).max(5, 'five taxes at most'),
  /** As it stands on papers: the number under which the shop pays tax. */
  taxNumber: z.string().trim().max(40),
  /** For how many days an estimate stands; null where that is not said. */
  validDays: z
    .int('a whole number of days')
    .min(1, 'one day at least')
    .max(365, '365 days at most')
    .nullable(),
});
export type ShopRates = z.output<typeof ratesSchema>;

/** The rates, beside those that were there when they were looked at. */
const changeRatesSchema = ratesSchema.extend({ seen: ratesSchema });

const jobHead = z.object({
  jobId: z.uuid(),
  number: z.int(),
  title: z.string(),
  unit: unitHead,
});

/** An estimate that its owner has not answered. */
const askedSchema = jobHead.extend({
  writtenAt: z.iso.datetime(),
  total: priceSchema,
  /** The last day on which it stands; null where that is not said. */
  until: z.iso.date().nullable(),
});

/** A unit that stands in the shop, or has a job open. */
const inShopSchema = jobHead.extend({
  wheelEnds: z.int(),
  released: z.int(),
  stopped: z.enum(['held', 'void', 'out-of-service']).nullable(),
  /** When the last booking of the job ends; null where none is made. */
  expected: z.iso.datetime().nullable(),
});

/** What is due on a unit, with what it takes. */
const aheadSchema = z.object({
  unit: unitHead,
  dueOn: z.iso.date(),
  due: z.array(z.object({ position: positionSchema, work: workSchema, dueOn: z.iso.date() })),
  bookedFrom: z.iso.datetime().nullable(),
  openJobId: z.uuid().nullable(),
  /** Hours of labour, by the planner's times. */
  hours: z.number(),
  /** Labour, parts, supplies and tax as far as their prices are known; null where the shop has set no rate. */
  total: priceSchema.nullable(),
  /** Parts that have no price yet, and are not in the total. */
  unpriced: z.int(),
});
export type AheadUnit = z.output<typeof aheadSchema>;

/** Most units and jobs that are listed of each. */
export const AHEAD_MOST = 60;

export const ownAheadSchema = z.object({
  asks: z.array(askedSchema),
  inShop: z.array(inShopSchema),
  /** The last day that is looked ahead to. */
  until: z.iso.date(),
  due: z.array(aheadSchema),
  /** Units that come due in that time, also those that are not listed. */
  dueUnits: z.int(),
});
export type OwnAhead = z.output<typeof ownAheadSchema>;

export const estimatesRoutes = {
  rates: defineRoute({
    method: 'get',
    path: '/api/estimates/rates',
    summary: 'What the shop charges for an hour, supplies and taxes, and what its papers say besides',
    access: 'see-prices',
    answer: ratesSchema,
  }),
  changeRates: defineRoute({
    method: 'put',
    path: '/api/estimates/rates',
    summary: 'Set what the shop charges',
    access: 'change-settings',
    body: changeRatesSchema,
    answer: ratesSchema,
  }),
  draft: defineRoute({
    method: 'get',
    path: '/api/estimates/jobs/:id',
    summary:
      'A first estimate of a job: the hours of its works at the shop’s rate, and its parts at their price',
    access: 'see-prices',
    params: idParams,
    answer: billSchema,
  }),
  ahead: defineRoute({
    method: 'get',
    path: '/api/estimates/ahead',
    summary:
      'What waits for the answer of an owner, where their units stand, and what is due on them, in hours and money',
    access: 'see-own-ahead',
    answer: ownAheadSchema,
  }),
};
