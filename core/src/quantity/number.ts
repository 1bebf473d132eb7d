import { readFigure } from './figure.ts';

/** A bare number as it was read, or why it was not. */
export type ReadNumber = { ok: true; value: number } | { ok: false; message: string };

/**
 * Reads a bare number that a person typed: "1250", "1,250.00", "0,5", "3/16". A comma before three digits may be of
 * decimals or of thousands, and so may a point in an amount of money: both are refused with what they could be.
 * @param of money, which never has three decimals on purpose; or any other number
 */
export function parseNumber(text: string, of: 'money' | 'other' = 'other'): ReadNumber {
  const typed = text.trim();
  const read = readFigure(typed);
  if (read === null)
    return { ok: false, message: typed === '' ? 'Type a figure' : `"${typed}" is not a figure` };
  const [decimals, thousands] = read;
  if (thousands === undefined || (of === 'other' && typed.includes('.')))
    return { ok: true, value: decimals };
  return {
    ok: false,
    message: `"${typed}" could be ${decimals} or ${thousands}: type the one you mean`,
  };
}

/** A bare number as it was typed; NaN where it is none, or could be two. */
export function typedNumber(text: string, of: 'money' | 'other' = 'other'): number {
  const read = parseNumber(text, of);
  return read.ok ? read.value : NaN;
}
