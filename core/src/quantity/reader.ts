import { formatQuantity, formatTyped, formatValue } from './format.ts';
import { convert, type Quantity } from './quantity.ts';
import type { ReaderUnits } from './reader-units.ts';
import { unitDefinition, type Unit } from './units.ts';

/** Who reads: somebody with units of their own, or nobody in particular, to whom a figure is said as it was written. */
export type Reader = ReaderUnits | null;

export const metricReader: ReaderUnits = {
  length: 'mm',
  thickness: 'mm',
  distance: 'km',
  torque: 'Nm',
  temperature: 'degC',
  volume: 'L',
};
/** What a shop has until it chooses: end play in thousandths, the rest as most of the trade's figures stand. */
export const usualReader: ReaderUnits = {
  length: 'in',
  thickness: 'mm',
  distance: 'km',
  torque: 'lbf-ft',
  temperature: 'degC',
  volume: 'L',
};
export const inchReader: ReaderUnits = {
  length: 'in',
  thickness: 'in',
  distance: 'mi',
  torque: 'lbf-ft',
  temperature: 'degF',
  volume: 'qt',
};

/** What each choice turns other units into; what is not named stays as it was written. */
const turns: Record<ReaderUnits[keyof ReaderUnits], Partial<Record<Unit, Unit>>> = {
  in: { mm: 'in', um: 'thou' },
  mm: { in: 'mm', thou: 'mm' },
  km: { mi: 'km' },
  mi: { km: 'mi' },
  Nm: { 'lbf-ft': 'Nm', 'lbf-in': 'Nm' },
  'lbf-ft': { Nm: 'lbf-ft' },
  degC: { degF: 'degC' },
  degF: { degC: 'degF' },
  L: { qt: 'L' },
  qt: { L: 'qt', mL: 'qt' },
};

/** Under this many N·m a torque in pounds is said in inch-pounds: 10 lbf·ft. */
const INCH_POUNDS_UNDER_NM = 13.56;
/** From here on a length is a thickness or a place and no play. */
const THICK_MM = 2;

const isThick = (q: Pick<Quantity, 'value' | 'unit'>) =>
  unitDefinition(q.unit).dimension === 'length' && Math.abs(convert(q.value, q.unit, 'mm')) >= THICK_MM;

/** The unit in which `reader` wants a quantity; its own where they have no wish about it. */
export function unitFor(q: Pick<Quantity, 'value' | 'unit'>, reader: Reader): Unit {
  if (!reader) return q.unit;
  const { length, thickness, ...others } = reader;
  const choices = [isThick(q) ? thickness : length, ...Object.values(others)];
  const unit = choices.flatMap((choice) => turns[choice][q.unit] ?? [])[0] ?? q.unit;
  return unit === 'lbf-ft' && q.unit === 'Nm' && q.value < INCH_POUNDS_UNDER_NM ? 'lbf-in' : unit;
}

/** A converted figure with no more digits than it can mean, without its unit. */
function convertedValue(q: Pick<Quantity, 'value' | 'unit'>, unit: Unit): string {
  const value = convert(q.value, q.unit, unit);
  if (unit === 'Nm' && Math.abs(value) < 20) return value.toFixed(1);
  return (unit === 'mm' || unit === 'in') && isThick(q)
    ? String(Number(value.toFixed(unit === 'mm' ? 2 : 3)))
    : formatValue(value, unit);
}

/**
 * A quantity in the units of whoever reads it: "379,804 mi" of 611,240 km. A figure that is in them already stands as
 * `formatQuantity` writes it; a thickness without noughts that nobody measured.
 * @param reader null: as it was written
 */
export function formatFor(q: Pick<Quantity, 'value' | 'unit'>, reader: Reader): string {
  const unit = unitFor(q, reader);
  return unit === q.unit && !(reader && isThick(q))
    ? formatQuantity(q)
    : `${convertedValue(q, unit)} ${unitDefinition(unit).label}`;
}

/** The same, for a figure that is said with every digit that was typed where it is in the reader's units already. */
export function formatTypedFor({ value, unit }: Pick<Quantity, 'value' | 'unit'>, reader: Reader): string {
  const own = unitFor({ value, unit }, reader) === unit;
  return own ? formatTyped({ value, unit }) : formatFor({ value, unit }, reader);
}

// prettier-ignore
const opposite = {
  in: 'mm', mm: 'in', km: 'mi', mi: 'km', Nm: 'lbf-ft', 'lbf-ft': 'Nm',
  degC: 'degF', degF: 'degC', L: 'qt', qt: 'L',
} as const;

/** The reader who has chosen the other unit of every quantity. */
export function otherReader(reader: ReaderUnits): ReaderUnits {
  const { length, thickness, distance, torque, temperature, volume } = reader;
  return {
    length: opposite[length],
    thickness: opposite[thickness],
    distance: opposite[distance],
    torque: opposite[torque],
    temperature: opposite[temperature],
    volume: opposite[volume],
  };
}

/** A quantity in the reader's unit with the other system beside it: "475 N·m (350 lbf·ft)". */
export function formatBoth(q: Pick<Quantity, 'value' | 'unit'>, reader: ReaderUnits): string {
  const [own, other] = [formatFor(q, reader), formatFor(q, otherReader(reader))];
  return own === other ? own : `${own} (${other})`;
}
