import { z } from 'zod';
import { defineCalculation, LONGEST } from '../calculation/index.ts';

const sizeMm = z.number().positive().max(2_000);
const runout = z.number().nonnegative().max(50);
const inputSchema = z
  .object({
    part: z.enum(['drum', 'rotor']),
    measuredMm: z.array(sizeMm).min(1, 'needs one measurement or more').max(LONGEST),
    discardMm: sizeMm,
    runoutMm: runout.optional(),
    runoutLimitMm: runout.optional(),
  })
  .refine((i) => i.runoutMm === undefined || i.runoutLimitMm !== undefined, {
    message: 'is needed where a runout was measured',
    path: ['runoutLimitMm'],
  });
const outputSchema = z.object({
  worstMm: z.number(),
  leftMm: z.number(),
  variationMm: z.number(),
  state: z.enum(['good', 'at-limit', 'runout', 'discard']),
});

/** So close to its discard figure a part is at it, mm. Rule of this product. */
const NEAR_MM = { drum: 0.5, rotor: 1 };
const SLACK_MM = 1e-9;

/**
 * Whether a drum or a rotor may stay in: its worst measurement against the discard figure that is cast into it.
 * @param input lengths in mm; a drum's diameters or a rotor's thicknesses at several places; `discardMm` is not the
 *   figure to machine to
 * @returns what is left to the discard figure, under zero past it; `runout` says to look at play and faces first
 * @source discard figure: cast into the part by its maker; nearness: rules of this product
 * @example wearLimit({ part: 'rotor', measuredMm: [36.2, 35.9], discardMm: 36 }).state // 'discard'
 */
export function wearLimit({
  part,
  measuredMm,
  discardMm,
  runoutMm = 0,
  runoutLimitMm = Infinity,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const greatest = measuredMm.reduce((a, b) => Math.max(a, b));
  const least = measuredMm.reduce((a, b) => Math.min(a, b));
  const worstMm = part === 'drum' ? greatest : least;
  const leftMm = part === 'drum' ? discardMm - worstMm : worstMm - discardMm;
  const stateOf = () => {
    if (leftMm < -SLACK_MM) return 'discard';
    if (runoutMm > runoutLimitMm + SLACK_MM) return 'runout';
    return leftMm <= NEAR_MM[part] + SLACK_MM ? 'at-limit' : 'good';
  };
  return { worstMm, leftMm, variationMm: greatest - least, state: stateOf() };
}

/** `wear-limit`: a drum's diameter or a rotor's thickness against its discard figure. */
export const wearLimitCalculation = defineCalculation({
  name: 'wear-limit',
  title: 'Drum and rotor wear',
  summary: 'Holds a drum’s diameter or a rotor’s thickness against the discard figure cast into it.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'The discard figure is cast into the part by its maker', mark: 'common-practice' },
    {
      text: 'At the limit within 0.5 mm of a drum’s, 1 mm of a rotor’s: a rule of this product',
      mark: 'common-practice',
    },
  ],
  example: {
    ...{ part: 'rotor', measuredMm: [38.4, 38.1, 38.6, 38.3], discardMm: 37 },
    ...{ runoutMm: 0.08, runoutLimitMm: 0.15 },
  },
  compute: wearLimit,
});
