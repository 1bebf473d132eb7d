import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';

const torqueNm = z.number().nonnegative().max(1e6);
const length = z.number().positive().max(10_000);

const adapter = z.object({ lengthMm: length, angleDeg: z.number().min(-180).max(180) });

const between = {
  wrenchLengthMm: length.optional(),
  adapter: adapter.optional(),
  multiplier: z
    .object({ ratio: z.number().min(1).max(1000), efficiency: z.number().min(0.01).max(1) })
    .optional(),
};

/** What stands between wrench and nut: an adapter in line, a multiplier, or both. */
export const torqueViaSchema = z
  .object({
    ...between,
    /** `code`: as the tool list has it; left out for one that is not on it. */
    adapter: adapter.extend({ code: z.string().trim().min(1).max(20).optional() }).optional(),
  })
  .refine((v) => !v.adapter || (v.wrenchLengthMm !== undefined && Math.abs(v.adapter.angleDeg) <= 90), {
    message: 'an adapter needs the length of the wrench, and does not fold back on it',
    path: ['wrenchLengthMm'],
  });
export type TorqueVia = z.output<typeof torqueViaSchema>;

const inputSchema = z.object({
  targetNm: torqueNm,
  ...between,
  tool: z
    .object({ minNm: torqueNm, maxNm: z.number().positive().max(1e6) })
    .refine((t) => t.minNm <= t.maxNm, { message: 'must not be under minNm', path: ['maxNm'] })
    .optional(),
});

const outputSchema = z.object({
  settingNm: z.number(),
  tool: z.object({ withinRange: z.boolean(), withinRecommended: z.boolean() }).optional(),
});

const SLACK = 1e-9;

/**
 * What to set on the wrench so that the nut gets its torque.
 *
 * T·L / (L + E·cos θ) for an adapter of length E at angle θ to the wrench (0 in line, making it longer),
 * then divided by ratio × efficiency of a multiplier.
 * @source geometry of the lever; recommended part of the range, 20 to 100 %: ISO 6789
 * @throws BadInput for an adapter without the wrench's length, or one that folds the lever to nothing
 */
export function torqueSetting(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const { targetNm, adapter, wrenchLengthMm, multiplier, tool } = input;
  let settingNm = targetNm;
  if (adapter) {
    if (wrenchLengthMm === undefined)
      throw new BadInput('an adapter needs the length of the wrench', 'wrenchLengthMm');
    const leverMm = wrenchLengthMm + adapter.lengthMm * Math.cos((adapter.angleDeg * Math.PI) / 180);
    if (leverMm <= wrenchLengthMm * 0.01)
      throw new BadInput('folds the lever to nothing', 'adapter.angleDeg');
    settingNm = (targetNm * wrenchLengthMm) / leverMm;
  }
  if (multiplier) settingNm /= multiplier.ratio * multiplier.efficiency;
  if (!tool) return { settingNm };
  const withinRange = settingNm >= tool.minNm - SLACK && settingNm <= tool.maxNm + SLACK;
  return {
    settingNm,
    tool: { withinRange, withinRecommended: withinRange && settingNm >= 0.2 * tool.maxNm - SLACK },
  };
}

/** `torque-setting`: the figure to set, with adapter, multiplier and the tool's range. */
export const torqueSettingCalculation = defineCalculation({
  name: 'torque-setting',
  title: 'Torque setting',
  summary: 'Says what to set on the wrench when an adapter or a multiplier stands between it and the nut.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Geometry of the lever', mark: 'published' },
    { text: 'ISO 6789: use between 20 and 100 % of the tool’s range', mark: 'published' },
  ],
  example: {
    targetNm: 610,
    wrenchLengthMm: 1067,
    adapter: { lengthMm: 76, angleDeg: 0 },
    tool: { minNm: 150, maxNm: 750 },
  },
  compute: torqueSetting,
});
