import { z } from 'zod';

/** Longest list a calculation takes where no other limit is named. */
export const LONGEST = 10_000;

/** A length in mm that may not be negative; 100 m is beyond any wheel end. */
export const lengthMm = z.number().nonnegative().max(100_000);

const byTheInch = { threadsPerInch: z.number().min(1).max(200) };
const byPitch = { pitchMm: z.number().min(0.1).max(25.4) };
const MM_PER_INCH = 25.4;
/** Pitches are written to a thousandth of a millimetre. */
const ROUNDED_MM = 0.000_5;

/** A thread, by threads per inch or by pitch in mm; both where they agree. */
export const threadSchema = z.union([
  z.strictObject(byTheInch),
  z.strictObject(byPitch),
  z
    .object({ ...byTheInch, ...byPitch })
    .refine((t) => Math.abs(MM_PER_INCH / t.threadsPerInch - t.pitchMm) <= ROUNDED_MM, {
      message: 'is not the pitch of the threads per inch beside it: give one of them',
      path: ['pitchMm'],
    }),
]);
export type Thread = z.infer<typeof threadSchema>;

/** An acceptance band for end play; its limits are inside it. */
export const bandSchema = z
  .object({ minMm: lengthMm, maxMm: lengthMm })
  .refine((b) => b.minMm <= b.maxMm, { message: 'must not be under minMm', path: ['maxMm'] });
export type Band = z.infer<typeof bandSchema>;

/** Comparison tolerance in mm: rounding of a unit conversion cannot fail a reading at its limit. */
export const TOLERANCE_MM = 1e-9;
