import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseNumber, typedNumber } from './index.ts';

describe('a bare number', () => {
  it.each([
    ['1250', 1250],
    ['1,250.00', 1250],
    ['1.250,00', 1250],
    ['0,5', 0.5],
    ['12,50', 12.5],
    ['12.5', 12.5],
    ['1 250', 1250],
    ['1,250,000', 1_250_000],
    ['0,125', 0.125],
    ['3/16', 0.1875],
    [' -2 ', -2],
  ])('%s is read as it is meant, of money too', (text, value) => {
    expect(parseNumber(text)).toEqual({ ok: true, value });
    expect(parseNumber(text, 'money')).toEqual({ ok: true, value });
  });

  it('that could be two is refused with both', () => {
    const message = '"1,250" could be 1.25 or 1250: type the one you mean';
    expect(parseNumber('1,250')).toEqual({ ok: false, message });
    expect(parseNumber('1,250', 'money')).toEqual({ ok: false, message });
    // A point before three digits is of decimals in a measure, and of either in an amount.
    expect(parseNumber('1.250')).toEqual({ ok: true, value: 1.25 });
    expect(parseNumber('1.250', 'money')).toMatchObject({ ok: false });
    expect(typedNumber('1,250')).toBeNaN();
  });

  it('that is none says so', () => {
    expect(parseNumber('')).toEqual({ ok: false, message: 'Type a figure' });
    expect(parseNumber('twelve')).toEqual({ ok: false, message: '"twelve" is not a figure' });
    expect(typedNumber('  ')).toBeNaN();
  });

  it('an amount as this program prints it is read back, or asked about, and never read as another', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1_000_000_000 }), (cents) => {
        const printed = (cents / 100).toLocaleString('en', { minimumFractionDigits: 2 });
        expect(parseNumber(printed, 'money')).toEqual({ ok: true, value: cents / 100 });
        const whole = Math.floor(cents / 100).toLocaleString('en');
        const read = parseNumber(whole, 'money');
        if (read.ok) expect(read.value).toBe(Math.floor(cents / 100));
      }),
    );
  });
});
