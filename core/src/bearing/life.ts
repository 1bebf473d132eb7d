import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

/** Roller bearings: exponent 10/3 (ISO 281). */
export const ROLLER_EXPONENT = 10 / 3;

/** Life factor a1 for a reliability in %. @source ISO 281, table of a1 */
const reliabilityFactor = { 90: 1, 95: 0.64, 96: 0.55, 97: 0.47, 98: 0.37, 99: 0.25 } as const;

const loadN = z.number().positive().max(1e9);
export const rollingCircumferenceMm = z.number().positive().max(20_000);

const inputSchema = z.object({
  dynamicRatingN: loadN,
  equivalentLoadN: z.number().min(1e-3).max(1e9),
  exponent: z.number().min(1).max(10).default(ROLLER_EXPONENT),
  reliabilityPercent: z
    .union([z.literal(90), z.literal(95), z.literal(96), z.literal(97), z.literal(98), z.literal(99)])
    .default(90),
  lifeFactor: z.number().positive().max(50).default(1),
  rollingCircumferenceMm: rollingCircumferenceMm.optional(),
});
const outputSchema = z.object({
  l10Mrev: z.number(),
  lifeMrev: z.number(),
  distanceKm: z.number().optional(),
});

/** Distance in km of a life in millions of turns: 10⁶ turns × circumference in mm is as many km as the circumference has mm. */
export function distanceOf(lifeMrev: number, circumferenceMm: number): number {
  return lifeMrev * circumferenceMm;
}

/**
 * Rating life of a bearing: L10 = (C/P)^p in millions of turns, then a1 × life factor × L10.
 * @source ISO 281
 */
export function bearingLife(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const l10Mrev = (input.dynamicRatingN / input.equivalentLoadN) ** input.exponent;
  const lifeMrev = reliabilityFactor[input.reliabilityPercent] * input.lifeFactor * l10Mrev;
  const circumference = input.rollingCircumferenceMm;
  return {
    l10Mrev,
    lifeMrev,
    ...(circumference === undefined ? {} : { distanceKm: distanceOf(lifeMrev, circumference) }),
  };
}

/** `bearing-life`: rating life by ISO 281. */
export const bearingLifeCalculation = defineCalculation({
  name: 'bearing-life',
  title: 'Bearing life',
  summary:
    'Reckons the rating life of one bearing in turns and, with the tyre’s circumference, in kilometres.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'ISO 281, dynamic load ratings and rating life', mark: 'published' }],
  example: { dynamicRatingN: 190_000, equivalentLoadN: 32_000, rollingCircumferenceMm: 3200 },
  compute: bearingLife,
});
