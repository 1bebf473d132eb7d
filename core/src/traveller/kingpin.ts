import type { WheelEnd } from './job.ts';

/** Constructions that stand behind a steered hub whatever the axle plan says. */
const steered: ReadonlySet<string> = new Set(['K', 'L']);

/** Whether a wheel end turns about a kingpin or swivel; an old job that does not know its axle is asked as well. */
export function hasKingpin({ axle, sheet }: Pick<WheelEnd, 'axle' | 'sheet'>): boolean {
  return axle === null || axle === 'steer' || steered.has(sheet.family);
}
