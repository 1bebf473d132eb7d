import { toMinor } from '@lanternwright/core/cost';
import type { Price } from '@lanternwright/core/part';
import { parseNumber } from '@lanternwright/core/quantity';

/** A price as it was typed, or what is wrong with it; null where nothing was typed. */
export function typedPrice(
  text: string,
  currency: string,
): { ok: true; price: Price } | { ok: false; message: string } | null {
  if (text.trim() === '') return null;
  const read = parseNumber(text, 'money');
  if (!read.ok) return read;
  return read.value < 0
    ? { ok: false, message: `An amount in ${currency}` }
    : { ok: true, price: { currency, minor: toMinor(read.value, currency) } };
}
