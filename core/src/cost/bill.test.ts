import { describe, expect, it } from 'vitest';
import { billDifferences, billSchema, billTotals, formatMoney, type Bill } from './index.ts';

const quoted: Bill = {
  currency: 'USD',
  lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 2, unitMinor: 21_500 }],
  suppliesPercent: 0,
  taxes: [],
};
const actual: Bill = {
  ...quoted,
  lines: [
    { group: 'labour', what: 'Hubs', per: 'hour', quantity: 5.5, unitMinor: 8460 },
    { group: 'parts', what: 'Seal', per: 'piece', quantity: 3, unitMinor: 4185 },
  ],
  taxes: [{ name: 'Sales tax', percent: 7.5, on: ['labour', 'parts'] }],
};

describe('a bill', () => {
  it('two wheels quoted at 215 each come to 635.16, and the difference is told (worked by hand)', () => {
    expect(billTotals(quoted).totalMinor).toBe(43_000);
    expect(billTotals(actual).totalMinor).toBe(63_516);
    const differences = billDifferences(quoted, actual);
    expect(differences).toEqual([
      { what: 'Hubs', quotedMinor: 43_000, actualMinor: 46_530 },
      { what: 'Seal', quotedMinor: 0, actualMinor: 12_555 },
      { what: 'Sales tax', quotedMinor: 0, actualMinor: 4431 },
    ]);
    expect(differences.reduce((s, d) => s + d.actualMinor - d.quotedMinor, 0)).toBe(63_516 - 43_000);
    expect(billDifferences(actual, actual)).toEqual([]);
  });

  it('is taxed by kind of line, each tax rounded by itself (worked by hand: 465.30, 125.55, 23.27 of supplies)', () => {
    const totals = billTotals({
      ...actual,
      suppliesPercent: 5,
      taxes: [
        { name: 'On work', percent: 20, on: ['labour', 'supplies'] },
        { name: 'On goods', percent: 7.5, on: ['parts'] },
      ],
    });
    // 488.57 × 0.2 = 97.714; 125.55 × 0.075 = 9.41625.
    expect(totals.taxes.map((t) => t.minor)).toEqual([9771, 942]);
    expect(totals).toMatchObject({
      suppliesMinor: 2327,
      netMinor: 61_412,
      taxMinor: 10_713,
      totalMinor: 72_125,
    });
  });

  it('of before there were several taxes has its one; a tax says what it is called and what it falls on', () => {
    const { taxes, ...rest } = actual;
    const { percent, on } = taxes[0]!;
    expect(billSchema.parse({ ...rest, tax: { percent, on } }).taxes).toEqual([{ name: 'Tax', percent, on }]);
    expect(billSchema.parse({ ...rest, tax: { percent: 0, on: [] } }).taxes).toEqual([]);
    expect(billSchema.parse(billSchema.parse(actual))).toEqual(actual);
    for (const tax of [
      { name: ' ', percent, on },
      { name: 'VAT', percent, on: [] },
    ])
      expect(billSchema.safeParse({ ...rest, taxes: [tax] }).success).toBe(false);
  });

  it('is written with its coins', () => {
    expect(formatMoney(63_516, 'USD')).toBe('635.16 USD');
    expect(formatMoney(-123_456_705, 'EUR')).toBe('−1,234,567.05 EUR');
    expect(formatMoney(5, 'GBP')).toBe('0.05 GBP');
  });
});
