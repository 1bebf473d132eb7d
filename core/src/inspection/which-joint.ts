import { z } from 'zod';
import { defineCalculation, lengthMm, TOLERANCE_MM } from '../calculation/index.ts';

const inputSchema = z.object({
  axleToKnuckleMm: lengthMm,
  knuckleToHubMm: lengthMm,
  kingpinLimitMm: lengthMm,
  bearingLimitMm: lengthMm,
});

const outputSchema = z.object({
  suspect: z.enum(['kingpin', 'bearing', 'both', 'neither']),
  bearingShare: z.number().nullable(),
});

/** Bearing movement that is too much where a sheet has no band, mm. @source TMC RP 618, upper limit of the band */
export const BEARING_LIMIT_MM = 0.127;

type Suspect = z.output<typeof outputSchema>['suspect'];

/**
 * Tells which joint moves from two indicator set-ups: base on the axle and tip on the knuckle shows the
 * kingpin alone, base on the knuckle and tip on the hub the bearing alone. A reading at its limit passes.
 * @returns the suspect, and the bearing's share of all movement (null when nothing moved)
 * @source common practice, no single source
 */
export function whichJoint(input: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const kingpin = input.axleToKnuckleMm > input.kingpinLimitMm + TOLERANCE_MM;
  const bearing = input.knuckleToHubMm > input.bearingLimitMm + TOLERANCE_MM;
  const sum = input.axleToKnuckleMm + input.knuckleToHubMm;
  const suspect: Suspect = kingpin ? (bearing ? 'both' : 'kingpin') : bearing ? 'bearing' : 'neither';
  return { suspect, bearingShare: sum === 0 ? null : input.knuckleToHubMm / sum };
}

/** `which-joint`: kingpin or bearing, from two placements of the indicator. */
export const whichJointCalculation = defineCalculation({
  name: 'which-joint',
  title: 'Which joint moves',
  summary: 'Tells the kingpin from the bearing by two placements of the indicator.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Two-indicator test: axle to knuckle, knuckle to hub', mark: 'common-practice' }],
  example: { axleToKnuckleMm: 0.03, knuckleToHubMm: 0.3, kingpinLimitMm: 0.25, bearingLimitMm: 0.127 },
  compute: whichJoint,
});
