import fc from 'fast-check';
import { expect, it } from 'vitest';
import { formatMoney, toMinor, typedMoney } from './index.ts';

// Digits by ISO 4217, list one: 2 of EUR and USD, 0 of JPY, KRW and ISK, 3 of KWD and TND.
it.each([
  [63_516, 'EUR', '635.16 EUR'],
  [-5, 'USD', '−0.05 USD'],
  [123_456_789, 'GBP', '1,234,567.89 GBP'],
  [1_200, 'JPY', '1,200 JPY'],
  [1_200, 'KWD', '1.200 KWD'],
  [0, 'TND', '0.000 TND'],
])('%d of the smallest coin of %s is %s', (minor, currency, said) => {
  expect(formatMoney(minor, currency)).toBe(said);
});

it('what is typed comes back as it was typed', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e9 }), fc.constantFrom('EUR', 'JPY', 'KWD'), (minor, currency) => {
      expect(toMinor(Number(typedMoney(minor, currency)), currency)).toBe(minor);
    }),
  );
});
