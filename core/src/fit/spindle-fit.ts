import { z } from 'zod';
import { defineCalculation, LONGEST, TOLERANCE_MM } from '../calculation/index.ts';

const diameterMm = z.number().positive().max(2_000);
const inputSchema = z.object({
  places: z
    .array(
      z.object({
        diametersMm: z.array(diameterMm).min(2, 'needs two directions or more, 12 to 6 first').max(36),
      }),
    )
    .min(1, 'needs one place or more')
    .max(LONGEST / 36),
  fit: z
    .object({ minMm: diameterMm, maxMm: diameterMm })
    .refine((f) => f.minMm <= f.maxMm, { message: 'must not be under minMm', path: ['maxMm'] }),
});
const outputSchema = z.object({
  leastMm: z.number(),
  greatestMm: z.number(),
  taperMm: z.number(),
  outOfRoundMm: z.number(),
  state: z.enum(['in-fit', 'worn', 'oversize']),
});

const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b));
const greatest = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b));
const rangeOf = (values: readonly number[]) => greatest(values) - least(values);
const meanOf = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;

/**
 * Whether a bearing journal still has its size: measured at several places along it, in two directions or more at each.
 * @param input diameters in mm; `fit` is the journal's own least and greatest diameter, not a clearance
 * @returns taper: range of the places' means; out of round: the greatest range at one place; `worn` where any diameter
 *   is under the fit, else `oversize` where any is over it
 * @source the bearing's or vehicle maker's shaft limits; three places and two directions: common practice, no source
 * @example spindleFit({ places: [{ diametersMm: [49.98, 49.97] }], fit: { minMm: 49.96, maxMm: 49.99 } }).state // 'in-fit'
 */
export function spindleFit({ places, fit }: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const all = places.flatMap((p) => p.diametersMm);
  const [leastMm, greatestMm] = [least(all), greatest(all)];
  const oversize = greatestMm > fit.maxMm + TOLERANCE_MM;
  return {
    leastMm,
    greatestMm,
    taperMm: rangeOf(places.map((p) => meanOf(p.diametersMm))),
    outOfRoundMm: greatest(places.map((p) => rangeOf(p.diametersMm))),
    state: leastMm < fit.minMm - TOLERANCE_MM ? 'worn' : oversize ? 'oversize' : 'in-fit',
  };
}

/** `spindle-fit`: a bearing journal's size, taper and roundness. */
export const spindleFitCalculation = defineCalculation({
  name: 'spindle-fit',
  title: 'Spindle fit',
  summary:
    'Holds a bearing journal’s diameters against its limits, and says how tapered and out of round it is.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'The journal’s limits: the bearing’s or the vehicle maker’s', mark: 'common-practice' },
    { text: 'Three places, two directions at each, 12 to 6 first', mark: 'common-practice' },
  ],
  example: {
    places: [
      { diametersMm: [66.65, 66.66] },
      { diametersMm: [66.64, 66.66] },
      { diametersMm: [66.63, 66.65] },
    ],
    fit: { minMm: 66.637, maxMm: 66.662 },
  },
  compute: spindleFit,
});
