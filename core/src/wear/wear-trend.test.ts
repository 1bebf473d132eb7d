import fc from 'fast-check';
import { linearRegression } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { rankedSlopes, type Point } from '../statistics/index.ts';
import { liningWear } from '../brake/index.ts';
import { wearTrend } from './index.ts';

describe('wearTrend', () => {
  it('is not bent by a wild reading (Sen 1968: median of slopes, worked by hand)', () => {
    const points = [0, 1, 2, 3, 4].map((x) => ({ x, y: 0.07 + 0.01 * x }));
    points[2] = { x: 2, y: 5 };
    const { slope, intercept, crossesAt, slopeLow, slopeHigh } = wearTrend({ points, limit: 0.13 });
    expect(slope).toBeCloseTo(0.01, 9);
    expect(intercept).toBeCloseTo(0.07, 9);
    expect(crossesAt).toBeCloseTo(6, 6);
    expect(slopeLow).toBeLessThanOrEqual(slope);
    expect(slopeHigh).toBeGreaterThanOrEqual(slope);
  });

  it('does not cross where it does not rise, and needs two places', () => {
    expect(
      wearTrend({
        points: [
          { x: 0, y: 1 },
          { x: 1, y: 1 },
        ],
        limit: 2,
      }).crossesAt,
    ).toBeNull();
    expect(() =>
      wearTrend({
        points: [
          { x: 1, y: 1 },
          { x: 1, y: 2 },
        ],
        limit: 2,
      }),
    ).toThrow(/two different x/);
  });

  it('counts the same slopes for long lists as listing them gives', () => {
    let seed = 7;
    const next = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    const points: Point[] = Array.from({ length: 1300 }, () => ({
      x: Math.floor(next() * 400),
      y: next() * 10,
    }));
    const slopes = points
      .flatMap((a, i) => points.slice(i + 1).flatMap((b) => (a.x === b.x ? [] : [(b.y - a.y) / (b.x - a.x)])))
      .sort((a, b) => a - b);
    const counted = rankedSlopes(points);
    expect(counted.count).toBe(slopes.length);
    for (const rank of [0, 1000, Math.floor(slopes.length / 2), slopes.length - 1])
      expect(counted.at(rank)).toBeCloseTo(slopes[rank]!, 9);
  });
});

describe('liningWear', () => {
  const readings = [
    { distanceKm: 400_000, thicknessMm: 16.1 },
    { distanceKm: 460_000, thicknessMm: 13.4 },
    { distanceKm: 520_000, thicknessMm: 10.9 },
  ];

  it('agrees with the least squares of another library (simple-statistics)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 0, max: 900_000 }), fc.double({ min: 1, max: 25, noNaN: true })),
          { minLength: 3, maxLength: 20 },
        ),
        (pairs) => {
          fc.pre(new Set(pairs.map(([x]) => x)).size > 1);
          const { m } = linearRegression(pairs);
          fc.pre(m < -1e-7);
          const result = liningWear({
            readings: pairs.map(([distanceKm, thicknessMm]) => ({ distanceKm, thicknessMm })),
            minimumMm: 5,
          });
          expect(result.wearMmPer1000Km! / (-m * 1000)).toBeCloseTo(1, 5);
        },
      ),
    );
  });

  it('meets the minimum of 6.4 mm for a drum that does not steer (49 CFR 393.47, value from memory)', () => {
    const { wearMmPer1000Km, atDistanceKm, remainingKm } = liningWear({ readings, minimumMm: 6.4 });
    expect(wearMmPer1000Km).toBeCloseTo(0.0433, 4);
    expect(atDistanceKm).toBeCloseTo(623_077, 0);
    expect(remainingKm).toBeCloseTo(103_077, 0);
  });

  it('has no answer where nothing wears', () => {
    const thicker = readings.map((r, i) => ({ ...r, thicknessMm: 10 + i }));
    expect(liningWear({ readings: thicker, minimumMm: 6.4 })).toEqual({
      wearMmPer1000Km: null,
      atDistanceKm: null,
      remainingKm: null,
    });
    expect(() => liningWear({ readings: [readings[0]!, readings[0]!], minimumMm: 5 })).toThrow(
      /two different/,
    );
  });
});
