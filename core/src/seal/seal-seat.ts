import { z } from 'zod';
import { defineCalculation } from '../calculation/index.ts';

const place = z.number().min(-1000).max(1000);
const bandSchema = z
  .object({ startMm: place, endMm: place })
  .refine((b) => b.startMm < b.endMm, { message: 'must lie behind startMm', path: ['endMm'] });

const inputSchema = z.object({
  /** Sound journal, from the hub face inward. */
  journal: bandSchema,
  groove: bandSchema.optional(),
  /** Lips by their place from the seal's face, inward positive, and the least distance each keeps. */
  lips: z
    .array(z.object({ offsetMm: place, marginMm: z.number().nonnegative().max(1000) }))
    .min(1)
    .max(20),
  depth: z
    .object({ minMm: place, maxMm: place })
    .refine((d) => d.minMm <= d.maxMm, { message: 'must not be under minMm', path: ['maxMm'] }),
});
const rangeSchema = z.object({ fromMm: z.number(), toMm: z.number() });
const outputSchema = z.object({ ranges: z.array(rangeSchema), recommendedMm: z.number().nullable() });

type Range = z.output<typeof rangeSchema>;
const SLACK_MM = 1e-9;

/** What is left of ranges inside [from, to]; a range may shrink to a point. */
function within(ranges: readonly Range[], fromMm: number, toMm: number): Range[] {
  return ranges
    .map((r) => ({ fromMm: Math.max(r.fromMm, fromMm), toMm: Math.min(r.toMm, toMm) }))
    .filter((r) => r.fromMm <= r.toMm + SLACK_MM)
    .map((r) => ({ fromMm: r.fromMm, toMm: Math.max(r.fromMm, r.toMm) }));
}

/**
 * The depths at which a seal may be set so that every lip runs on sound journal: each lip, standing at
 * depth + offset, keeps its margin from both ends of the journal and from both edges of the groove.
 * Depths from the hub face in mm, inward positive.
 * @returns all allowed ranges, and the middle of the widest (null when there is none)
 * @source geometry; the rule of the clear lip: ISO 6194-1 and common practice
 */
export function sealSeat({
  journal,
  groove,
  lips,
  depth,
}: z.output<typeof inputSchema>): z.output<typeof outputSchema> {
  let ranges: Range[] = [{ fromMm: depth.minMm, toMm: depth.maxMm }];
  for (const { offsetMm, marginMm } of lips) {
    ranges = within(ranges, journal.startMm + marginMm - offsetMm, journal.endMm - marginMm - offsetMm);
    if (!groove) continue;
    const before = within(ranges, -Infinity, groove.startMm - marginMm - offsetMm);
    const behind = within(ranges, groove.endMm + marginMm - offsetMm, Infinity);
    ranges = [...before, ...behind];
  }
  ranges.sort((a, b) => a.fromMm - b.fromMm);
  const widest = ranges.reduce<Range | null>(
    (best, r) => (best && best.toMm - best.fromMm >= r.toMm - r.fromMm ? best : r),
    null,
  );
  return { ranges, recommendedMm: widest ? (widest.fromMm + widest.toMm) / 2 : null };
}

/** `seal-seat`: how deep to set a seal so that its lips miss the old groove. */
export const sealSeatCalculation = defineCalculation({
  name: 'seal-seat',
  title: 'Seal depth',
  summary: 'Finds the depths at which every lip runs on sound journal, clear of the old groove.',
  inputSchema,
  outputSchema,
  sources: [
    { text: 'ISO 6194-1, rotary shaft lip-type seals: the journal', mark: 'published' },
    { text: 'Lips clear of the old groove and of the end of the machined band', mark: 'common-practice' },
  ],
  example: {
    journal: { startMm: 3, endMm: 18 },
    groove: { startMm: 10.5, endMm: 11.5 },
    lips: [
      { offsetMm: 8, marginMm: 1 },
      { offsetMm: 3, marginMm: 1 },
    ],
    depth: { minMm: 0, maxMm: 9 },
  },
  compute: sealSeat,
});
