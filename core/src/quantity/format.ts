import { convert, type Quantity } from './quantity.ts';
import { unitDefinition, type Unit } from './units.ts';

/** Usual digits after the point, by unit (shop practice: 0.0001 in, 0.001 mm, 1 lbf·ft, 1 km). */
const usualDigits: Partial<Record<Unit, number>> = {
  in: 4,
  mm: 3,
  thou: 1,
  um: 0,
  km: 0,
  mi: 0,
  Nm: 0,
  'lbf-ft': 0,
  'lbf-in': 0,
  h: 0,
  g: 0,
  mL: 0,
  degC: 0,
  degF: 0,
};

/** A figure in its unit's usual digits, without the unit; distances and hours with thousands. */
export function formatValue(value: number, unit: Unit): string {
  const digits = usualDigits[unit] ?? 2;
  const fixed = value.toFixed(digits);
  const text = Number(fixed) === 0 ? (0).toFixed(digits) : fixed;
  if (unit !== 'km' && unit !== 'mi' && unit !== 'h') return text;
  return text.replace(/\B(?=(\d{3})+$)/g, ',');
}

/** A quantity in words, in its own unit or in another: "0.0040 in", "611,240 km". */
export function formatQuantity(q: Pick<Quantity, 'value' | 'unit'>, unit: Unit = q.unit): string {
  return `${formatValue(convert(q.value, q.unit, unit), unit)} ${unitDefinition(unit).label}`;
}

/** A quantity with every digit that was typed and none added: "8.5 thou", "450 lbf·ft". */
export function formatTyped({ value, unit }: Pick<Quantity, 'value' | 'unit'>): string {
  return `${value} ${unitDefinition(unit).label}`;
}
