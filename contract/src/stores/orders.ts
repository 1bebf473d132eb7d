import { z } from 'zod';
import { priceSchema } from '@lanternwright/core/part';
import { orderStates, type OrderStatus } from '@lanternwright/core/record';
import { defineRoute, idParams, pageNumber } from '../route/index.ts';

export const ORDERS_A_PAGE = 30;

const orderLineSchema = z.object({
  partId: z.uuid(),
  number: z.string(),
  title: z.string(),
  quantity: z.int(),
  price: priceSchema.nullable(),
  delivered: z.int(),
  /** How many of it came damaged; they are still to come. */
  damaged: z.int().optional(),
  /** Where most of it lies; of one order alone. */
  place: z.string().nullable().optional(),
  /** Why the rest does not come any more. */
  ended: z.string().nullable(),
  /** What the supplier's service says of it, once it has: how many left their house, at which price. */
  told: z.object({ dispatched: z.int(), price: priceSchema.nullable() }).optional(),
});
const orderSchema = z.object({
  id: z.uuid(),
  number: z.int(),
  supplier: z.string(),
  status: z.enum(Object.keys(orderStates) as [OrderStatus, ...OrderStatus[]]),
  lines: z.array(orderLineSchema),
  expected: z.iso.date().nullable(),
  /** Expected by a day that is past. */
  late: z.boolean(),
  reference: z.string(),
  /** It goes to the supplier's own service. */
  online: z.boolean(),
  sentAt: z.iso.datetime().nullable(),
  version: z.int(),
  changedAt: z.iso.datetime(),
  changedBy: z.string(),
  reason: z.string().nullable(),
});
export type Order = z.output<typeof orderSchema>;

const proposedSchema = z.object({
  supplier: z.string(),
  lines: z.array(
    z.object({
      partId: z.uuid(),
      number: z.string(),
      title: z.string(),
      quantity: z.int(),
      price: priceSchema.nullable(),
      /** How many will be short and from when, where any will. */
      missing: z.int(),
      shortOn: z.iso.date().nullable(),
      orderBy: z.iso.date().nullable(),
      /** Where it is low: how many are free, and how many are coming. */
      low: z.object({ free: z.int(), coming: z.int() }).nullable(),
    }),
  ),
});
export type Proposed = z.output<typeof proposedSchema>;

const seenVersion = z.int().min(0);
const reason = z.string().trim().min(1, 'enter a reason').max(200);
const place = z.string().trim().min(1, 'enter the place').max(40);
const many = z.int().min(1).max(10_000);

/** What came of a part. */
const cameSchema = z
  .object({
    partId: z.uuid(),
    /** Sound ones, which go on the shelf. */
    quantity: z.int().min(0).max(10_000),
    /** Those that came damaged: they do not count as delivered. */
    damaged: z.int().min(0).max(10_000).default(0),
    /** Where the sound ones go; left out, to where the rest of it lies. */
    place: place.optional(),
    batch: z.string().trim().max(40).default(''),
  })
  .refine((l) => l.quantity + l.damaged > 0, { error: 'enter what came', path: ['quantity'] });

const deliveredSchema = z.object({
  /** The supplier’s number of what came with it. */
  note: z.string().trim().max(80).default(''),
  lines: z.array(cameSchema).min(1, 'enter what came').max(200),
});
export type Delivered = z.output<typeof deliveredSchema>;

export const ordersRoutes = {
  list: defineRoute({
    method: 'get',
    path: '/api/stores/orders',
    summary: 'Orders of parts, open ones or those that are done with, the newest first',
    access: 'keep-stores',
    query: z.object({ status: z.enum(['open', 'closed']).default('open'), page: pageNumber }),
    answer: z.array(orderSchema),
  }),
  proposed: defineRoute({
    method: 'get',
    path: '/api/stores/orders/proposed',
    summary: 'What to order of whom, from what will be short and what is low',
    access: 'keep-stores',
    answer: z.array(proposedSchema),
  }),
  one: defineRoute({
    method: 'get',
    path: '/api/stores/orders/:id',
    summary: 'One order',
    access: 'keep-stores',
    params: idParams,
    answer: orderSchema,
  }),
  draft: defineRoute({
    method: 'put',
    path: '/api/stores/orders',
    summary: 'Write an order, or change one that was not sent yet',
    access: 'keep-stores',
    body: z.object({
      seenVersion,
      id: z.uuid(),
      supplier: z.string().trim().min(1, 'enter the supplier').max(80),
      lines: z
        .array(z.object({ partId: z.uuid(), quantity: many }))
        .min(1, 'there is no part on it')
        .max(200),
    }),
    answer: orderSchema,
  }),
  send: defineRoute({
    method: 'post',
    path: '/api/stores/orders/:id/sent',
    summary: 'Record that an order was sent and when it is promised for, or send it to the supplier online',
    access: 'keep-stores',
    params: idParams,
    body: z.object({
      seenVersion,
      expected: z.iso.date().nullable(),
      reference: z.string().trim().max(80).default(''),
      /** To the supplier's own service, which says the day and its number for it. */
      online: z.boolean().default(false),
    }),
    answer: orderSchema,
  }),
  promise: defineRoute({
    method: 'post',
    path: '/api/stores/orders/:id/promised',
    summary: 'Record another day that an order is promised for',
    access: 'keep-stores',
    params: idParams,
    body: z.object({ seenVersion, expected: z.iso.date() }),
    answer: orderSchema,
  }),
  deliver: defineRoute({
    method: 'post',
    path: '/api/stores/orders/:id/delivered',
    summary: 'Record what came of an order, sound or damaged, and put the sound ones on the shelf',
    access: 'keep-stores',
    params: idParams,
    body: deliveredSchema.extend({ seenVersion }),
    answer: orderSchema,
  }),
  endLine: defineRoute({
    method: 'post',
    path: '/api/stores/orders/:id/ended',
    summary: 'Record that the rest of a part does not come any more',
    access: 'keep-stores',
    params: idParams,
    body: z.object({ seenVersion, partId: z.uuid(), reason }),
    answer: orderSchema,
  }),
  cancel: defineRoute({
    method: 'post',
    path: '/api/stores/orders/:id/cancelled',
    summary: 'Cancel an order of which nothing came',
    access: 'keep-stores',
    params: idParams,
    body: z.object({ seenVersion, reason }),
    answer: orderSchema,
  }),
  pdf: defineRoute({
    method: 'get',
    path: '/api/stores/orders/:id/order.pdf',
    summary: 'An order on paper, as PDF',
    access: 'keep-stores',
    params: idParams,
    answer: z.instanceof(Uint8Array),
  }),
  csv: defineRoute({
    method: 'get',
    path: '/api/stores/orders/:id/order.csv',
    summary: 'An order as CSV, a line a part',
    access: 'keep-stores',
    params: idParams,
    answer: z.string(),
  }),
};
