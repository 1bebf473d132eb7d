import { z } from 'zod';
import { readerUnitsSchema } from '@lanternwright/core/quantity';
import { holidaySchema, weekSchema } from '@lanternwright/core/work-plan';

const zones = new Set([...Intl.supportedValuesOf('timeZone'), 'UTC']);

/** Currencies a bill can be written in. */
export const currencies = [
  'USD',
  'EUR',
  'GBP',
  'CAD',
  'AUD',
  'NZD',
  'CHF',
  'SEK',
  'NOK',
  'DKK',
  'PLN',
  'ZAR',
  'INR',
  'BRL',
  'MXN',
  'CZK',
  'HUF',
  'RON',
  'ISK',
  'TRY',
  'AED',
  'SAR',
  'KWD',
  'TND',
  'JPY',
  'KRW',
  'CNY',
  'THB',
  'CLP',
  'COP',
  'KES',
  'NGN',
] as const;

/** What is set once for the whole shop, and obeyed by browser, server and papers. */
export const shopSettingsSchema = z.object({
  name: z.string().trim().min(2, 'two letters or more').max(80),
  /** As it stands on papers; a line break between lines. */
  address: z.string().trim().max(300),
  /** What stands at the foot of estimates and bills. */
  terms: z.string().trim().max(600),
  /** IANA name of the zone the shop's clock goes by. */
  zone: z.string().refine((zone) => zones.has(zone), 'is no time zone, as Europe/Dublin'),
  /** Units in which figures are shown and printed, until a person chooses their own. */
  units: readerUnitsSchema,
  currency: z.enum(currencies),
  paper: z.enum(['a4', 'letter']),
  /** Where units stand to be worked on; a bay keeps its id whatever it is called. */
  bays: z
    .array(
      z.object({ id: z.string().min(1).max(60), name: z.string().trim().min(1, 'a name is needed').max(30) }),
    )
    .max(40)
    .refine((bays) => new Set(bays.map((b) => b.id)).size === bays.length, 'two bays are one')
    .refine(
      (bays) => new Set(bays.map((b) => b.name.toLowerCase())).size === bays.length,
      'two bays are called the same',
    ),
  /** When the shop works, Monday first, by its own clock. */
  week: weekSchema,
  /** Days on which nobody works. */
  holidays: z
    .array(holidaySchema)
    .max(400)
    .refine((days) => new Set(days.map((d) => d.date)).size === days.length, 'a day is named twice'),
});
export type ShopSettings = z.output<typeof shopSettingsSchema>;
