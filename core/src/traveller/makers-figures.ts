import type { TorqueFigure, TorqueKey } from '../procedure/index.ts';
import type { WheelEnd } from './job.ts';
import { progressOf } from './progress.ts';

/**
 * Figures that were read off the maker's sheet because the shop's had none. With the release, seen and signed, they
 * become the shop's own for this axle, so that nobody is asked twice.
 */
export function makersFigures(w: WheelEnd): Partial<Record<TorqueKey, TorqueFigure>> {
  const figures: Partial<Record<TorqueKey, TorqueFigure>> = {};
  for (const { step, record } of progressOf(w)) {
    if (step.kind !== 'torque' || record?.data?.kind !== 'torque') continue;
    const { asked } = record.data;
    if (!asked || w.sheet[step.figure] !== null) continue;
    const source = `Maker’s figure, read by ${record.by.name}`;
    figures[step.figure] = { min: asked, max: asked, mark: 'shop', source };
  }
  return figures;
}
