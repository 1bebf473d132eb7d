import type { StepData } from '../procedure/index.ts';

/** How much warmer than the air, and than the other side, a hub may be after the road, K. Rules of this product. */
const LOOK_OVER_AIR_K = 65;
const LOOK_OVER_OTHER_K = 25;
const NOT_RELEASED_OVER_AIR_K = 95;

export type HeatVerdict = 'fine' | 'look-again' | 'not-released';

/**
 * What the heat of a hub after the road means, held against the air and the other side at the same place. Brake drag
 * warms a hub as well as a tight bearing. Without the air's temperature only the other side counts.
 * @source rule of this product, no source
 */
export function hubHeat({
  here,
  other,
  air,
}: Pick<Extract<StepData, { kind: 'heat' }>, 'here' | 'other' | 'air'>): {
  verdict: HeatVerdict;
  overAirK: number | null;
  overOtherK: number;
} {
  const overAirK = air ? here.si - air.si : null;
  const overOtherK = here.si - other.si;
  const over = (limit: number) => overAirK !== null && overAirK > limit;
  const verdict = over(NOT_RELEASED_OVER_AIR_K)
    ? 'not-released'
    : over(LOOK_OVER_AIR_K) || overOtherK > LOOK_OVER_OTHER_K
      ? 'look-again'
      : 'fine';
  return { verdict, overAirK, overOtherK };
}
