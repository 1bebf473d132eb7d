import { z } from 'zod';
import { bandSchema, BadInput, defineCalculation } from '../calculation/index.ts';
import { fTail } from '../statistics/index.ts';

const reading = z.number().min(-1e6).max(1e6);
const inputSchema = z.object({
  /** measurements[part][appraiser][trial] */
  measurements: z
    .array(
      z
        .array(z.array(reading).min(2, 'needs two trials or more').max(50))
        .min(2, 'needs two appraisers or more')
        .max(50),
    )
    .min(2, 'needs two parts or more')
    .max(200),
  /** Band the readings are judged by; they are in mm then. */
  band: bandSchema
    .refine((b) => b.maxMm > b.minMm, { message: 'must be over minMm', path: ['maxMm'] })
    .optional(),
});
const outputSchema = z.object({
  repeatability: z.number(),
  reproducibility: z.number(),
  interaction: z.number(),
  gaugeRr: z.number(),
  part: z.number(),
  total: z.number(),
  percentOfTotal: z.number(),
  distinctCategories: z.int().nullable(),
  pooled: z.boolean(),
  percentOfBand: z.number().optional(),
});

/** As many standard deviations of the gauge are held against the band. @source AIAG MSA */
const SPREAD = 6;

/** Interaction is pooled into repeatability when it is this likely to be chance. @source AIAG MSA */
const POOL_OVER = 0.25;

const mean = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;
const squares = (values: readonly number[], around: number) =>
  values.reduce((s, v) => s + (v - around) ** 2, 0);

function checkBalance(measurements: readonly (readonly (readonly number[])[])[]): void {
  const appraisers = measurements[0]!.length;
  const trials = measurements[0]![0]!.length;
  measurements.forEach((part, i) => {
    if (part.length !== appraisers)
      throw new BadInput('needs as many appraisers as the first part', `measurements.${i}`);
    part.forEach((cell, j) => {
      if (cell.length !== trials)
        throw new BadInput('needs as many trials as the first', `measurements.${i}.${j}`);
    });
  });
}

/**
 * Crossed gauge study by analysis of variance: how much of the spread is the gauge, how much the hands,
 * how much the parts. All as standard deviations in the unit of the readings.
 *
 * `reproducibility` is the appraisers' own; the interaction of part and appraiser stands beside it, and
 * both are in `gaugeRr`. The interaction is pooled when p > 0.25; a negative component is 0.
 * @param band where it is given, each measurement is the mean as it is used, in mm
 * @returns `percentOfTotal` = 100·gaugeRr/total; `distinctCategories` null when the gauge shows no spread; `percentOfBand`
 *   six standard deviations of the gauge over the band’s width: up to 10 is good, over 30 is not
 * @source AIAG, Measurement Systems Analysis, analysis-of-variance method
 * @throws BadInput when the study is not balanced
 */
export function gaugeStudy({
  measurements,
  band,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  checkBalance(measurements);
  const p = measurements.length;
  const a = measurements[0]!.length;
  const r = measurements[0]![0]!.length;
  const cells = measurements.map((part) => part.map(mean));
  const grand = mean(cells.flat());
  const partSs = a * r * squares(cells.map(mean), grand);
  const appraiserMeans = Array.from({ length: a }, (_, j) => mean(cells.map((row) => row[j]!)));
  const appraiserSs = p * r * squares(appraiserMeans, grand);
  const cellSs = r * squares(cells.flat(), grand);
  const errorSs = measurements.reduce(
    (s, part, i) => s + part.reduce((t, cell, j) => t + squares(cell, cells[i]![j]!), 0),
    0,
  );
  const interactionSs = Math.max(0, cellSs - partSs - appraiserSs);
  const interactionDf = (p - 1) * (a - 1);
  const errorDf = p * a * (r - 1);
  const scale = Math.max(1e-300, partSs + appraiserSs + cellSs + errorSs) * 1e-14;
  const interactionMs = interactionSs / interactionDf;
  const errorMs = errorSs / errorDf;
  const pooled =
    errorSs <= scale
      ? interactionSs <= scale
      : fTail(interactionMs / errorMs, interactionDf, errorDf) > POOL_OVER;
  const pureMs = pooled ? (errorSs + interactionSs) / (errorDf + interactionDf) : errorMs;
  const againstMs = pooled ? pureMs : interactionMs;
  const variance = (v: number) => (v > scale ? v : 0);
  const repeatability = variance(pureMs);
  const interaction = pooled ? 0 : variance((interactionMs - errorMs) / r);
  const reproducibility = variance((appraiserSs / (a - 1) - againstMs) / (p * r));
  const part = variance((partSs / (p - 1) - againstMs) / (a * r));
  const gauge = repeatability + interaction + reproducibility;
  const total = gauge + part;
  return {
    repeatability: Math.sqrt(repeatability),
    reproducibility: Math.sqrt(reproducibility),
    interaction: Math.sqrt(interaction),
    gaugeRr: Math.sqrt(gauge),
    part: Math.sqrt(part),
    total: Math.sqrt(total),
    percentOfTotal: total === 0 ? 0 : 100 * Math.sqrt(gauge / total),
    distinctCategories:
      gauge === 0 ? null : Math.min(Number.MAX_SAFE_INTEGER, Math.floor(1.41 * Math.sqrt(part / gauge))),
    pooled,
    ...(band ? { percentOfBand: (100 * SPREAD * Math.sqrt(gauge)) / (band.maxMm - band.minMm) } : {}),
  };
}

/** `gauge-study`: whether a gauge and its users can tell parts apart. */
export const gaugeStudyCalculation = defineCalculation({
  name: 'gauge-study',
  title: 'Gauge study',
  summary:
    'Tells how much of the spread of readings is the gauge, how much the people and how much the parts.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'AIAG, Measurement Systems Analysis, crossed analysis of variance', mark: 'published' }],
  example: {
    measurements: [
      [
        [0.08, 0.081],
        [0.083, 0.082],
      ],
      [
        [0.11, 0.112],
        [0.111, 0.113],
      ],
      [
        [0.05, 0.049],
        [0.053, 0.052],
      ],
    ],
  },
  compute: gaugeStudy,
});
