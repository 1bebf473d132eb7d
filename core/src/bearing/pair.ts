import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';
import { distanceOf, ROLLER_EXPONENT, rollingCircumferenceMm } from './life.ts';

const rowSchema = z.object({
  radialN: z.number().min(1e-3).max(1e9),
  /** Y of the catalogue. */
  axialFactor: z.number().min(0.01).max(10),
  /** e of the catalogue. */
  limitRatio: z.number().min(0.01).max(10),
  dynamicRatingN: z.number().positive().max(1e9),
});
type Row = z.output<typeof rowSchema>;

const inputSchema = z.object({
  a: rowSchema,
  b: rowSchema,
  /** External axial load; positive loads a. */
  axialN: z.number().min(-1e9).max(1e9),
  rollingCircumferenceMm: rollingCircumferenceMm.optional(),
});
const rowResult = z.object({ axialN: z.number(), equivalentN: z.number(), l10Mrev: z.number() });
const outputSchema = z.object({
  a: rowResult,
  b: rowResult,
  pairL10Mrev: z.number(),
  distanceKm: z.number().optional(),
});

/** Weibull slope of bearing lives, line contact. @source ISO 281 */
const WEIBULL_SLOPE = 9 / 8;

function rowLife(row: Row, axialN: number): z.output<typeof rowResult> {
  const equivalentN =
    axialN / row.radialN <= row.limitRatio ? row.radialN : 0.4 * row.radialN + row.axialFactor * axialN;
  return { axialN, equivalentN, l10Mrev: (row.dynamicRatingN / equivalentN) ** ROLLER_EXPONENT };
}

/**
 * Two opposed tapered roller bearings: the axial load each carries, its equivalent load and life, and the
 * life of the pair.
 *
 * Each induces S = 0.5·Fr/Y. With the external load K on a: if S_b + K ≥ S_a then Fa_a = S_b + K and
 * Fa_b = S_b, else Fa_a = S_a and Fa_b = S_a − K. P = Fr where Fa/Fr ≤ e, else 0.4·Fr + Y·Fa.
 * The pair's life adds by the Weibull slope 9/8.
 * @source bearing handbooks, tapered roller pairs; ISO 281
 */
export function bearingPair({
  a,
  b,
  axialN,
  rollingCircumferenceMm: circumference,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const inducedA = (0.5 * a.radialN) / a.axialFactor;
  const inducedB = (0.5 * b.radialN) / b.axialFactor;
  const onA = inducedB + axialN >= inducedA;
  const lifeA = rowLife(a, onA ? inducedB + axialN : inducedA);
  const lifeB = rowLife(b, onA ? inducedB : inducedA - axialN);
  const pairL10Mrev =
    (lifeA.l10Mrev ** -WEIBULL_SLOPE + lifeB.l10Mrev ** -WEIBULL_SLOPE) ** (-1 / WEIBULL_SLOPE);
  return {
    a: lifeA,
    b: lifeB,
    pairL10Mrev,
    ...(circumference === undefined ? {} : { distanceKm: distanceOf(pairL10Mrev, circumference) }),
  };
}

/** `bearing-pair`: the two tapered bearings of a hub together. */
export const bearingPairCalculation = defineCalculation({
  name: 'bearing-pair',
  title: 'Bearing pair',
  summary: 'Shares the axial load between the inner and outer bearing and reckons the life of the pair.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Bearing handbooks, opposed tapered roller bearings', mark: 'published' },
    { text: 'ISO 281, system life with slope 9/8', mark: 'published' },
  ],
  example: {
    a: { radialN: 28_000, axialFactor: 1.6, limitRatio: 0.37, dynamicRatingN: 190_000 },
    b: { radialN: 14_000, axialFactor: 1.5, limitRatio: 0.4, dynamicRatingN: 120_000 },
    axialN: 6000,
    rollingCircumferenceMm: 3200,
  },
  compute: bearingPair,
});
