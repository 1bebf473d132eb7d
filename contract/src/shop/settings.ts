import { z } from 'zod';

const zones = new Set([...Intl.supportedValuesOf('timeZone'), 'UTC']);

/** Currencies a bill can be written in: those with hundredths. */
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
] as const;

/** What is set once for the whole shop, and obeyed by browser, server and papers. */
export const shopSettingsSchema = z.object({
  name: z.string().trim().min(2, 'two letters or more').max(80),
  /** As it stands on papers; a line break between lines. */
  address: z.string().trim().max(300),
  /** IANA name of the zone the shop's clock goes by. */
  zone: z.string().refine((zone) => zones.has(zone), 'is no time zone, as Europe/Dublin'),
  /** Unit in which end play is shown until a person chooses another. */
  endPlayUnit: z.enum(['in', 'mm']),
  currency: z.enum(currencies),
  paper: z.enum(['a4', 'letter']),
});
export type ShopSettings = z.output<typeof shopSettingsSchema>;
