import { z } from 'zod';
import { unitKindSchema } from '@lanternwright/core/axle-plan';
import { dueSchema, ownerSchema } from '../fleet/index.ts';
import { pageNumber } from '../route/index.ts';

export const unitHead = z.object({
  id: z.uuid(),
  name: z.string(),
  kind: unitKindSchema,
  owner: ownerSchema,
});

/** A unit that comes due, with everything that is due on it within the days asked for: one visit for all of it. */
const dueUnitSchema = z.object({
  unit: unitHead,
  dueOn: z.iso.date().nullable(),
  earliest: z.iso.date().nullable(),
  due: z.array(dueSchema),
  /** The next time it is booked; null where it is not. */
  bookedFrom: z.iso.datetime().nullable(),
  openJobId: z.uuid().nullable(),
});
export type DueUnit = z.output<typeof dueUnitSchema>;

export const DUE_A_PAGE = 40;

export const dueQuery = z.object({
  page: pageNumber,
  state: z.enum(['known', 'unknown']).default('known'),
  owner: z.uuid().optional(),
  /** Everything due on a unit within so many days of the first is one visit. */
  within: z.coerce.number().int().min(0).max(400).default(60),
});

export const duePageSchema = z.object({
  total: z.int(),
  overdue: z.int(),
  /** Units of which neither a sheet nor common practice says how often any work is wanted. */
  withoutIntervals: z.int(),
  rows: z.array(dueUnitSchema),
});
