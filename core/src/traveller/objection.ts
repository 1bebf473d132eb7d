import { z } from 'zod';

/** What can stand against a release. Words are made where they are shown. */
const objectionCodes = [
  'undecided',
  'missing',
  'skipped',
  'said-no',
  'torque-off',
  'tool-not-listed',
  'lining-thin',
  'brake-not-back',
  'not-measured',
  'not-repeated',
  'tight',
  'loose',
  'found-out',
  'too-hot',
  'dimension-off',
  'part-still-in',
  'layer-not-reached',
  'finding',
  'moves',
  'dial-says-otherwise',
  'drag-off',
  'first-build',
  'read-only',
  'by-others',
  'other-side',
  'old-part-in',
] as const;
export type ObjectionCode = (typeof objectionCodes)[number];

/**
 * One thing that stands against a release. `never`: nobody releases in spite of it. Parameters are ids and figures.
 * A release of the first build held sentences; each is one of code `first-build`.
 */
export const objectionSchema = z.object({
  code: z.enum(objectionCodes),
  params: z.record(z.string().max(40), z.union([z.string().max(600), z.number()])),
  guard: z.enum(['never', 'supervisor']),
});
export type Objection = z.output<typeof objectionSchema>;
