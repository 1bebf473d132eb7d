import { z } from 'zod';
import {
  bandSchema,
  defineCalculation,
  lengthMm,
  threadSchema,
  TOLERANCE_MM,
  type Band,
} from '../calculation/index.ts';
import { sideOfBand } from '../end-play/index.ts';
import { lockPositions, lockSchema } from './lock.ts';
import { pitchOf } from './travel.ts';

const inputSchema = z.object({
  thread: threadSchema,
  lock: lockSchema,
  measuredMm: lengthMm,
  band: bandSchema,
  targetMm: lengthMm.optional(),
  followRatio: z.number().min(0.01).max(10).default(1),
});

const stateSchema = z.enum(['tight', 'in-band', 'loose', 'preload']);

const outputSchema = z.object({
  exactTurns: z.number(),
  options: z.array(
    z.object({ turns: z.number(), degrees: z.number(), predictedMm: z.number(), state: stateSchema }),
  ),
  best: z.int().nullable(),
});

export type NutSettingInput = z.input<typeof inputSchema>;
export type NutSetting = z.output<typeof outputSchema>;
export type NutOption = NutSetting['options'][number];
export type NutState = z.infer<typeof stateSchema>;

function stateOf(predictedMm: number, band: Band): NutState {
  return predictedMm < -TOLERANCE_MM ? 'preload' : sideOfBand(predictedMm, band);
}

/**
 * Which way and how far to turn the nut, and the end play at every position in which it locks.
 *
 * predicted = measured − turns × pitch × followRatio, in mm; `followRatio` is the share of the nut's
 * travel that reaches the bearing. `best` is the in-band option nearest the target (the middle of
 * the band by default), of two equally near the looser; never a preload.
 *
 * @source geometry of thread and lock; band: TMC RP 618
 */
export function planNutSetting(raw: NutSettingInput): NutSetting {
  const input = inputSchema.parse(raw);
  const { lock, band, measuredMm } = input;
  const targetMm = input.targetMm ?? (band.minMm + band.maxMm) / 2;
  const perTurnMm = pitchOf(input.thread) * input.followRatio;
  const exactTurns = (measuredMm - targetMm) / perTurnMm;
  const optionAt = (turns: number, predictedMm: number): NutOption => ({
    turns,
    degrees: turns * 360,
    predictedMm,
    state: stateOf(predictedMm, band),
  });
  const options =
    lock.kind === 'stepless'
      ? [optionAt(exactTurns, targetMm)]
      : upToFirstPreload(lockPositions(lock).map((turns) => optionAt(turns, measuredMm - turns * perTurnMm)));
  return { exactTurns, options, best: bestOption(options, targetMm) };
}

function upToFirstPreload(options: NutOption[]): NutOption[] {
  const first = options.findIndex((o) => o.state === 'preload');
  return first < 0 ? options : options.slice(0, first + 1);
}

function bestOption(options: readonly NutOption[], targetMm: number): number | null {
  let best: number | null = null;
  let nearest = Infinity;
  options.forEach((option, i) => {
    const off = Math.abs(option.predictedMm - targetMm);
    // Options run from loose to tight, so that the looser of two equally near comes first and stays.
    if (option.state === 'in-band' && off < nearest - TOLERANCE_MM) {
      best = i;
      nearest = off;
    }
  });
  return best;
}

/** `nut-setting`: the turn to make and what each lock position gives. */
export const nutSettingCalculation = defineCalculation({
  name: 'nut-setting',
  title: 'Nut setting',
  summary: 'Says which way and how far to turn the adjusting nut, and the end play each lock position gives.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'Geometry of thread, slots and holes', mark: 'published' },
    { text: 'TMC RP 618: band 0.001 to 0.005 in', mark: 'published' },
  ],
  example: {
    thread: { threadsPerInch: 16 },
    lock: { kind: 'indexed', positionsPerTurn: 8, reversible: true },
    measuredMm: 0.211,
    band: { minMm: 0.0254, maxMm: 0.127 },
  },
  compute: planNutSetting,
});
