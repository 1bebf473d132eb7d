import type { TorqueKey } from '../procedure/index.ts';
import { refusal, type Refusal } from './refusal.ts';

/**
 * Between what the figure of a torque lies on any wheel end that this program knows, N·m. A figure outside is a slip of
 * the pen or of the unit.
 * @source values from memory, wide on purpose: light trailers to heavy trucks and work machines
 */
const bounds: Readonly<Record<TorqueKey, readonly [least: number, most: number]>> = {
  seatTorque: [5, 500],
  setTorque: [5, 800],
  jamTorque: [30, 800],
  wheelTorque: [40, 1_200],
  studPilotedTorque: [40, 1_200],
  nutTorque: [10, 1_200],
  boltTorque: [3, 700],
  flangeTorque: [8, 500],
  caliperTorque: [15, 700],
  bracketTorque: [20, 900],
  spindleTorque: [15, 600],
  capTorque: [10, 700],
  jointTorque: [15, 700],
  coverTorque: [8, 250],
};

/** Why a maker's figure cannot be meant, or null. @param nm as it was read */
export function whyNotFigure(key: TorqueKey, nm: number): Refusal | null {
  const [least, most] = bounds[key];
  return nm >= least && nm <= most ? null : refusal('figure-out-of-bounds', { least, most });
}

/** Reached by hand and tool: beyond this much of the highest figure it was misread. */
const MOST_OVER = 1.25;

/** Why a torque cannot have been reached, or null. */
export function whyNotReached(key: TorqueKey, nm: number): Refusal | null {
  if (nm <= 0) return refusal('torque-not-over-zero');
  return nm <= bounds[key][1] * MOST_OVER ? null : refusal('torque-not-possible');
}
