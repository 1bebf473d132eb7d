import { z } from 'zod';
import { thickenerIds } from '../lubricant/index.ts';
import { dimensionSchema } from '../quantity/index.ts';
import { lipFacingIds, measuredIds, partKindIds, partKinds } from './kinds.ts';
import { LONGEST_NUMBER, plainNumber } from './number.ts';

const partNumberSchema = z
  .string()
  .trim()
  .max(LONGEST_NUMBER)
  .refine((text) => plainNumber(text).length >= 2, 'two letters or figures at the least');

/** Where something lies: a shelf, a drawer. */
export const placeNameSchema = z.string().trim().min(1, 'enter the place').max(40);

export const priceSchema = z.object({
  currency: z.string().regex(/^[A-Z]{3}$/, 'three letters, as in ISO 4217'),
  /** In the smallest coin. */
  minor: z.int().nonnegative().max(1e9),
});
export type Price = z.output<typeof priceSchema>;

/** What of a wheel end a part is for: a sheet, and the line of the readiness list it answers, as `part:hub-seal`. */
export const fitSchema = z.object({
  sheetId: z.string().regex(/^[a-z0-9-]{1,60}$/),
  line: z.string().regex(/^(part:[a-z0-9-]{1,60}|lubricant)$/),
});
export type Fit = z.output<typeof fitSchema>;

/** A part that the store holds, or could. */
export const partSchema = z
  .object({
    id: z.uuid(),
    kind: z.enum(partKindIds),
    title: z.string().trim().min(1, 'enter a title').max(120),
    number: partNumberSchema,
    /** Other numbers under which the same part is sold. */
    crossings: z.array(partNumberSchema).max(40).default([]),
    /** As measured or as its drawing has it. */
    dims: z.partialRecord(z.enum(measuredIds), dimensionSchema).default({}),
    /** Of a seal. */
    lips: z
      .object({ count: z.int().min(1).max(4), facing: z.enum(lipFacingIds) })
      .nullable()
      .default(null),
    /** Of a grease: what thickens it, and the category on its label, as GC-LB. */
    thickener: z.enum(thickenerIds).optional(),
    category: z.string().trim().min(1).max(40).optional(),
    fits: z.array(fitSchema).max(60).default([]),
    price: priceSchema.nullable().default(null),
    /** What the supplier takes for the old one until it comes back. */
    core: priceSchema.nullable().default(null),
    supplier: z.string().trim().max(80).default(''),
    /** Days from order to shelf. */
    leadDays: z.int().min(0).max(400).nullable().default(null),
    /** Ordered again when no more than these are free. */
    reorderLevel: z.int().min(0).max(10_000).nullable().default(null),
    /** The part that takes its place. */
    supersededBy: z.uuid().nullable().default(null),
  })
  .refine(({ dims: { bore, outside } }) => !bore || !outside || bore.si < outside.si, {
    message: 'must be over the bore',
    path: ['dims', 'outside', 'value'],
  })
  .refine(({ kind, lips }) => lips === null || kind === 'seal', {
    message: 'only a seal has lips',
    path: ['lips'],
  })
  .refine(({ kind, thickener }) => thickener === undefined || kind === 'lubricant', {
    message: 'only a grease has one',
    path: ['thickener'],
  })
  .refine(({ id, supersededBy }) => supersededBy !== id, {
    message: 'cannot take its own place',
    path: ['supersededBy'],
  });
export type Part = z.output<typeof partSchema>;

/** A part as it is called: "Seal 47-2210, hub seal of the drive axle". */
export const describePart = ({ kind, number, title }: Pick<Part, 'kind' | 'number' | 'title'>): string =>
  `${partKinds[kind].title} ${number}, ${title}`;
