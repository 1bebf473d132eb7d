import { describe, expect, it } from 'vitest';
import { billDifferences, billTotals, formatMoney, type Bill } from './index.ts';

const quoted: Bill = {
  currency: 'USD',
  lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 }],
  suppliesPercent: 0,
  tax: { percent: 0, on: [] },
};
const actual: Bill = {
  ...quoted,
  lines: [
    { group: 'labour', what: 'Hubs', per: 'hour', quantity: 5.5, unitMinor: 8460 },
    { group: 'parts', what: 'Seal', per: 'piece', quantity: 3, unitMinor: 4185 },
  ],
  tax: { percent: 7.5, on: ['labour', 'parts'] },
};

describe('a bill', () => {
  it('two wheels quoted at 215 each come to 635.16, and the difference is told (worked by hand)', () => {
    expect(billTotals(quoted).totalMinor).toBe(43_000);
    expect(billTotals(actual).totalMinor).toBe(63_516);
    const differences = billDifferences(quoted, actual);
    expect(differences).toEqual([
      { what: 'Hubs', quotedMinor: 43_000, actualMinor: 46_530 },
      { what: 'Seal', quotedMinor: 0, actualMinor: 12_555 },
      { what: 'Tax', quotedMinor: 0, actualMinor: 4431 },
    ]);
    expect(differences.reduce((s, d) => s + d.actualMinor - d.quotedMinor, 0)).toBe(63_516 - 43_000);
    expect(billDifferences(actual, actual)).toEqual([]);
  });

  it('is written with its coins', () => {
    expect(formatMoney(63_516, 'USD')).toBe('635.16 USD');
    expect(formatMoney(-123_456_705, 'EUR')).toBe('−1,234,567.05 EUR');
    expect(formatMoney(5, 'GBP')).toBe('0.05 GBP');
  });
});
