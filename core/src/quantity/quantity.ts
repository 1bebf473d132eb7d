import { unitDefinition, type Unit } from './units.ts';

/** A value as it was typed, with the SI value beside it (m, N·m, kg, N, Pa, K, m³, s). */
export interface Quantity {
  value: number;
  unit: Unit;
  si: number;
}

/** SI value of `value` in `unit`. */
export function toSi(value: number, unit: Unit): number {
  const { factor, offset } = unitDefinition(unit);
  return value * factor + (offset ?? 0);
}

/** A quantity from what was typed. */
export function quantity(value: number, unit: Unit): Quantity {
  return { value, unit, si: toSi(value, unit) };
}

/**
 * Converts a value between two units of one dimension.
 * @throws RangeError when the dimensions differ, or a temperature is below absolute zero.
 * @see NIST SP 811
 * @example convert(0.005, 'in', 'mm') // 0.127
 */
export function convert(value: number, from: Unit, to: Unit): number {
  const source = unitDefinition(from);
  const target = unitDefinition(to);
  if (source.dimension !== target.dimension) {
    throw new RangeError(`${from} is a ${source.dimension}, ${to} is a ${target.dimension}`);
  }
  if (from === to) return value;
  return (toSi(value, from) - (target.offset ?? 0)) / target.factor;
}

/** The same quantity read in another unit of its dimension. */
export function valueIn(q: Pick<Quantity, 'value' | 'unit'>, unit: Unit): number {
  return convert(q.value, q.unit, unit);
}
