import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

/** Sizes of clamp-type chambers, by their effective area in square inches. */
export const chambers = [6, 9, 12, 16, 20, 24, 30, 36] as const;
type Chamber = (typeof chambers)[number];
/** How far a chamber's rod can go, by what is marked on it. */
export const chamberStrokes = ['standard', 'long', 'extra-long'] as const;

/**
 * Longest applied stroke at which a clamp-type chamber's brake passes, mm.
 * @source 49 CFR 393.47(e), value from memory; exact inches
 */
const limits: Record<(typeof chamberStrokes)[number], Partial<Record<Chamber, number>>> = {
  standard: {
    ...{ 6: 31.75, 9: 34.925, 12: 34.925, 16: 44.45 },
    ...{ 20: 44.45, 24: 44.45, 30: 50.8, 36: 57.15 },
  },
  long: { 12: 44.45, 16: 50.8, 20: 50.8, 24: 50.8, 30: 63.5 },
  'extra-long': { 20: 63.5, 24: 63.5, 30: 63.5 },
};

/** Whether a chamber is made with such a stroke. @source the same table */
export const isMade = (chamber: Chamber, stroke: (typeof chamberStrokes)[number]): boolean =>
  limits[stroke][chamber] !== undefined;

const strokeMm = z.number().nonnegative().max(500);
const inputSchema = z
  .object({
    chamber: z.literal(chambers).optional(),
    stroke: z.enum(chamberStrokes).optional(),
    measuredMm: strokeMm,
    markedStrokeMm: strokeMm.positive().optional(),
  })
  .superRefine(({ chamber, stroke, markedStrokeMm }, context) => {
    const issue = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    if (chamber === undefined && markedStrokeMm === undefined)
      issue('chamber', 'is needed, or markedStrokeMm for a chamber that is not listed');
    if (chamber !== undefined && markedStrokeMm !== undefined)
      issue('markedStrokeMm', 'is for a chamber that is not listed: leave it or the chamber out');
    if (chamber === undefined) {
      if (stroke !== undefined) issue('stroke', 'goes with a chamber of the list');
    } else if (stroke === undefined) issue('stroke', 'is needed: standard, long or extra-long');
    else if (limits[stroke][chamber] === undefined)
      issue('stroke', `there is no ${stroke} stroke of chamber ${chamber}`);
  });
const outputSchema = z.object({ limitMm: z.number(), state: z.enum(['good', 'at-limit', 'out']) });

/** Part of the marked stroke that may be used where the chamber is not listed. @source 49 CFR 393.47(e), from memory */
const OF_MARKED = 0.8;
/** So close under its limit a stroke is at it, mm. Rule of this product. */
const NEAR_MM = 1;
const SLACK_MM = 1e-9;

/**
 * Whether an air brake is within its stroke: applied less released, at 90 to 100 psi (620 to 690 kPa) in the reservoir,
 * engine off.
 * @param input lengths in mm; a listed chamber with its stroke, or the stroke marked on any other
 * @returns the limit, and `out` over it; an automatic adjuster that is out has a cause: turning it answers nothing
 * @source 49 CFR 393.47(e), value from memory; out-of-service practice decides locally
 * @example pushrodStroke({ chamber: 30, stroke: 'standard', measuredMm: 52 }) // { limitMm: 50.8, state: 'out' }
 */
export function pushrodStroke({
  chamber,
  stroke,
  measuredMm,
  markedStrokeMm,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const limitMm = chamber && stroke ? limits[stroke][chamber]! : OF_MARKED * markedStrokeMm!;
  const left = limitMm - measuredMm;
  return { limitMm, state: left < -SLACK_MM ? 'out' : left <= NEAR_MM + SLACK_MM ? 'at-limit' : 'good' };
}

/** `pushrod-stroke`: an air brake chamber's stroke against its limit. */
export const pushrodStrokeCalculation = defineCalculation({
  name: 'pushrod-stroke',
  title: 'Pushrod stroke',
  summary: 'Holds the applied stroke of an air brake chamber against the limit of its size and kind.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Limits of clamp-type chambers: 49 CFR 393.47(e)', mark: 'from-memory' },
    { text: 'At the limit within 1 mm under it: a rule of this product', mark: 'common-practice' },
  ],
  example: { chamber: 30, stroke: 'standard', measuredMm: 46.5 },
  compute: pushrodStroke,
});
