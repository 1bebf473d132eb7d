import { z } from 'zod';
import { BadInput, defineCalculation, LONGEST } from '../calculation/index.ts';
import { chiSquareTail } from '../statistics/index.ts';

const groupSchema = z.object({
  id: z.string().trim().min(1).max(80),
  units: z
    .array(
      z.object({
        time: z.number().positive().max(1e9),
        failed: z.boolean(),
        stratum: z.string().max(80).optional(),
      }),
    )
    .min(1)
    .max(LONGEST),
});
const inputSchema = z.object({ groups: z.array(groupSchema).min(2, 'needs two groups or more').max(50) });
const outputSchema = z.object({
  chiSquare: z.number(),
  degreesOfFreedom: z.int(),
  pValue: z.number(),
  groups: z.array(z.object({ id: z.string(), observed: z.int(), expected: z.number() })),
});

interface Unit {
  group: number;
  time: number;
  failed: boolean;
}

/** A direction with less than this part of the largest variance says nothing. */
const NOTHING = 1e-10;

/**
 * x·V⁻¹·x over the directions in which V says something, and how many those are: V is made triangular with the largest
 * variance left first.
 * @param v symmetric, none of its variances negative; is changed
 */
function quadraticForm(x: Float64Array, v: Float64Array[]): { value: number; rank: number } {
  const left = new Set(x.keys());
  const largest = Math.max(...v.map((row, i) => row[i]!));
  let value = 0;
  let rank = 0;
  for (;;) {
    const pivot = [...left].reduce((best, i) => (best < 0 || v[i]![i]! > v[best]![best]! ? i : best), -1);
    if (pivot < 0 || v[pivot]![pivot]! <= NOTHING * largest) return { value, rank };
    left.delete(pivot);
    const variance = v[pivot]![pivot]!;
    value += x[pivot]! ** 2 / variance;
    rank += 1;
    for (const i of left) {
      const share = v[i]![pivot]! / variance;
      x[i]! -= share * x[pivot]!;
      for (const j of left) v[i]![j]! -= share * v[pivot]![j]!;
    }
  }
}

/** Adds what one stratum has failed and was expected to, and the covariance of the difference. */
function addStratum(
  units: readonly Unit[],
  into: { observed: Float64Array; expected: Float64Array; covariance: Float64Array[] },
): void {
  const sorted = [...units].sort((a, b) => a.time - b.time);
  const groups = into.observed.length;
  const atRisk = new Float64Array(groups);
  for (const { group } of sorted) atRisk[group]! += 1;
  for (let i = 0; i < sorted.length;) {
    const { time } = sorted[i]!;
    const n = sorted.length - i;
    const before = Float64Array.from(atRisk);
    let failures = 0;
    for (; i < sorted.length && sorted[i]!.time === time; i++) {
      const { group, failed } = sorted[i]!;
      atRisk[group]! -= 1;
      if (!failed) continue;
      failures += 1;
      into.observed[group]! += 1;
    }
    if (failures === 0) continue;
    for (let g = 0; g < groups; g++) into.expected[g]! += (failures * before[g]!) / n;
    if (n === 1) continue;
    const spread = (failures * (n - failures)) / (n - 1) / n ** 2;
    for (let g = 0; g < groups; g++)
      for (let h = 0; h < groups; h++)
        into.covariance[g]![h]! += spread * before[g]! * ((g === h ? n : 0) - before[h]!);
  }
}

/**
 * Whether groups of units live equally long: at each failure, how many of each group were expected to fail by how many of
 * it were at risk, within strata where units have one. With the hypergeometric covariance; a unit still running at a
 * failure time counts as at risk then.
 * @param groups two or more
 * @returns degrees of freedom: groups less one, less those never at risk beside another at a failure; with none left
 *   nothing can be told: chi-square 0, p 1
 * @source Mantel 1966; Peto and Peto 1972; Kalbfleisch and Prentice, The Statistical Analysis of Failure Time Data
 * @throws BadInput without a failure, or where two groups have one id
 */
export function logRank({ groups }: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  groups.forEach(({ id }, i) => {
    if (groups.findIndex((g) => g.id === id) < i)
      throw new BadInput('is the id of an earlier group', `groups.${i}.id`);
  });
  const strata = new Map<string | undefined, Unit[]>();
  groups.forEach(({ units }, group) => {
    for (const { time, failed, stratum } of units) {
      const list = strata.get(stratum) ?? [];
      list.push({ group, time, failed });
      strata.set(stratum, list);
    }
  });
  const k = groups.length;
  const sums = {
    observed: new Float64Array(k),
    expected: new Float64Array(k),
    covariance: Array.from({ length: k }, () => new Float64Array(k)),
  };
  for (const units of strata.values()) addStratum(units, sums);
  const { observed, expected, covariance } = sums;
  if (observed.every((o) => o === 0)) throw new BadInput('need one failure or more', 'groups');
  const result = groups.map(({ id }, g) => ({ id, observed: observed[g]!, expected: expected[g]! }));
  const { value, rank } = quadraticForm(
    observed.map((o, g) => o - expected[g]!),
    covariance,
  );
  return {
    chiSquare: value,
    degreesOfFreedom: rank,
    pValue: rank === 0 ? 1 : chiSquareTail(value, rank),
    groups: result,
  };
}

/** `log-rank`: whether one kind of part lasts longer than another. */
export const logRankCalculation = defineCalculation({
  name: 'log-rank',
  title: 'Log-rank test',
  summary: 'Tells whether groups of parts last equally long, or one of them longer than chance explains.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Mantel 1966; Peto and Peto 1972', mark: 'published' }],
  example: {
    groups: [
      {
        id: 'Seals of lot A',
        units: [
          { time: 90, failed: true },
          { time: 140, failed: true },
          { time: 150, failed: false },
        ],
      },
      {
        id: 'Seals of lot B',
        units: [
          { time: 180, failed: true },
          { time: 260, failed: false },
          { time: 310, failed: true },
        ],
      },
    ],
  },
  compute: logRank,
});
