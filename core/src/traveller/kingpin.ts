import { layerOf } from '../stack/index.ts';
import type { WheelEnd } from './job.ts';

/** Constructions that stand behind a steered hub whatever the axle plan says. */
const steered: ReadonlySet<string> = new Set(['K', 'L']);

/**
 * Whether a wheel end turns about a kingpin or swivel: by its stack, or where it steers; an old job that does not know
 * its axle is asked as well.
 */
export function hasKingpin({ axle, sheet, plan }: Pick<WheelEnd, 'axle' | 'sheet' | 'plan'>): boolean {
  if (layerOf(plan.stack, 'knuckle') || layerOf(plan.stack, 'spindle')) return true;
  return axle === null || axle === 'steer' || steered.has(sheet.family);
}
