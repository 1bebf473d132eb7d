import { z } from 'zod';
import { firstPersonSchema, personSchema } from '../people/index.ts';
import { defineRoute, okSchema } from '../route/index.ts';
import { firstHourSchema } from './first-hour.ts';
import { shopSettingsSchema } from './settings.ts';

export type { FirstHour } from './first-hour.ts';
export { firstHourSteps, nextStep, type FirstHourStep } from './first-hour-steps.ts';
export { currencies, shopSettingsSchema, type ShopSettings } from './settings.ts';

/** The act that ends a demo: the code that was printed at the start, the shop's name and its first person. */
export const beginSchema = firstPersonSchema.extend({ shop: shopSettingsSchema.shape.name });
export type Begin = z.infer<typeof beginSchema>;

/** How the shop is backed up. */
const backupsSchema = z.object({
  /** How many are kept of those made every night; null where none are made. */
  kept: z.int().nullable(),
  /** When each was made, newest first. */
  made: z.array(z.iso.datetime()),
});
export type Backups = z.output<typeof backupsSchema>;

/** Who gets the summary of the morning by mail, and at what time of the shop's clock. Whoever is no supervisor sees none of it. */
export const morningMailSchema = z.object({
  at: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'is no time of day, as 06:30'),
  to: z
    .array(z.email('is no mail address').max(120))
    .max(20)
    .refine((to) => new Set(to.map((a) => a.toLowerCase())).size === to.length, 'somebody is named twice'),
});
export type MorningMail = z.output<typeof morningMailSchema>;

const morningStandSchema = morningMailSchema.extend({
  /** Whether a mail server is set. */
  mail: z.boolean(),
  sentAt: z.iso.datetime().nullable(),
});
export type MorningStand = z.infer<typeof morningStandSchema>;

export const shopRoutes = {
  firstHour: defineRoute({
    method: 'get',
    path: '/api/shop/first-hour',
    summary: 'How much of what a new shop sets up first is there',
    access: 'change-settings',
    answer: firstHourSchema,
  }),
  morning: defineRoute({
    method: 'get',
    path: '/api/shop/morning',
    summary: "Whether the morning's summary can be mailed, and when it was last",
    access: 'change-settings',
    answer: morningStandSchema,
  }),
  changeMorning: defineRoute({
    method: 'put',
    path: '/api/shop/morning',
    summary: "Set the addresses and the time of the morning's summary",
    access: 'change-settings',
    body: morningMailSchema,
    answer: morningStandSchema,
  }),
  sendMorning: defineRoute({
    method: 'post',
    path: '/api/shop/morning/send',
    summary: "Mail the morning's summary now",
    access: 'change-settings',
    answer: okSchema,
  }),
  backups: defineRoute({
    method: 'get',
    path: '/api/shop/backups',
    summary: 'When the shop was backed up, and how many backups are kept',
    access: 'change-settings',
    answer: backupsSchema,
  }),
  change: defineRoute({
    method: 'put',
    path: '/api/shop/settings',
    summary: 'Change what is set for the whole shop',
    access: 'change-settings',
    body: shopSettingsSchema,
    answer: shopSettingsSchema,
  }),
  begin: defineRoute({
    method: 'post',
    path: '/api/shop/begin',
    summary: 'Set the demo aside for good and begin with an empty shop of one’s own',
    access: 'anyone',
    body: beginSchema,
    answer: personSchema,
  }),
};
