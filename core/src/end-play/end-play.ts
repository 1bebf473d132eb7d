import { z } from 'zod';
import {
  bandSchema,
  BadInput,
  defineCalculation,
  LONGEST,
  TOLERANCE_MM,
  type Band,
} from '../calculation/index.ts';
import { distanceOutside, sideOfBand } from './judge.ts';

const reading = z.number().min(-1000).max(1000);

export const verdictSchema = z.enum(['tight', 'in-band', 'loose', 'repeat', 'unsure']);
export type Verdict = z.infer<typeof verdictSchema>;

/** Cycles must repeat within 0.001 in (common practice, no single source). */
export const REPEAT_WITHIN_MM = 0.0254;
/** At least three cycles (common practice, no single source). */
export const LEAST_CYCLES = 3;

const inputSchema = z.object({
  cycles: z
    .array(z.object({ pushMm: reading, pullMm: reading }))
    .min(1)
    .max(LONGEST),
  band: bandSchema,
  inclinationDeg: z.number().min(0).lt(90).default(0),
  expandedUncertaintyMm: z.number().nonnegative().max(1000).optional(),
  rule: z.enum(['simple', 'guarded']).default('simple'),
  repeatWithinMm: z.number().nonnegative().max(1000).default(REPEAT_WITHIN_MM),
});

const outputSchema = z.object({
  cyclesMm: z.array(z.number()),
  endPlayMm: z.number(),
  rangeMm: z.number(),
  verdict: verdictSchema,
  byMm: z.number(),
});

export type EndPlayInput = z.input<typeof inputSchema>;
export type EndPlayResult = z.output<typeof outputSchema>;

/**
 * Judges push-and-pull cycles of a dial indicator against the band.
 *
 * One cycle is |pull − push| × cos(inclination), in mm; the end play is the mean of the cycles.
 * Fewer than three cycles, or cycles further apart than `repeatWithinMm`, give `repeat`. The guarded
 * rule answers `unsure` where the expanded uncertainty reaches a limit.
 *
 * @source cycles and band: TMC RP 618; guarded rule: ISO 14253-1; cosine: geometry
 * @throws BadInput when the guarded rule is asked for without an uncertainty
 */
export function judgeEndPlay(raw: EndPlayInput): EndPlayResult {
  const input = inputSchema.parse(raw);
  const { cycles, band, rule, expandedUncertaintyMm } = input;
  if (rule === 'guarded' && expandedUncertaintyMm === undefined) {
    throw new BadInput(
      'the guarded rule needs the expanded uncertainty of the gauge',
      'expandedUncertaintyMm',
    );
  }
  const cosine = Math.cos((input.inclinationDeg * Math.PI) / 180);
  const cyclesMm = cycles.map((c) => Math.abs(c.pullMm - c.pushMm) * cosine);
  const endPlayMm = cyclesMm.reduce((a, b) => a + b, 0) / cyclesMm.length;
  const rangeMm = cyclesMm.reduce((a, b) => Math.max(a, b)) - cyclesMm.reduce((a, b) => Math.min(a, b));
  const steady = cyclesMm.length >= LEAST_CYCLES && rangeMm <= input.repeatWithinMm + TOLERANCE_MM;
  const guard = rule === 'guarded' ? (expandedUncertaintyMm ?? 0) : 0;
  return {
    cyclesMm,
    endPlayMm,
    rangeMm,
    verdict: steady ? verdictOf(endPlayMm, band, guard) : 'repeat',
    byMm: distanceOutside(endPlayMm, band),
  };
}

function verdictOf(endPlayMm: number, band: Band, guardMm: number): Verdict {
  const nearest = Math.min(Math.abs(endPlayMm - band.minMm), Math.abs(endPlayMm - band.maxMm));
  return guardMm > 0 && nearest < guardMm - TOLERANCE_MM ? 'unsure' : sideOfBand(endPlayMm, band);
}

/** `end-play`: cycles of push and pull judged against the band. */
export const endPlayCalculation = defineCalculation({
  name: 'end-play',
  title: 'End play',
  summary:
    'Takes push and pull readings of a dial indicator and says tight, in band, loose or measure again.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'TMC RP 618, wheel bearing adjustment procedure: 0.001 to 0.005 in', mark: 'published' },
    { text: 'ISO 14253-1, decision rules with the measurement uncertainty', mark: 'published' },
    { text: 'Three cycles that repeat within 0.001 in', mark: 'common-practice' },
  ],
  example: {
    cycles: [
      { pushMm: 0, pullMm: 0.216 },
      { pushMm: 0, pullMm: 0.206 },
      { pushMm: 0, pullMm: 0.211 },
    ],
    band: { minMm: 0.0254, maxMm: 0.127 },
  },
  compute: judgeEndPlay,
});
