import { z } from 'zod';
import { programCapabilities, type ProgramCapability } from '@lanternwright/core/access';
import { ownerSchema } from '../fleet/index.ts';
import { defineRoute, idParams } from '../route/index.ts';

const name = z.string().trim().min(2, 'two letters or more').max(80);
const capability = z.enum(Object.keys(programCapabilities) as [ProgramCapability, ...ProgramCapability[]]);

/** A key with which a program comes in. What it is itself is told once, and never again. */
export const tokenSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  capabilities: z.array(capability),
  /** Whose units it may see; null: everybody’s. */
  owner: ownerSchema.nullable(),
  madeAt: z.iso.datetime(),
  madeBy: z.string(),
  endsAt: z.iso.datetime(),
  endedAt: z.iso.datetime().nullable(),
  endedBy: z.string().nullable(),
  /** To the minute. */
  lastUsedAt: z.iso.datetime().nullable(),
});
export type Token = z.output<typeof tokenSchema>;

/** Longest that a key may hold, in days. */
export const LONGEST_TOKEN_DAYS = 400;

export const newTokenSchema = z.object({
  name,
  capabilities: z.array(capability).min(1, 'choose one or more'),
  ownerId: z.uuid().nullable(),
  days: z.int().min(1).max(LONGEST_TOKEN_DAYS),
});
export type NewToken = z.output<typeof newTokenSchema>;

/** What a program is told of, as it happens or at the beginning of the shop’s day. */
export const webhookEvents = {
  release: 'A wheel end is released',
  order: 'An order changes',
  due: 'Work falls due today',
  'follow-up': 'A follow-up is due today',
} as const;
export type WebhookEvent = keyof typeof webhookEvents;
const event = z.enum(Object.keys(webhookEvents) as [WebhookEvent, ...WebhookEvent[]]);

export const webhookSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  url: z.string(),
  events: z.array(event),
  madeAt: z.iso.datetime(),
  madeBy: z.string(),
  endedAt: z.iso.datetime().nullable(),
  /** Messages that wait to be delivered, and those that were given up. */
  waiting: z.int(),
  givenUp: z.int(),
  lastDeliveredAt: z.iso.datetime().nullable(),
});
export type Webhook = z.output<typeof webhookSchema>;

export const newWebhookSchema = z.object({
  name,
  url: z
    .url({ protocol: /^https?$/, error: 'an address that begins with http:// or https://' })
    .max(500)
    .refine((url) => !/^https?:\/\/[^/?#]*@/i.test(url), 'no name or password in the address'),
  events: z.array(event).min(1, 'choose one or more'),
});
export type NewWebhook = z.output<typeof newWebhookSchema>;

/** One message, and what became of it. */
export const deliverySchema = z.object({
  id: z.uuid(),
  event: z.union([event, z.literal('try')]),
  at: z.iso.datetime(),
  tries: z.int(),
  deliveredAt: z.iso.datetime().nullable(),
  givenUpAt: z.iso.datetime().nullable(),
  lastTryAt: z.iso.datetime().nullable(),
  /** What came back; null before the first try and where nobody answered. */
  status: z.int().nullable(),
  problem: z.string().nullable(),
});
export type Delivery = z.output<typeof deliverySchema>;
/** How many of the last messages of a webhook are shown. */
export const DELIVERIES_SHOWN = 50;

/** @source Standard Webhooks 1.0: the secret that signs, and `webhook-id`, `-timestamp`, `-signature` */
const madeWebhookSchema = z.object({ id: z.uuid(), secret: z.string() });

export const programsRoutes = {
  tokens: defineRoute({
    method: 'get',
    path: '/api/programs/tokens',
    summary: 'Keys of programs, those that ended last',
    access: 'change-settings',
    answer: z.array(tokenSchema),
  }),
  makeToken: defineRoute({
    method: 'post',
    path: '/api/programs/tokens',
    summary: 'Make a key for a program; it is shown once',
    access: 'change-settings',
    body: newTokenSchema,
    answer: z.object({ id: z.uuid(), token: z.string() }),
  }),
  endToken: defineRoute({
    method: 'post',
    path: '/api/programs/tokens/:id/end',
    summary: 'End a key at once',
    access: 'change-settings',
    params: idParams,
    answer: idParams,
  }),
  webhooks: defineRoute({
    method: 'get',
    path: '/api/programs/webhooks',
    summary: 'Addresses that are notified, those that ended last',
    access: 'change-settings',
    answer: z.array(webhookSchema),
  }),
  makeWebhook: defineRoute({
    method: 'post',
    path: '/api/programs/webhooks',
    summary: 'Notify an address of what happens from now on; the secret that signs is shown once',
    access: 'change-settings',
    body: newWebhookSchema,
    answer: madeWebhookSchema,
  }),
  endWebhook: defineRoute({
    method: 'post',
    path: '/api/programs/webhooks/:id/end',
    summary: 'End a webhook; messages that wait are dropped',
    access: 'change-settings',
    params: idParams,
    answer: idParams,
  }),
  tryWebhook: defineRoute({
    method: 'post',
    path: '/api/programs/webhooks/:id/try',
    summary: 'Send a test message',
    access: 'change-settings',
    params: idParams,
    answer: idParams,
  }),
  deliveries: defineRoute({
    method: 'get',
    path: '/api/programs/webhooks/:id/deliveries',
    summary: 'The last messages of a webhook, and what became of them',
    access: 'change-settings',
    params: idParams,
    answer: z.array(deliverySchema),
  }),
  sendAgain: defineRoute({
    method: 'post',
    path: '/api/programs/deliveries/:id/again',
    summary: 'Send a message that was given up once more',
    access: 'change-settings',
    params: idParams,
    answer: idParams,
  }),
};
