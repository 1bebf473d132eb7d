import { z } from 'zod';
import { convert, quantity, type Quantity } from './quantity.ts';
import type { Unit } from './units.ts';

interface Limits {
  min: number;
  max: number;
  unit: Unit;
}

/**
 * Schema of a quantity limited to some units and to a range. The SI value is always computed here,
 * never taken from the sender.
 */
function quantitySchema(allowed: readonly Unit[], limits: Limits) {
  return z
    .object({ value: z.number(), unit: z.enum(allowed as [Unit, ...Unit[]]) })
    .refine(
      (q) => {
        const v = convert(q.value, q.unit, limits.unit);
        return v >= limits.min && v <= limits.max;
      },
      { message: `must lie between ${limits.min} and ${limits.max} ${limits.unit}`, path: ['value'] },
    )
    .transform((q): Quantity => quantity(q.value, q.unit));
}

/** An end-play or dial reading: a dial indicator travels 25 mm at most. */
export const readingSchema = quantitySchema(['mm', 'um', 'in', 'thou'], { min: -25, max: 25, unit: 'mm' });
/** A play, a depth or a sag that is measured on a wheel end. */
export const sizeSchema = quantitySchema(['mm', 'um', 'in', 'thou'], { min: -25, max: 500, unit: 'mm' });
/** A torque: the largest multiplier work on a wheel end stays under 5,000 N·m. */
export const torqueSchema = quantitySchema(['Nm', 'lbf-ft', 'lbf-in'], { min: 0, max: 5000, unit: 'Nm' });
/** A pull: a hub that drags more than this does not turn. */
export const forceSchema = quantitySchema(['N', 'lbf'], { min: 0, max: 2000, unit: 'N' });
/** What a wheel-speed sensor gives. */
export const voltageSchema = quantitySchema(['V', 'mV'], { min: 0, max: 100, unit: 'V' });
/** A hub after the road. */
export const temperatureSchema = quantitySchema(['degC', 'degF'], { min: -40, max: 400, unit: 'degC' });
/** A place along a spindle or in a hub. */
export const placeSchema = quantitySchema(['mm', 'in'], { min: -200, max: 500, unit: 'mm' });
/** A part across or along: the largest hub of a work machine is under 2 m. */
export const dimensionSchema = quantitySchema(['mm', 'in'], { min: 0.1, max: 2000, unit: 'mm' });
/** Lubricant, weighed or measured. */
export const amountSchema = z.union([
  quantitySchema(['g', 'kg', 'lb'], { min: 0, max: 20, unit: 'kg' }),
  quantitySchema(['mL', 'L', 'qt'], { min: 0, max: 20, unit: 'L' }),
]);
/** An odometer. */
export const distanceSchema = quantitySchema(['km', 'mi'], { min: 0, max: 5_000_000, unit: 'km' });
/** An hour meter. */
export const hoursSchema = quantitySchema(['h'], { min: 0, max: 200_000, unit: 'h' });
