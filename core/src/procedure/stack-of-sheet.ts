import { usualStack, type BuiltAxle, type Layer, type Stack } from '../stack/index.ts';
import type { Sheet } from './sheet.ts';

/**
 * How a wheel end with this sheet is built on such an axle: as the sheet holds it, or as its construction usually is,
 * running in what the sheet names. One lubricant per place: the sheet's.
 * @returns null where neither says
 */
export function stackOfSheet(
  { stack, procedureId, lubricant }: Pick<Sheet, 'stack' | 'procedureId' | 'lubricant'>,
  axle: BuiltAxle,
): Stack | null {
  if (stack) return stack;
  const usual = usualStack(procedureId, axle);
  return usual?.map((l): Layer => (l.layer === 'hub' ? { ...l, fill: lubricant.kind } : l)) ?? null;
}
