import { z } from 'zod';
import { BadInput, defineCalculation, LONGEST } from '../calculation/index.ts';

const inputSchema = z.object({
  readings: z
    .array(
      z.object({
        distanceKm: z.number().nonnegative().max(1e8),
        thicknessMm: z.number().nonnegative().max(1000),
      }),
    )
    .min(2, 'needs two readings or more')
    .max(LONGEST),
  minimumMm: z.number().nonnegative().max(1000),
});
const outputSchema = z.object({
  wearMmPer1000Km: z.number().nullable(),
  atDistanceKm: z.number().nullable(),
  remainingKm: z.number().nullable(),
});

/**
 * Wear of a lining and the distance at which it meets its minimum, by least squares.
 * @returns nulls where it does not wear; `remainingKm` counts from the last reading and is negative when
 *   the line has crossed the minimum already
 * @source least squares, NIST/SEMATECH e-handbook
 * @throws BadInput when all readings are of one distance
 */
export function liningWear({
  readings,
  minimumMm,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const n = readings.length;
  const meanX = readings.reduce((s, r) => s + r.distanceKm / n, 0);
  const meanY = readings.reduce((s, r) => s + r.thicknessMm / n, 0);
  const sxx = readings.reduce((s, r) => s + (r.distanceKm - meanX) ** 2, 0);
  const sxy = readings.reduce((s, r) => s + (r.distanceKm - meanX) * (r.thicknessMm - meanY), 0);
  if (sxx <= 1e-12) throw new BadInput('need two different distances', 'readings');
  const slope = sxy / sxx;
  if (slope > -1e-15) return { wearMmPer1000Km: null, atDistanceKm: null, remainingKm: null };
  const atDistanceKm = meanX + (minimumMm - meanY) / slope;
  const lastKm = readings.reduce((m, r) => Math.max(m, r.distanceKm), 0);
  return { wearMmPer1000Km: -slope * 1000, atDistanceKm, remainingKm: atDistanceKm - lastKm };
}

/** `lining-wear`: when a lining meets its minimum. */
export const liningWearCalculation = defineCalculation({
  name: 'lining-wear',
  title: 'Lining wear',
  summary: 'Draws the line through a lining’s readings and tells where it meets the minimum.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Least squares', mark: 'published' },
    { text: 'Minimums: 49 CFR 393.47, recalled', mark: 'from-memory' },
  ],
  example: {
    readings: [
      { distanceKm: 400_000, thicknessMm: 16.1 },
      { distanceKm: 460_000, thicknessMm: 13.4 },
      { distanceKm: 520_000, thicknessMm: 10.9 },
    ],
    minimumMm: 6.4,
  },
  compute: liningWear,
});
