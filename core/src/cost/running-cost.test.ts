import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { billTotals, runningCosts, type Bill } from './index.ts';

const bill = (minor: number, currency = 'GBP'): Bill => ({
  ...{ currency, suppliesPercent: 0 },
  lines: [{ group: 'labour', what: 'Hubs', per: 'wheel', quantity: 1, unitMinor: minor }],
  taxes: [{ name: 'VAT', percent: 20, on: ['labour'] }],
});

describe('what a wheel end costs', () => {
  it('is its share of the bills over the distance, without taxes (worked by hand)', () => {
    // 300.00 for two wheel ends and 90.00 for one, over 60,000 km: 2L 240.00, 2R 150.00; by 10,000 km 40.00 and 25.00.
    const jobs = [
      { bill: bill(30_000), positions: ['2L', '2R'] },
      { bill: bill(9_000), positions: ['2L'] },
      { bill: bill(9_000, 'USD'), positions: ['2L'] },
    ];
    expect(runningCosts(jobs, 'GBP', 60_000)).toEqual({
      otherCurrency: 1,
      wheelEnds: [
        { position: '2L', jobs: 2, minor: 24_000, minorPer10000Km: 4_000 },
        { position: '2R', jobs: 1, minor: 15_000, minorPer10000Km: 2_500 },
      ],
    });
  });

  it('by distance is not told over a few kilometres, or over a distance nobody knows', () => {
    const jobs = [{ bill: bill(9_000), positions: ['2L'] }];
    for (const km of [null, 4_999])
      expect(runningCosts(jobs, 'GBP', km).wheelEnds).toMatchObject([
        { minor: 9_000, minorPer10000Km: null },
      ]);
    expect(runningCosts([], 'GBP', 60_000).wheelEnds).toEqual([]);
  });

  it('adds up to the bills, to a coin for each wheel end', () => {
    const job = fc.record({
      bill: fc.integer({ min: 1, max: 1_000_000 }).map((minor) => bill(minor)),
      positions: fc.subarray(['1L', '1R', '2L', '2R', '3L'], { minLength: 1 }),
    });
    fc.assert(
      fc.property(fc.array(job), (jobs) => {
        const { wheelEnds } = runningCosts(jobs, 'GBP', 100_000);
        const total = jobs.reduce((sum, j) => sum + billTotals(j.bill).netMinor, 0);
        const shared = wheelEnds.reduce((sum, w) => sum + w.minor, 0);
        expect(Math.abs(shared - total)).toBeLessThanOrEqual(wheelEnds.length);
      }),
    );
  });
});
