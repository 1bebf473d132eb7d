import { z } from 'zod';
import { BadInput, defineCalculation, LONGEST } from '../calculation/index.ts';

const bearingSchema = z.object({
  boreMm: z.number().nonnegative().max(2000),
  outsideMm: z.number().positive().max(3000),
  widthMm: z.number().positive().max(1000),
  massKg: z.number().nonnegative().max(5000),
});
const inputSchema = z.object({
  bearings: z.array(bearingSchema).min(1).max(LONGEST),
  cavityMl: z.number().nonnegative().max(1e6),
  cavityFillPercent: z.number().min(0).max(100),
  densityGPerMl: z.number().min(0.1).max(5).default(0.9),
});
const outputSchema = z.object({
  bearingsMl: z.array(z.number()),
  cavityMl: z.number(),
  totalMl: z.number(),
  massG: z.number(),
});

/** Bearing steel, g/ml (bearing handbooks). */
const STEEL_G_PER_ML = 7.8;

/**
 * Grease for a hub: every bearing filled wholly, the cavity in part.
 *
 * Free volume of a bearing is π/4·(D² − d²)·T less the volume of its steel.
 * @returns ml for each bearing, for the cavity, in all, and the mass in g
 * @source bearing handbooks, general formula
 * @throws BadInput for a bore that is not inside, or more steel than there is room
 */
export function greaseFill({
  bearings,
  cavityMl,
  cavityFillPercent,
  densityGPerMl,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const bearingsMl = bearings.map(({ boreMm, outsideMm, widthMm, massKg }, i) => {
    if (boreMm >= outsideMm) throw new BadInput('must be under outsideMm', `bearings.${i}.boreMm`);
    const roomMl = ((Math.PI / 4) * (outsideMm ** 2 - boreMm ** 2) * widthMm) / 1000;
    const freeMl = roomMl - (massKg * 1000) / STEEL_G_PER_ML;
    if (freeMl < 0) throw new BadInput('is more steel than there is room', `bearings.${i}.massKg`);
    return freeMl;
  });
  const inCavityMl = (cavityMl * cavityFillPercent) / 100;
  const totalMl = bearingsMl.reduce((a, b) => a + b, inCavityMl);
  return { bearingsMl, cavityMl: inCavityMl, totalMl, massG: totalMl * densityGPerMl };
}

/** `grease-fill`: how much grease a hub takes. */
export const greaseFillCalculation = defineCalculation({
  name: 'grease-fill',
  title: 'Grease fill',
  summary: 'Reckons the grease for the bearings and the part of the hub cavity that is coated.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Free volume of a bearing, bearing handbooks', mark: 'published' }],
  example: {
    bearings: [
      { boreMm: 70, outsideMm: 140, widthMm: 39, massKg: 2.4 },
      { boreMm: 55, outsideMm: 115, widthMm: 34, massKg: 1.5 },
    ],
    cavityMl: 600,
    cavityFillPercent: 30,
  },
  compute: greaseFill,
});
