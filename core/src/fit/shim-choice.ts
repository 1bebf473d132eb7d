import { z } from 'zod';
import { defineCalculation, lengthMm, TOLERANCE_MM } from '../calculation/index.ts';

const signedMm = z.number().min(-100).max(100);
const inputSchema = z.object({
  currentMm: lengthMm,
  measuredMm: z.number().positive('is end play above zero: at zero the preload does not show').max(100),
  thickerMeans: z.enum(['looser', 'tighter']),
  target: z
    .object({ minMm: signedMm, maxMm: signedMm })
    .refine((t) => t.minMm <= t.maxMm, { message: 'must not be under minMm', path: ['maxMm'] }),
  shims: z
    .array(z.object({ thicknessMm: z.number().min(0.001).max(100), count: z.int().min(1).max(1_000) }))
    .min(1, 'needs one size or more')
    .max(12, 'takes 12 sizes at most'),
  mostShims: z.int().min(1).max(6).default(4),
});
const optionSchema = z.object({
  /** Thickest first. */
  shims: z.array(z.number()),
  stackMm: z.number(),
  predictedMm: z.number(),
  state: z.enum(['tight', 'in-band', 'loose']),
});
const outputSchema = z.object({
  wantedMm: z.number(),
  options: z.array(optionSchema),
  best: z.int().nullable(),
});
type Input = z.output<typeof inputSchema>;
type Option = z.output<typeof optionSchema>;

const MOST_OPTIONS = 5;
/** Sums of shims that differ by less are one thickness, mm. */
const SAME_MM = 1e-6;

/** Every stack of the shims that are there, the fewest shims for each thickness. */
function stacksOf({ shims, mostShims }: Input): number[][] {
  const sizes = [...shims].sort((a, b) => b.thicknessMm - a.thicknessMm);
  const fewest = new Map<number, number[]>();
  const add = (stack: number[], from: number, used: number) => {
    if (stack.length > 0) {
      const key = Math.round(sum(stack) / SAME_MM);
      const known = fewest.get(key);
      if (!known || known.length > stack.length) fewest.set(key, stack);
    }
    if (stack.length === mostShims) return;
    for (let i = from; i < sizes.length; i++) {
      const { thicknessMm, count } = sizes[i]!;
      const taken = i === from ? used : 0;
      if (taken < count) add([...stack, thicknessMm], i, taken + 1);
    }
  };
  add([], 0, 0);
  return [...fewest.values()];
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

/**
 * Which shims bring a bearing pair from the end play that was measured to the one, or the preload, that is asked for.
 * @param input lengths in mm: the stack that is in now, the end play above zero measured with it, and a target that is
 *   negative where preload is asked; at most 12 sizes and 6 shims
 * @returns the stack that would meet the middle of the target, and the stacks that can be made of the shims: those in
 *   the target, nearest its middle first, at most five; where none is, the nearest on either side and no best
 * @source geometry: the setting follows the stack one to one; elastic set is left to the rolling torque, which proves it
 */
export function shimChoice(input: Input): z.output<typeof outputSchema> {
  const { currentMm, measuredMm, thickerMeans, target } = input;
  const sign = thickerMeans === 'looser' ? 1 : -1;
  const middleMm = (target.minMm + target.maxMm) / 2;
  const options = stacksOf(input).map((shims): Option => {
    const stackMm = Number(sum(shims).toFixed(6));
    const predictedMm = measuredMm + sign * (stackMm - currentMm);
    const tight = predictedMm < target.minMm - TOLERANCE_MM;
    const loose = predictedMm > target.maxMm + TOLERANCE_MM;
    return { shims, stackMm, predictedMm, state: tight ? 'tight' : loose ? 'loose' : 'in-band' };
  });
  const off = (o: Option) => Math.abs(o.predictedMm - middleMm);
  options.sort((a, b) => off(a) - off(b) || a.shims.length - b.shims.length || a.stackMm - b.stackMm);
  const inBand = options.filter((o) => o.state === 'in-band').slice(0, MOST_OPTIONS);
  const nearest = (['tight', 'loose'] as const).flatMap(
    (side) => options.find((o) => o.state === side) ?? [],
  );
  return {
    wantedMm: currentMm + sign * (middleMm - measuredMm),
    options: inBand.length > 0 ? inBand : nearest.sort((a, b) => off(a) - off(b)),
    best: inBand.length > 0 ? 0 : null,
  };
}

/** `shim-choice`: the shims that give the end play or preload asked for. */
export const shimChoiceCalculation = defineCalculation({
  name: 'shim-choice',
  title: 'Shim choice',
  summary:
    'Chooses the shims that bring a bearing pair from its measured end play to the play or preload asked for.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'The setting follows the stack one to one', mark: 'common-practice' },
    { text: 'Preload is proved by the rolling torque, never by the shims alone', mark: 'common-practice' },
  ],
  example: {
    ...{ currentMm: 1.25, measuredMm: 0.3, thickerMeans: 'looser' },
    target: { minMm: -0.08, maxMm: -0.03 },
    shims: [
      { thicknessMm: 0.1, count: 4 },
      { thicknessMm: 0.2, count: 4 },
      { thicknessMm: 0.3, count: 2 },
      { thicknessMm: 0.5, count: 2 },
    ],
  },
  compute: shimChoice,
});
