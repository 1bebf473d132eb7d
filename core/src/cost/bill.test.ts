import { describe, expect, it } from 'vitest';
import { billDifferences, billTotals, sayMoney, type Bill } from './index.ts';

const quoted: Bill = {
  currency: 'USD',
  lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 30_000 }],
  suppliesPercent: 0,
  tax: { percent: 0, on: [] },
};
const actual: Bill = {
  ...quoted,
  lines: [
    { group: 'labour', what: 'Hubs', per: 'hour', quantity: 7, unitMinor: 9000 },
    { group: 'parts', what: 'Seal', per: 'piece', quantity: 2, unitMinor: 7500 },
  ],
  tax: { percent: 9.0974, on: ['labour', 'parts'] },
};

describe('a bill', () => {
  it('two wheels quoted at 300 each come to 850.96, and the difference is told (common practice, no source)', () => {
    expect(billTotals(quoted).totalMinor).toBe(60_000);
    expect(billTotals(actual).totalMinor).toBe(85_096);
    const differences = billDifferences(quoted, actual);
    expect(differences).toEqual([
      { what: 'Hubs', quotedMinor: 60_000, actualMinor: 63_000 },
      { what: 'Seal', quotedMinor: 0, actualMinor: 15_000 },
      { what: 'Tax', quotedMinor: 0, actualMinor: 7096 },
    ]);
    expect(differences.reduce((s, d) => s + d.actualMinor - d.quotedMinor, 0)).toBe(85_096 - 60_000);
    expect(billDifferences(actual, actual)).toEqual([]);
  });

  it('is written with its coins', () => {
    expect(sayMoney(85_096, 'USD')).toBe('850.96 USD');
    expect(sayMoney(-123_456_705, 'EUR')).toBe('−1,234,567.05 EUR');
    expect(sayMoney(5, 'GBP')).toBe('0.05 GBP');
  });
});
