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

/** A wheel end's place: axle number from the front and side, as `2L`. */
export const positionSchema = z.string().regex(/^[1-9][LR]$/, 'must be an axle number and L or R, as 2L');
export type Position = string;

/** All positions of a unit, front to rear, left before right. */
export function positionsOf(axleCount: number): Position[] {
  return Array.from({ length: axleCount }, (_, i) => [`${i + 1}L`, `${i + 1}R`]).flat();
}

/** The axle index (from 0) of a position. */
export function axleIndex(position: Position): number {
  return Number(position.slice(0, -1)) - 1;
}

/** The position on the other side of the same axle. */
export function oppositeOf(position: Position): Position {
  return position.slice(0, -1) + (position.endsWith('L') ? 'R' : 'L');
}
