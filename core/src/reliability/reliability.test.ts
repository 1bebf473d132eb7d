import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitWeibull, replacementAge, survivalCurve } from './index.ts';

/** Lives of 23 ball bearings in millions of turns: Lieblein and Zelen 1956. */
const bearings = [
  17.88, 28.92, 33.0, 41.52, 42.12, 45.6, 48.48, 51.84, 51.96, 54.12, 55.56, 67.8, 68.64, 68.64, 68.88, 84.12,
  93.12, 98.64, 105.12, 105.84, 127.92, 128.04, 173.4,
].map((time) => ({ time, failed: true }));

/** Weeks in remission, treated group: Freireich and others 1963. Negative: still in remission. */
const remission = [
  6, 6, 6, -6, 7, -9, 10, -10, -11, 13, 16, -17, -19, -20, 22, 23, -25, -32, -32, -34, -35,
].map((t) => ({ time: Math.abs(t), failed: t > 0 }));

describe('fitWeibull', () => {
  it('fits the ball bearings of Lieblein and Zelen (1956): shape 2.10, scale 81.9 (fit values from memory)', () => {
    const { shape, scale, b10 } = fitWeibull(bearings);
    expect(shape).toBeCloseTo(2.102, 2);
    expect(scale).toBeCloseTo(81.9, 0);
    expect(b10).toBeCloseTo(scale * Math.log(1 / 0.9) ** (1 / shape), 9);
  });

  it('has no better point beside the one it finds', () => {
    const units = [...bearings, { time: 90, failed: false }, { time: 200, failed: false }];
    const best = fitWeibull(units);
    const logLikelihood = (k: number, s: number) =>
      units.reduce(
        (sum, u) =>
          sum + (u.failed ? Math.log(k / s) + (k - 1) * Math.log(u.time / s) : 0) - (u.time / s) ** k,
        0,
      );
    expect(best.logLikelihood).toBeCloseTo(logLikelihood(best.shape, best.scale), 8);
    for (const [dk, ds] of [
      [0.01, 0],
      [-0.01, 0],
      [0, 0.5],
      [0, -0.5],
    ] as const) {
      expect(logLikelihood(best.shape + dk, best.scale + ds)).toBeLessThan(best.logLikelihood);
    }
  });

  it('does not care for the unit of time', () => {
    const km = fitWeibull(bearings.map((u) => ({ ...u, time: u.time * 1e5 })));
    expect(km.shape).toBeCloseTo(fitWeibull(bearings).shape, 9);
  });

  it('refuses what has no spread', () => {
    expect(() => fitWeibull([{ time: 5, failed: true }])).toThrow(/two failures/);
    expect(() =>
      fitWeibull([
        { time: 5, failed: true },
        { time: 5, failed: true },
      ]),
    ).toThrow(/no spread/);
  });
});

describe('survivalCurve', () => {
  it('gives the published steps of the remission data (Freireich 1963; steps as tabled in survival textbooks, from memory)', () => {
    const { steps, median } = survivalCurve(remission);
    expect(steps.map((s) => [s.time, s.atRisk, s.failures, Number(s.survival.toFixed(3))])).toEqual([
      [6, 21, 3, 0.857],
      [7, 17, 1, 0.807],
      [10, 15, 1, 0.753],
      [13, 12, 1, 0.69],
      [16, 11, 1, 0.627],
      [22, 7, 1, 0.538],
      [23, 6, 1, 0.448],
    ]);
    expect(median).toBe(23);
  });

  it('never rises and stays between 0 and 1', () => {
    const unit = fc.record({ time: fc.integer({ min: 1, max: 30 }), failed: fc.boolean() });
    fc.assert(
      fc.property(fc.array(unit, { minLength: 1, maxLength: 80 }), (units) => {
        let before = 1;
        for (const { survival } of survivalCurve(units).steps) {
          expect(survival).toBeLessThan(before);
          expect(survival).toBeGreaterThanOrEqual(0);
          before = survival;
        }
      }),
    );
  });
});

describe('replacementAge', () => {
  it('finds the least of the cost rate (scanned by brute force with its own integral)', () => {
    const input = { shape: 2.6, scale: 420, plannedCost: 300, failureCost: 2400 };
    const { age, costRate, worthwhile } = replacementAge(input);
    let running = 0;
    let least = Infinity;
    let at = 0;
    for (let t = 0.05; t < 1500; t += 0.1) {
      const reliability = Math.exp(-((t / input.scale) ** input.shape));
      running += 0.1 * reliability;
      const rate = (300 * reliability + 2400 * (1 - reliability)) / running;
      if (rate < least) [least, at] = [rate, t];
    }
    expect(age).toBeCloseTo(at, -0.5);
    expect(costRate / least).toBeCloseTo(1, 3);
    expect(worthwhile).toBe(true);
  });

  it('runs to failure where age tells nothing: shape 1, or a failure no dearer than the plan', () => {
    const mean = 100;
    expect(replacementAge({ shape: 1, scale: mean, plannedCost: 1, failureCost: 10 })).toMatchObject({
      age: null,
      worthwhile: false,
      runToFailureRate: expect.closeTo(0.1, 9),
    });
    expect(replacementAge({ shape: 3, scale: mean, plannedCost: 10, failureCost: 10 }).age).toBeNull();
  });
});
