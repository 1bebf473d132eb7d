import { z } from 'zod';
import { priceSchema } from '@lanternwright/core/part';
import { defineRoute } from '../route/index.ts';

const number = z.string().min(1).max(40);
const count = z.int().min(0).max(10_000);
const reference = z.string().trim().min(1).max(80);

/** What a supplier is sent by `POST /orders`. Sent again with the same id it is the same order. */
export const sentOrderSchema = z.object({
  id: z.uuid(),
  /** The shop's own number for it. */
  number: z.int().min(1),
  lines: z
    .array(z.object({ number, quantity: count.min(1) }))
    .min(1)
    .max(200),
});
export type SentOrder = z.output<typeof sentOrderSchema>;

/** How an order stands, as the supplier tells it: the answer to `POST /orders` and to `GET /orders/:reference`. */
export const supplierStandSchema = z.object({
  reference,
  /** The day it should be here; null where they do not say. */
  expected: z.iso.date().nullable(),
  lines: z
    .array(
      z.object({
        number,
        /** No part of theirs has that number. */
        unknown: z.boolean(),
        /** Of one piece. */
        price: priceSchema.nullable(),
        /** How many left their house. */
        dispatched: count,
      }),
    )
    .max(200),
});
export type SupplierStand = z.output<typeof supplierStandSchema>;

/** An old part that goes back, sent by `POST /cores`. Sent again with the same id it is the same return. */
export const sentCoreSchema = z.object({ id: z.string().min(1).max(80), number, quantity: count.min(1) });
export type SentCore = z.output<typeof sentCoreSchema>;

/** What the supplier answers to it: their number for it, and what they give back for one piece. */
export const coreCreditSchema = z.object({ reference, credit: priceSchema.nullable() });
export type CoreCredit = z.output<typeof coreCreditSchema>;

const supplierServiceSchema = z.object({
  /** The supplier, by the name that stands on the orders; null where none has a service. */
  name: z.string().nullable(),
  askedAt: z.iso.datetime().nullable(),
  answeredAt: z.iso.datetime().nullable(),
  /** Why the last answer could not be taken. */
  trouble: z.string().nullable(),
});
export type SupplierService = z.output<typeof supplierServiceSchema>;

export const supplierRoutes = {
  stand: defineRoute({
    method: 'get',
    path: '/api/supplier',
    summary: 'How the service of the supplier stands that takes orders by itself',
    access: 'keep-stores',
    answer: supplierServiceSchema,
  }),
  ask: defineRoute({
    method: 'post',
    path: '/api/supplier/ask',
    summary: 'Send the supplier what waits to be sent, and ask how its open orders stand',
    access: 'keep-stores',
    answer: supplierServiceSchema,
  }),
};
