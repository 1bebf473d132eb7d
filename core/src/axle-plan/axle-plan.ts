import { z } from 'zod';
import { sheetSchema } from '../procedure/index.ts';
import { axleRoles, unitKinds, type AxleRole, type UnitKind } from './kinds.ts';

export const unitKindSchema = z.enum(Object.keys(unitKinds) as [UnitKind, ...UnitKind[]]);

/** One axle: both of its wheel ends share a sheet, never a record. */
export const axleSchema = z.object({
  role: z.enum(Object.keys(axleRoles) as [AxleRole, ...AxleRole[]]),
  wheels: z.enum(['single', 'dual']),
  brake: z.enum(['drum', 'disc', 'none']),
  sheet: sheetSchema,
});
export type Axle = z.output<typeof axleSchema>;

/** Axles front to rear. */
export const axlesSchema = z.array(axleSchema).min(1).max(9);

/**
 * An axle of a unit. Its id is its own for life; its number is where it stands, counted from the front when it was put
 * in. One that is taken out leaves its number free: none of the others is renumbered, and its history stays its own.
 */
export const placedAxleSchema = axleSchema.extend({ id: z.uuid(), number: z.int().min(1).max(9) });
export type PlacedAxle = z.output<typeof placedAxleSchema>;

/** The axles of a unit, front to rear. */
export const placedAxlesSchema = z
  .array(placedAxleSchema)
  .min(1)
  .max(9)
  .refine((axles) => new Set(axles.map((a) => a.number)).size === axles.length, 'two axles have one number');

/** A wheel end's place: axle number from the front and side, as `2L`. */
export const positionSchema = z.string().regex(/^[1-9][LR]$/, 'must be an axle number and L or R, as 2L');

/**
 * The id of an axle from before axles had ids: of its unit and number, so that jobs which name only a position are
 * about it for ever. The migration of the database makes the same.
 * @returns a UUID of version 8
 * @source RFC 9562, 5.8: version 8 is for ids of one's own making
 */
export function firstAxleId(unitId: string, number: number): string {
  return `0${number}${unitId.slice(2, 14)}8${unitId.slice(15)}`;
}
