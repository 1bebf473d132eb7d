import { z } from 'zod';
import { parseQuantity, type Unit } from '@lanternwright/core/quantity';

/**
 * A field for a quantity that may be left out: null then, or what cannot be read in it.
 * @param assumed what a bare figure is in
 */
export const optionalQuantity = (units: Unit[], assumed: Unit) =>
  z.string().transform((text, context) => {
    if (text.trim() === '') return null;
    const read = parseQuantity(text, units, assumed);
    if (read.ok) return read.quantity;
    context.addIssue({ code: 'custom', message: read.message });
    return z.NEVER;
  });
