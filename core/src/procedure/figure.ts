import { z } from 'zod';
import { lockSchema } from '../nut/index.ts';
import { threadSchema } from '../calculation/index.ts';
import { workSchema } from '../stack/index.ts';
import {
  distanceSchema,
  forceSchema,
  hoursSchema,
  quantity,
  readingSchema,
  torqueSchema,
  type Unit,
} from '../quantity/index.ts';

/**
 * How well a figure is known. A figure recalled from memory is shown with "confirm against the
 * maker's sheet"; so is one that was seen on a single vehicle. `shop` is a figure the shop entered itself.
 */
const markSchema = z.enum(['published', 'common-practice', 'from-memory', 'seen-once', 'shop']);
export type Mark = z.infer<typeof markSchema>;

const origin = { mark: markSchema, source: z.string().trim().min(1).max(200) };

const notReversed = <T extends { min: { si: number }; max: { si: number } }>(range: T) =>
  range.min.si <= range.max.si;
const reversed = { message: 'must not be under the lower figure', path: ['max', 'value'] };

/** A torque from least to most; one figure where both are the same. */
export const torqueFigureSchema = z
  .object({ min: torqueSchema, max: torqueSchema, ...origin })
  .refine(notReversed, reversed);
export type TorqueFigure = z.output<typeof torqueFigureSchema>;

/** An end-play band, limits inside. */
export const bandFigureSchema = z
  .object({ min: readingSchema, max: readingSchema, ...origin })
  .refine((b) => b.min.si >= 0, { message: 'must not be negative', path: ['min', 'value'] })
  .refine(notReversed, reversed);
export type BandFigure = z.output<typeof bandFigureSchema>;

/** A pull from least to most. */
export const forceFigureSchema = z
  .object({ min: forceSchema, max: forceSchema, ...origin })
  .refine(notReversed, reversed);
export type ForceFigure = z.output<typeof forceFigureSchema>;

/** A turn of the nut; negative loosens. */
export const turnFigureSchema = z.object({ turns: z.number().min(-5).max(5), ...origin });
export type TurnFigure = z.output<typeof turnFigureSchema>;

export const lubricantSchema = z.object({
  kind: z.enum(['grease', 'oil']),
  name: z.string().trim().min(1).max(120),
});

/** What a hub holds, to reckon its grease or oil: the bearings, the cavity, and how much of that is filled. */
export const hubSchema = z.object({
  bearings: z
    .array(
      z
        .object({
          boreMm: z.number().positive().max(500),
          outsideMm: z.number().positive().max(800),
          widthMm: z.number().positive().max(300),
          massKg: z.number().nonnegative().max(100),
        })
        .refine((b) => b.boreMm < b.outsideMm, { message: 'must be under the outside', path: ['boreMm'] }),
    )
    .min(1)
    .max(4),
  cavityMl: z.number().nonnegative().max(20_000),
  cavityFillPercent: z.number().min(0).max(100),
  ...origin,
});
export type Hub = z.output<typeof hubSchema>;

/** What of a sheet is not a range and carries its mark beside it. */
export const markedSchema = z.enum(['thread', 'lock', 'studs', 'lubricant']);
export type Marked = z.infer<typeof markedSchema>;
export const marksSchema = z.partialRecord(markedSchema, z.object(origin));

/** How much warmer than the air and the other side a hub may be after the road, K. */
export const heatFigureSchema = z
  .object({
    lookOverAirK: z.number().positive().max(200),
    lookOverOtherK: z.number().positive().max(200),
    notReleasedOverAirK: z.number().positive().max(300),
    ...origin,
  })
  .refine((h) => h.lookOverAirK <= h.notReleasedOverAirK, {
    message: 'must not be under the figure to look at',
    path: ['notReleasedOverAirK'],
  });
export type HeatFigure = z.output<typeof heatFigureSchema>;

/** When wheel nuts are torqued again: between two distances, after so many hours, or by so many days. */
export const retorqueFigureSchema = z
  .object({
    from: distanceSchema,
    by: distanceSchema,
    /** Of a unit with an hour meter alone; null is the shop's default. */
    hours: hoursSchema.nullable().default(null),
    days: z.int().min(1).max(365),
    ...origin,
  })
  .refine((r) => r.from.si <= r.by.si, { message: 'must not be under the first', path: ['by', 'value'] });
export type RetorqueFigure = z.output<typeof retorqueFigureSchema>;

/** How often a work is wanted: by distance, months or hours, whichever comes first. */
export const intervalFigureSchema = z
  .object({
    work: workSchema,
    distance: distanceSchema.nullable().default(null),
    months: z.int().min(1).max(600).nullable().default(null),
    hours: hoursSchema.nullable().default(null),
    ...origin,
  })
  .refine((i) => i.distance !== null || i.months !== null || i.hours !== null, {
    message: 'needs a distance, months or hours',
    path: ['months'],
  });
export type IntervalFigure = z.output<typeof intervalFigureSchema>;

export { lockSchema, threadSchema };

/** A torque figure in one unit; pass one value for a single figure. */
export function torqueFigure(
  values: [number, number?],
  unit: Unit,
  mark: Mark,
  source: string,
): TorqueFigure {
  const [min, max = min] = values;
  return { min: quantity(min, unit), max: quantity(max, unit), mark, source };
}
