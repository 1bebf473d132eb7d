import { z } from 'zod';
import { defineCalculation, TOLERANCE_MM } from '../calculation/index.ts';

const diameterMm = z.number().positive().max(500);
const bush = z.array(diameterMm).min(2, 'needs two directions or more').max(36);
const playMm = z.number().nonnegative().max(50);
const bandOf = (play: typeof playMm) =>
  z
    .object({ minMm: play, maxMm: play })
    .refine((b) => b.minMm <= b.maxMm, { message: 'must not be under minMm', path: ['maxMm'] });
const inputSchema = z
  .object({
    pinMm: z.array(diameterMm).min(2, 'needs two directions or more').max(36),
    upperMm: bush,
    lowerMm: bush,
    clearance: bandOf(playMm),
    bushSpanMm: z.number().positive().max(2_000).optional(),
    tipRadiusMm: z.number().positive().max(2_000).optional(),
    verticalMm: playMm.optional(),
    vertical: bandOf(playMm).optional(),
  })
  .superRefine(({ bushSpanMm, tipRadiusMm, verticalMm, vertical }, context) => {
    const together = (path: string, known: unknown, other: unknown) => {
      if (known === undefined && other !== undefined)
        context.addIssue({ code: 'custom', path: [path], message: 'is needed with the other one' });
    };
    together('bushSpanMm', bushSpanMm, tipRadiusMm);
    together('tipRadiusMm', tipRadiusMm, bushSpanMm);
    together('vertical', vertical, verticalMm);
  });
const stateSchema = z.enum(['tight', 'in-fit', 'loose']);
const outputSchema = z.object({
  upperMm: z.number(),
  lowerMm: z.number(),
  state: stateSchema,
  rockMm: z.number().nullable(),
  verticalState: stateSchema.nullable(),
});

/** The side of a band. */
function sideOf(least: number, most: number, { minMm, maxMm }: { minMm: number; maxMm: number }) {
  if (least < minMm - TOLERANCE_MM) return 'tight';
  return most > maxMm + TOLERANCE_MM ? 'loose' : 'in-fit';
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;

/**
 * The running clearance of a kingpin in its reamed bushes, the rock that it gives at the wheel, and the vertical play.
 * @param input lengths in mm: pin and each bush measured in two directions or more; `clearance` is the maker's, on the
 *   diameter; the bushes' middles lie `bushSpanMm` apart, the indicator stands `tipRadiusMm` from the middle between them
 * @returns clearance of each bush, the side of the fit (`tight` where either is, else `loose`), and the movement that a
 *   rocked wheel shows through them alone; a wheel that rocks more moves somewhere else as well
 * @source geometry: two clearances over their span, times the radius; the fit is the maker's
 * @example kingpinFit({ pinMm: [44.98, 44.98], upperMm: [45.02, 45.02], lowerMm: [45.02, 45.02], clearance: { minMm: 0.02, maxMm: 0.06 } }).state // 'in-fit'
 */
export function kingpinFit(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const { pinMm, clearance, bushSpanMm, tipRadiusMm, verticalMm, vertical } = input;
  const pin = mean(pinMm);
  const [upperMm, lowerMm] = [mean(input.upperMm) - pin, mean(input.lowerMm) - pin];
  const rocks = bushSpanMm !== undefined && tipRadiusMm !== undefined;
  const both = Math.max(0, upperMm) + Math.max(0, lowerMm);
  return {
    ...{ upperMm, lowerMm },
    state: sideOf(Math.min(upperMm, lowerMm), Math.max(upperMm, lowerMm), clearance),
    rockMm: rocks ? (both / bushSpanMm) * tipRadiusMm : null,
    verticalState: vertical && verticalMm !== undefined ? sideOf(verticalMm, verticalMm, vertical) : null,
  };
}

/** `kingpin-fit`: a kingpin in its reamed bushes, and what it lets the wheel move. */
export const kingpinFitCalculation = defineCalculation({
  name: 'kingpin-fit',
  title: 'Kingpin fit',
  summary:
    'Tells the clearance of a kingpin in its reamed bushes, the rock it gives at the wheel, and the vertical play.',
  inputSchema,
  outputSchema,
  sources: [
    {
      text: 'Two clearances over the span of the bushes, times the radius of the indicator',
      mark: 'common-practice',
    },
    { text: 'Running clearance and vertical play: the maker’s figures', mark: 'common-practice' },
  ],
  example: {
    ...{ pinMm: [44.98, 44.98], upperMm: [45.02, 45.03], lowerMm: [45.02, 45.02] },
    clearance: { minMm: 0.025, maxMm: 0.065 },
    ...{ bushSpanMm: 180, tipRadiusMm: 480, verticalMm: 0.15, vertical: { minMm: 0.05, maxMm: 0.25 } },
  },
  compute: kingpinFit,
});
