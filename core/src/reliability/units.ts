import { z } from 'zod';
import { LONGEST } from '../calculation/index.ts';

/** Parts by the time they ran and whether they failed then; the others were still running. */
export const unitsSchema = z
  .array(z.object({ time: z.number().positive().max(1e9), failed: z.boolean() }))
  .min(1)
  .max(LONGEST);
export type LifeUnit = z.output<typeof unitsSchema>[number];
