import type { HeatFigure, StepData } from '../procedure/index.ts';

/**
 * How much warmer than the air, and than the other side, a hub may be after the road, where the sheet has no limits.
 * @source rule of this product, no source
 */
export const HEAT_LIMITS: Omit<HeatFigure, 'mark' | 'source'> = {
  lookOverAirK: 65,
  lookOverOtherK: 25,
  notReleasedOverAirK: 95,
};

export type HeatVerdict = 'fine' | 'look-again' | 'not-released';

/**
 * What the heat of a hub after the road means, held against the air and the other side at the same place. Brake drag
 * warms a hub as well as a tight bearing. Without the air's temperature only the other side counts.
 * @param limits of the sheet; null for the product's own
 */
export function hubHeat(
  { here, other, air }: Pick<Extract<StepData, { kind: 'heat' }>, 'here' | 'other' | 'air'>,
  limits: typeof HEAT_LIMITS | null,
): { verdict: HeatVerdict; overAirK: number | null; overOtherK: number } {
  const { lookOverAirK, lookOverOtherK, notReleasedOverAirK } = limits ?? HEAT_LIMITS;
  const overAirK = air ? here.si - air.si : null;
  const overOtherK = here.si - other.si;
  const over = (limit: number) => overAirK !== null && overAirK > limit;
  const verdict = over(notReleasedOverAirK)
    ? 'not-released'
    : over(lookOverAirK) || overOtherK > lookOverOtherK
      ? 'look-again'
      : 'fine';
  return { verdict, overAirK, overOtherK };
}
