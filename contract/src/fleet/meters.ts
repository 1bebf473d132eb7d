import { z } from 'zod';
import { meterSourceSchema, meterSwapSchema } from '@lanternwright/core/record';
import { meterSchema } from '@lanternwright/core/traveller';
import { defineRoute, idParams, pageNumber } from '../route/index.ts';

export const METERS_A_PAGE = 25;

const meterRowSchema = z.object({
  nth: z.int(),
  date: z.iso.date(),
  km: z.number().nullable(),
  hours: z.number().nullable(),
  source: meterSourceSchema,
  /** Counted across meters that were changed; null where the reading is not believed. */
  totalKm: z.number().nullable(),
  totalHours: z.number().nullable(),
});
export type MeterRow = z.infer<typeof meterRowSchema>;

const meterPageSchema = z.object({
  /** Counts the changes of the unit's meters: whoever corrects one says which they saw. */
  version: z.int(),
  total: z.int(),
  rows: z.array(meterRowSchema),
  swaps: z.array(meterSwapSchema),
});
export type MeterPage = z.infer<typeof meterPageSchema>;

const readOn = meterSchema.extend({ date: z.iso.date() });

const newMeterReadSchema = readOn.extend({
  /** Said by hand again although it does not fit. */
  sure: z.boolean().default(false),
});
export type NewMeterRead = z.output<typeof newMeterReadSchema>;

const correctMeterSchema = z.object({
  seenVersion: z.int().min(0),
  nth: z.int().min(0),
  /** What it was in truth; null where there was no such reading. */
  right: readOn.nullable(),
});
export type CorrectMeter = z.output<typeof correctMeterSchema>;

export type SwapMeter = z.output<typeof meterSwapSchema>;

const path = '/api/fleet/units/:id/meters';
const answer = z.object({ id: z.uuid() });

export const meterRoutes = {
  page: defineRoute({
    method: 'get',
    path,
    summary: "What a unit's meters read, newest first, and which of them were changed",
    access: 'see-units',
    params: idParams,
    query: z.object({ page: pageNumber }),
    answer: meterPageSchema,
  }),
  add: defineRoute({
    method: 'post',
    path,
    summary: "Record what a unit's meters show on a day",
    access: 'read-meters',
    params: idParams,
    body: newMeterReadSchema,
    answer,
  }),
  swap: defineRoute({
    method: 'post',
    path: `${path}/swaps` as const,
    summary: 'Record that a meter was replaced or set back',
    access: 'read-meters',
    params: idParams,
    body: meterSwapSchema,
    answer,
  }),
  correct: defineRoute({
    method: 'post',
    path: `${path}/corrections` as const,
    summary: 'Put a wrong reading right, or strike it out',
    access: 'change-fleet',
    params: idParams,
    body: correctMeterSchema,
    answer,
  }),
};
