import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';

const newtonMetres = z.number().nonnegative().max(10_000);
const inputSchema = z.object({
  pullN: z.number().nonnegative().max(10_000),
  radiusMm: z.number().positive().max(2_000),
  sealDragNm: newtonMetres.optional(),
  band: z
    .object({ minNm: newtonMetres, maxNm: newtonMetres })
    .refine((b) => b.minNm <= b.maxNm, { message: 'must not be under minNm', path: ['maxNm'] })
    .optional(),
});
const outputSchema = z.object({
  torqueNm: z.number(),
  verdict: z.enum(['loose', 'in-band', 'tight']).optional(),
});

/** Rounding cannot fail a torque at its limit, N·m. */
const SLACK_NM = 1e-9;

/**
 * Rolling torque of a bearing pair: the steady pull on a cord wound round the hub or spindle times its radius, less
 * what the seal drags by itself.
 * @param input pull in N while it turns, never the breakaway; radius of the cord in mm; torques in N·m
 * @returns the bearings' torque, and its side of the band where one is given: too little is `loose`
 * @throws BadInput when the seal alone would drag more than was pulled
 * @source torque is force times radius; steady turning and not breakaway: common practice, no single source
 * @example rollingTorque({ pullN: 60, radiusMm: 100, sealDragNm: 1 }) // { torqueNm: 5 }
 */
export function rollingTorque({
  pullN,
  radiusMm,
  sealDragNm = 0,
  band,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const torqueNm = (pullN * radiusMm) / 1000 - sealDragNm;
  if (torqueNm < -SLACK_NM) throw new BadInput('is more than the whole torque that was pulled', 'sealDragNm');
  if (!band) return { torqueNm };
  const side =
    torqueNm < band.minNm - SLACK_NM ? 'loose' : torqueNm > band.maxNm + SLACK_NM ? 'tight' : 'in-band';
  return { torqueNm, verdict: side };
}

/** `rolling-torque`: preload of a bearing pair from the pull that keeps it turning. */
export const rollingTorqueCalculation = defineCalculation({
  name: 'rolling-torque',
  title: 'Rolling torque',
  summary: 'Tells the preload torque of a bearing pair from the steady pull on a cord, less the seal’s drag.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Force times radius', mark: 'published' },
    { text: 'Steady turning and not the breakaway; the seal’s own drag taken off', mark: 'common-practice' },
  ],
  example: { pullN: 85, radiusMm: 140, sealDragNm: 2.5, band: { minNm: 7, maxNm: 12 } },
  compute: rollingTorque,
});
