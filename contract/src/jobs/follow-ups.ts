import { z } from 'zod';
import { positionSchema, unitKindSchema } from '@lanternwright/core/axle-plan';
import { followUpSchema, ownerSchema } from '../fleet/index.ts';
import { defineRoute, pageNumber } from '../route/index.ts';

/** What the shop has to look after, of every unit: retorques, what was named at a release, and what stands. */
const shopFollowUpSchema = z.object({
  unit: z.object({ id: z.uuid(), name: z.string(), kind: unitKindSchema, owner: ownerSchema }),
  /** The job that opened it; null for a wheel end that is out of service. */
  jobId: z.uuid().nullable(),
  position: positionSchema,
  kind: z.enum([...followUpSchema.shape.kind.options, 'out-of-service']),
  nth: z.int(),
  what: z.string(),
  fromKm: z.number().nullable(),
  byKm: z.number().nullable(),
  byHours: z.number().nullable(),
  byDate: z.iso.date().nullable(),
  /** What the unit's meters read last; hours where it is due by them. */
  meterKm: z.number().nullable(),
  meterHours: z.number().nullable(),
  state: followUpSchema.shape.state,
});
export type ShopFollowUp = z.infer<typeof shopFollowUpSchema>;

const shopFollowUpsSchema = z.object({
  rows: z.array(shopFollowUpSchema),
  total: z.int(),
  overdue: z.int(),
});
export type ShopFollowUps = z.infer<typeof shopFollowUpsSchema>;

/** How many stand on one page. */
export const FOLLOW_UPS_A_PAGE = 50;

export const followUpsRoute = defineRoute({
  method: 'get',
  path: '/api/jobs/follow-ups',
  summary: 'What the shop has to look after, overdue first, a page at a time',
  access: 'see-units',
  query: z.object({ page: pageNumber }),
  answer: shopFollowUpsSchema,
});
