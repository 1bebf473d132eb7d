import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

const inputSchema = z.object({
  studs: z.int().min(3).max(24),
  stages: z
    .array(z.number().positive().max(1))
    .min(1)
    .max(20)
    .refine((s) => s.at(-1) === 1, { message: 'must end in 1' })
    .refine((s) => s.every((f, i) => i === 0 || f >= (s[i - 1] ?? 0)), { message: 'must not fall' }),
  targetNm: z.number().nonnegative().max(1e6),
});
const outputSchema = z.object({
  passes: z.array(z.object({ torqueNm: z.number(), order: z.array(z.int()) })),
});

/** Studs between two on a circle of n, the shorter way. */
function apart(a: number, b: number, n: number): number {
  const d = Math.abs(a - b) % n;
  return Math.min(d, n - d);
}

/**
 * Order for an even number of studs: each stud is followed by its exact opposite. Of the pairs left, the
 * one whose first stud stands nearest a quarter turn from the stud just done comes next, never one
 * beside it (6 studs and up).
 */
function evenOrder(n: number): number[] {
  const half = n / 2;
  const opposite = (s: number) => ((s - 1 + half) % n) + 1;
  const least = n >= 6 ? 2 : 1;
  const extend = (order: number[]): number[] | null => {
    if (order.length === n) return order;
    const last = order.at(-1)!;
    const starts = Array.from({ length: n }, (_, i) => i + 1)
      .filter((s) => !order.includes(s) && apart(s, last, n) >= least)
      .sort((a, b) => Math.abs(apart(a, last, n) - n / 4) - Math.abs(apart(b, last, n) - n / 4) || a - b);
    for (const start of starts) {
      const whole = extend([...order, start, opposite(start)]);
      if (whole) return whole;
    }
    return null;
  };
  return extend([1, opposite(1)])!;
}

/** Order for an odd number of studs: a constant skip of (n − 1)/2 round the wheel, which meets every stud once. */
function oddOrder(n: number): number[] {
  const skip = (n - 1) / 2;
  return Array.from({ length: n }, (_, i) => ((i * skip) % n) + 1);
}

/**
 * The crossing pattern for a wheel, stage by stage, with one more pass at full torque at the end.
 * Studs are numbered round the wheel from 1.
 * @source common practice, no single source
 */
export function tighteningSequence({
  studs,
  stages,
  targetNm,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  const order = studs % 2 === 0 ? evenOrder(studs) : oddOrder(studs);
  return { passes: [...stages, 1].map((fraction) => ({ torqueNm: fraction * targetNm, order: [...order] })) };
}

/** `tightening-sequence`: the order of the studs and the torque of each pass. */
export const tighteningSequenceCalculation = defineCalculation({
  name: 'tightening-sequence',
  title: 'Tightening sequence',
  summary: 'Gives the crossing order of the wheel nuts and the torque of every pass.',
  inputSchema,
  outputSchema,
  sources: [{ text: 'Crossing pattern in stages, then all again', mark: 'common-practice' }],
  example: { studs: 10, stages: [0.5, 1], targetNm: 610 },
  compute: tighteningSequence,
});
