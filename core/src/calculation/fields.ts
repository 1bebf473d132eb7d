import { z } from 'zod';

/** Longest list a calculation takes where no other limit is named. */
export const LONGEST = 10_000;

/** A length in mm that may not be negative; 100 m is beyond any wheel end. */
export const lengthMm = z.number().nonnegative().max(100_000);

/** A thread, by threads per inch or by pitch in mm. */
export const threadSchema = z.union([
  z.object({ threadsPerInch: z.number().min(1).max(200) }),
  z.object({ pitchMm: z.number().min(0.1).max(25.4) }),
]);
export type Thread = z.infer<typeof threadSchema>;

/** An acceptance band for end play; its limits are inside it. */
export const bandSchema = z
  .object({ minMm: lengthMm, maxMm: lengthMm })
  .refine((b) => b.minMm <= b.maxMm, { message: 'must not be under minMm', path: ['maxMm'] });
export type Band = z.infer<typeof bandSchema>;

/** Comparison tolerance in mm: rounding of a unit conversion cannot fail a reading at its limit. */
export const TOLERANCE_MM = 1e-9;
