import type { StepData } from '../procedure/index.ts';

type Sensor = Extract<StepData, { kind: 'sensor' }>;

/** Least that a passive sensor gives while the wheel is turned by hand, V. Value from memory: about one turn in two seconds. */
const LEAST_OUTPUT_V = 0.1;
/** Two sides that differ by more than this are not alike: one reads twice the other. Value from memory. */
const MOST_RATIO = 2;

/**
 * How the output of a wheel-speed sensor stands: `low` under what the brake control reads, `unlike` the other side;
 * null where nothing was measured.
 */
export function sensorState({ here, other }: Sensor): 'fine' | 'low' | 'unlike' | null {
  if (!here) return null;
  if (here.si < LEAST_OUTPUT_V) return 'low';
  if (!other) return 'fine';
  const [less, more] = [Math.min(here.si, other.si), Math.max(here.si, other.si)];
  return more > less * MOST_RATIO ? 'unlike' : 'fine';
}
