import { z } from 'zod';

/** Units a reader wants figures in, chosen for each kind of quantity. */
export const readerUnitsSchema = z.strictObject({
  /** End play and what else is measured with a dial: inches and thousandths, or millimetres. */
  length: z.enum(['in', 'mm']),
  /** Linings, depths, places: from two millimetres up. */
  thickness: z.enum(['in', 'mm']),
  distance: z.enum(['km', 'mi']),
  torque: z.enum(['lbf-ft', 'Nm']),
  temperature: z.enum(['degC', 'degF']),
  volume: z.enum(['L', 'qt']),
});
export type ReaderUnits = z.output<typeof readerUnitsSchema>;
