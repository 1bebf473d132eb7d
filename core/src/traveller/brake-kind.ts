import type { BrakeKind } from '../brake/index.ts';
import { layerOf } from '../stack/index.ts';
import type { WheelEnd } from './job.ts';

/** The kinds of brake this wheel end can have, by its stack and axle, the usual one first; null where anyone says. */
export function brakeKindsOf({ plan, axle }: Pick<WheelEnd, 'plan' | 'axle'>): BrakeKind[] | null {
  const outer = layerOf(plan.stack, 'brake-outer');
  const inner = layerOf(plan.stack, 'brake-inner');
  const by = outer?.by ?? inner?.by;
  if (!by) return ['none'];
  if (by !== 'air') return ['hydraulic'];
  if (outer?.kind === 'disc') return ['air-disc'];
  return axle === 'steer' ? ['air-drum-steer', 'air-drum-steer-two-pads'] : ['air-drum'];
}
