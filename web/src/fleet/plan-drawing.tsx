import { numbered, positionsOf, type Layout } from '@lanternwright/core/axle-plan';
import { AxlePlan } from '../ui/axle-plan.tsx';

/** A common axle plan, nothing on it measured. */
export function PlanDrawing({ plan }: { plan: Layout }) {
  const axles = numbered(plan.axles);
  return (
    <AxlePlan
      axles={axles}
      wheelEnds={positionsOf(axles).map((position) => ({ position, state: 'not-measured' }))}
      label={plan.title}
    />
  );
}
