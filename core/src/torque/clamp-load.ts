import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';

const friction = z.number().min(0).max(2);
const inputSchema = z.object({
  torqueNm: z.number().nonnegative().max(1e6),
  diameterMm: z.number().positive().max(1000),
  pitchMm: z.number().positive().max(100),
  threadFriction: friction,
  bearingFriction: friction,
  bearingDiameterMm: z.number().positive().max(2000),
});
const outputSchema = z.object({ loadN: z.number(), nutFactor: z.number() });

/**
 * The load with which a nut clamps, from its torque.
 *
 * T = F·(p/2π + μt·d2/(2·cos 30°) + μb·Db/2) with d2 = d − 0.649519·p; nut factor K = T/(F·d).
 * Lengths in mm, torque in N·m, load in N.
 * @source torque-tension equation of VDI 2230 and the bolting handbooks
 * @throws BadInput when the pitch is too coarse for the diameter
 */
export function clampLoad(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const { diameterMm, pitchMm, threadFriction, bearingFriction, bearingDiameterMm } = input;
  const pitchDiameterMm = diameterMm - 0.649519 * pitchMm;
  if (pitchDiameterMm <= 0) throw new BadInput('is too coarse for the diameter', 'pitchMm');
  const leverMm =
    pitchMm / (2 * Math.PI) +
    (threadFriction * pitchDiameterMm) / (2 * Math.cos(Math.PI / 6)) +
    (bearingFriction * bearingDiameterMm) / 2;
  return { loadN: (input.torqueNm * 1000) / leverMm, nutFactor: leverMm / diameterMm };
}

/** `clamp-load`: how hard a torqued nut clamps. */
export const clampLoadCalculation = defineCalculation({
  name: 'clamp-load',
  title: 'Clamp load',
  summary: 'Tells how hard a nut clamps for its torque, and how much of the torque friction eats.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Torque-tension equation, VDI 2230', mark: 'published' }],
  example: {
    torqueNm: 610,
    diameterMm: 22,
    pitchMm: 1.5,
    threadFriction: 0.12,
    bearingFriction: 0.12,
    bearingDiameterMm: 30,
  },
  compute: clampLoad,
});
