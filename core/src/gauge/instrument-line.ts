import { convert, parseQuantity, type Quantity, type Unit } from '../quantity/index.ts';

interface InstrumentKind {
  title: string;
  units: readonly Unit[];
  /** What it can read at all, in `unit`. */
  range: { min: number; max: number; unit: Unit };
}

/** Instruments that speak, by the letters their names begin with. */
export const instrumentKinds = {
  DI: {
    title: 'Dial indicator',
    units: ['in', 'mm', 'thou', 'um'],
    range: { min: -25, max: 25, unit: 'mm' },
  },
  TW: { title: 'Torque wrench', units: ['lbf-ft', 'Nm', 'lbf-in'], range: { min: 0, max: 5000, unit: 'Nm' } },
  HT: { title: 'Hub thermometer', units: ['degC', 'degF'], range: { min: -40, max: 400, unit: 'degC' } },
} as const satisfies Record<string, InstrumentKind>;
export type InstrumentLetters = keyof typeof instrumentKinds;

export type InstrumentLine =
  { ok: true; id: string; letters: InstrumentLetters; quantity: Quantity } | { ok: false; reason: string };

const LONGEST_LINE = 80;
const shape = /^([A-Z]{2})-(\d{1,4})\s+(\S.*)$/;

/**
 * Reads one line of an instrument: its name, a figure and its unit, as in `DI-04 0.0031 in`.
 * @returns the reading, or in words what is wrong with the line
 * @example readInstrumentLine('TW-03 271 Nm') // { ok: true, id: 'TW-03', letters: 'TW', quantity: … }
 */
export function readInstrumentLine(text: string): InstrumentLine {
  const refused = (reason: string): InstrumentLine => ({ ok: false, reason });
  if (text.length > LONGEST_LINE) return refused('The line is too long for an instrument');
  const found = shape.exec(text.trim());
  if (!found) return refused('The line is not an instrument’s: name, figure, unit');
  const [, letters = '', number, rest = ''] = found;
  if (!(letters in instrumentKinds)) return refused(`There is no kind of instrument ${letters}`);
  const kind: InstrumentKind = instrumentKinds[letters as InstrumentLetters];
  const id = `${letters}-${number}`;
  const read = parseQuantity(rest, kind.units);
  if (!read.ok) return refused(`${id}: ${read.message}`);
  const { min, max, unit } = kind.range;
  const value = convert(read.quantity.value, read.quantity.unit, unit);
  if (value < min || value > max)
    return refused(`${id}: ${rest} is out of a ${kind.title.toLowerCase()}’s range`);
  return { ok: true, id, letters: letters as InstrumentLetters, quantity: read.quantity };
}
