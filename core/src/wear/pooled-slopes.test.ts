import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pooledSlopes } from './index.ts';

/** Thirteen trials of BCG vaccine: cases and others, vaccinated and not. Colditz and others 1994. */
const trials = [
  [4, 119, 11, 128],
  [6, 300, 29, 274],
  [3, 228, 11, 209],
  [62, 13536, 248, 12619],
  [33, 5036, 47, 5761],
  [180, 1361, 372, 1079],
  [8, 2537, 10, 619],
  [505, 87886, 499, 87892],
  [29, 7470, 45, 7232],
  [17, 1699, 65, 1600],
  [186, 50448, 141, 27197],
  [5, 2493, 3, 2338],
  [27, 16886, 29, 17825],
] as const;

const logRatios = trials.map(([a, b, c, d]) => ({
  estimate: Math.log(a / (a + b) / (c / (c + d))),
  standardError: Math.sqrt(1 / a - 1 / (a + b) + 1 / c - 1 / (c + d)),
}));

describe('pooledSlopes', () => {
  it('finds the mean and the spread of the BCG trials (Colditz 1994; −0.7141, 0.1787 and variance 0.3088 from memory)', () => {
    const { mean, meanStandardError, betweenSd } = pooledSlopes(logRatios);
    expect(mean).toBeCloseTo(-0.7141, 4);
    expect(meanStandardError).toBeCloseTo(0.1787, 4);
    expect(betweenSd ** 2).toBeCloseTo(0.3088, 4);
  });

  const slope = fc.record({
    estimate: fc.double({ min: -5, max: 5, noNaN: true }),
    standardError: fc.double({ min: 0.01, max: 3, noNaN: true }),
  });

  it('draws every slope toward the mean and never past it, the less known the more', () => {
    fc.assert(
      fc.property(fc.array(slope, { minLength: 3, maxLength: 30 }), (slopes) => {
        const { mean, betweenSd, pooled } = pooledSlopes(slopes);
        pooled.forEach(({ estimate, standardError }, i) => {
          const own = slopes[i]!;
          expect(Math.abs(estimate - mean)).toBeLessThanOrEqual(Math.abs(own.estimate - mean) + 1e-9);
          expect((estimate - mean) * (own.estimate - mean)).toBeGreaterThanOrEqual(-1e-9);
          if (betweenSd === 0) expect(estimate).toBeCloseTo(mean, 9);
          expect(standardError).toBeGreaterThan(0);
        });
      }),
    );
  });

  it('takes the mean for all where they differ by chance alone', () => {
    const same = [0.4, 0.41, 0.39].map((estimate) => ({ estimate, standardError: 0.2 }));
    const { betweenSd, mean, meanStandardError, pooled } = pooledSlopes(same);
    expect(betweenSd).toBe(0);
    expect(mean).toBeCloseTo(0.4, 12);
    expect(meanStandardError).toBeCloseTo(0.2 / Math.sqrt(3), 12);
    expect(pooled.map((p) => p.estimate)).toEqual([mean, mean, mean]);
  });
});
