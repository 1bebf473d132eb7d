import { quantity, type Quantity } from './quantity.ts';
import { unitCodes, unitDefinition, type Unit } from './units.ts';

export type Parsed = { ok: true; quantity: Quantity } | { ok: false; message: string };

const NUMBER = /^([+-]?(?:\d[\d.,]*|[.,]\d+))\s*(.*)$/u;
const THOUSANDS = /^[+-]?\d{1,3}(,\d{3})+(\.\d+)?$/;

/**
 * Reads what a person types for a quantity: "0.004 in", "4 thou", "0.10mm", "0,10 mm", "200 lb-ft",
 * "611,240 km". A comma is a decimal comma, but groups of three are thousands where the unit is one
 * of distance, which is never read to a thousandth.
 *
 * @param allowed units that make sense here
 * @param assumed unit of a bare number; without it a unit must be typed
 */
export function parseQuantity(text: string, allowed: readonly Unit[], assumed?: Unit): Parsed {
  const trimmed = text.trim().replace(/\u2212/g, '-');
  if (trimmed === '') return { ok: false, message: 'Type a figure' };
  const match = NUMBER.exec(trimmed);
  if (!match) return { ok: false, message: `"${text}" is not a figure` };
  const [, digits = '', suffix = ''] = match;
  const unit = suffix === '' ? assumed : unitFrom(suffix, allowed);
  if (!unit) {
    const list = allowed.map((u) => unitDefinition(u).label).join(', ');
    return {
      ok: false,
      message: suffix === '' ? `Add a unit: ${list}` : `"${suffix}" is not one of ${list}`,
    };
  }
  const value = numberFrom(digits, unit === 'km' || unit === 'mi' || unit === 'h');
  if (value === null) return { ok: false, message: `"${digits}" is not a figure` };
  return { ok: true, quantity: quantity(value, unit) };
}

function unitFrom(suffix: string, allowed: readonly Unit[]): Unit | undefined {
  const exact = unitCodes.find((u) => u === suffix && allowed.includes(u));
  if (exact) return exact;
  const lower = suffix.toLowerCase();
  return allowed.find((u) => unitDefinition(u).spellings.includes(lower));
}

function numberFrom(digits: string, thousands: boolean): number | null {
  const plain = thousands && THOUSANDS.test(digits) ? digits.replaceAll(',', '') : digits.replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return null;
  const value = Number(plain);
  return Number.isFinite(value) ? value : null;
}
