import { z } from 'zod';

/**
 * How a nut can be locked.
 * - castellated: `slots` round the nut, a pin through one of the spindle's cross-holes; the axes'
 *   angles are measured in the direction that tightens.
 * - indexed: a washer or lock ring that fits in `positionsPerTurn` places, twice as many if it can
 *   be turned over.
 * - stepless: any angle.
 */
export const lockSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('castellated'),
    slots: z.int().min(1).max(72),
    holeAxesDeg: z.array(z.number().min(-360).max(360)).min(1).max(12),
  }),
  z.object({
    kind: z.literal('indexed'),
    positionsPerTurn: z.int().min(1).max(720),
    reversible: z.boolean(),
  }),
  z.object({ kind: z.literal('stepless') }),
]);
export type Lock = z.infer<typeof lockSchema>;

const SAME_DEG = 1e-9;

/**
 * Every lock position within half a turn either way of the one in which the nut stands now, as turns
 * (positive tightens), sorted; 0 is among them. A stepless lock has none of its own.
 *
 * A nut with n slots repeats every 360/n degrees for one hole; a further hole adds the positions
 * shifted by its angle (6 slots and holes at 0° and 90°: every 30°).
 *
 * @source geometry
 */
export function lockPositions(lock: Lock): number[] {
  if (lock.kind === 'stepless') return [];
  const shiftsDeg =
    lock.kind === 'castellated'
      ? lock.holeAxesDeg.map((axis) => axis - (lock.holeAxesDeg[0] ?? 0))
      : lock.reversible
        ? [0, 180 / lock.positionsPerTurn]
        : [0];
  const stepDeg = 360 / (lock.kind === 'castellated' ? lock.slots : lock.positionsPerTurn);
  const angles: number[] = [];
  for (const shift of shiftsDeg) {
    const first = shift - Math.floor((shift + 180 + SAME_DEG) / stepDeg) * stepDeg;
    const count = Math.floor((180 + SAME_DEG - first) / stepDeg);
    for (let k = 0; k <= count; k++) angles.push(first + k * stepDeg);
  }
  return angles
    .sort((a, b) => a - b)
    .filter((a, i) => i === 0 || a - (angles[i - 1] ?? 0) > SAME_DEG)
    .map((a) => (Math.abs(a) < SAME_DEG ? 0 : a / 360));
}
