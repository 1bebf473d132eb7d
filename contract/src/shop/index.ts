import { z } from 'zod';
import { firstPersonSchema, personSchema } from '../people/index.ts';
import { defineRoute } from '../route/index.ts';
import { shopSettingsSchema } from './settings.ts';

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

export const shopRoutes = {
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
