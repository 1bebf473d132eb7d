import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitWeibull, survivalCurve } from './index.ts';
import { turnbull } from './turnbull.ts';
import { livesOf, type LifeUnit } from './units.ts';

/** Months to deterioration after radiotherapy alone, found between two visits; one figure: not by that visit. Finkelstein and Wolfe 1985. */
const radiotherapy: LifeUnit[] = (
  [
    [45],
    [6, 10],
    [0, 7],
    [46],
    [46],
    [7, 16],
    [17],
    [7, 14],
    [37, 44],
    [0, 8],
    [4, 11],
    [15],
    [11, 15],
    [22],
    [46],
    [46],
    [25, 37],
    [46],
    [26, 40],
    [46],
    [27, 34],
    [36, 44],
    [46],
    [36, 48],
    [37],
    [40],
    [17, 25],
    [46],
    [11, 18],
    [38],
    [5, 12],
    [37],
    [0, 5],
    [18],
    [24],
    [36],
    [5, 11],
    [19, 35],
    [17, 25],
    [24],
    [32],
    [33],
    [19, 26],
    [37],
    [34],
    [36],
  ] as [number, number?][]
).map(([from, to]) => (to === undefined ? { time: from, failed: false } : { from, to }));

/** Weeks to relapse, maintained group: Miller 1981, the acute myelogenous leukaemia study. Negative: still well. */
const maintained = [9, 13, -13, 18, 23, -28, 31, 34, -45, 48, -161].map((t) => ({
  time: Math.abs(t),
  failed: t > 0,
}));

const random = (seed: number) => () => (seed = (seed * 48271) % 2147483647) / 2147483647;

describe('failures found between two visits', () => {
  it('finds the shares of Finkelstein and Wolfe’s patients (1985; shares as published since, from memory)', () => {
    const shares = turnbull(livesOf(radiotherapy)).map(({ from, to, share }) => [
      from,
      to,
      Number(share.toFixed(4)),
    ]);
    expect(shares).toEqual([
      [4, 5, 0.0463],
      [6, 7, 0.0334],
      [7, 8, 0.0887],
      [11, 12, 0.0708],
      [24, 25, 0.0926],
      [33, 34, 0.0818],
      [38, 40, 0.1209],
      [46, 48, 0.4656],
    ]);
    const { steps, median } = survivalCurve(radiotherapy);
    expect(steps.map((s) => s.time)).toEqual([5, 7, 8, 11 + 1, 25, 34, 40, 48]);
    expect(steps.at(-2)?.survival).toBeCloseTo(0.4656, 3);
    expect(median).toBe(40);
  });

  it('is Kaplan–Meier where every failure has a time, also for units known only from an age on', () => {
    const unit = fc.record({
      time: fc.integer({ min: 2, max: 30 }),
      failed: fc.boolean(),
      entry: fc.constantFrom(0, 0, 0, 1),
    });
    fc.assert(
      fc.property(fc.array(unit, { minLength: 2, maxLength: 40 }), (units) => {
        const { steps } = survivalCurve(units);
        let left = 1;
        const shares = turnbull(livesOf(units)).filter((m) => m.to !== Infinity);
        for (const { to, share } of shares) {
          left -= share;
          expect(left).toBeCloseTo(steps.find((s) => s.time === to)!.survival, 5);
        }
        expect(shares).toHaveLength(steps.length);
      }),
      { numRuns: 200 },
    );
  });

  it('refuses what cannot be, by its field', () => {
    const paths = (unit: LifeUnit) => {
      try {
        survivalCurve([unit]);
        return null;
      } catch (error) {
        return (error as { issues: { path: string }[] }).issues[0]!.path;
      }
    };
    expect(paths({})).toBe('units.0.time');
    expect(paths({ time: 5 })).toBe('units.0.failed');
    expect(paths({ time: 5, failed: true, entry: 5 })).toBe('units.0.entry');
    expect(paths({ from: 5, to: 5 })).toBe('units.0.to');
    expect(paths({ from: 5 })).toBe('units.0.to');
    expect(paths({ from: 2, to: 9, failed: false })).toBe('units.0.failed');
    expect(paths({ from: 2, to: 9, time: 10, failed: true })).toBe('units.0.time');
    expect(paths({ from: 2, to: 9, entry: 9 })).toBe('units.0.to');
    expect(paths({ from: 2, time: 9, failed: true })).toBeNull();
  });
});

describe('limits of a survival curve', () => {
  it('are Greenwood’s on the log–log scale (Miller 1981, maintained group; worked by hand)', () => {
    const { steps } = survivalCurve(maintained);
    expect(steps.map((s) => [s.time, s.atRisk, s.failures, Number(s.survival.toFixed(3))])).toEqual([
      [9, 11, 1, 0.909],
      [13, 10, 1, 0.818],
      [18, 8, 1, 0.716],
      [23, 7, 1, 0.614],
      [31, 5, 1, 0.491],
      [34, 4, 1, 0.368],
      [48, 2, 1, 0.184],
    ]);
    // 1/(11·10), a survival of 10/11: 0.909^exp(±1.96·√0.00909 / 0.0953).
    expect(steps[0]!.low).toBeCloseTo(0.5081, 3);
    expect(steps[0]!.high).toBeCloseTo(0.9867, 3);
    for (const { low, survival, high } of steps) {
      expect(low).toBeLessThan(survival);
      expect(high).toBeGreaterThan(survival);
    }
  });

  it('has none where nothing is left', () => {
    expect(survivalCurve([{ time: 4, failed: true }]).steps[0]).toMatchObject({ low: null, high: null });
  });

  it('counts a unit at risk only after the age it is known from', () => {
    const units = [
      { time: 5, failed: true },
      { time: 8, failed: true, entry: 5 },
      { time: 9, failed: false },
    ];
    expect(survivalCurve(units).steps.map((s) => [s.time, s.atRisk])).toEqual([
      [5, 2],
      [8, 2],
    ]);
  });
});

describe('a Weibull life from visits', () => {
  const { shape, scale } = { shape: 2.2, scale: 300 };
  const next = random(618);
  const lives = Array.from({ length: 4_000 }, () => scale * (-Math.log(next())) ** (1 / shape));

  it('finds the life that made the data, from visits every 60 and a watch that began late', () => {
    const units = lives.flatMap((life, i): LifeUnit[] => {
      const entry = i % 3 === 0 ? 120 : 0;
      if (life <= entry) return [];
      if (life > 420) return [{ time: 420, failed: false, entry }];
      const from = Math.floor(life / 60) * 60;
      return [{ from, to: from + 60, entry }];
    });
    const fit = fitWeibull(units);
    expect(fit.shape).toBeGreaterThan(2.1);
    expect(fit.shape).toBeLessThan(2.3);
    expect(Math.abs(fit.scale / scale - 1)).toBeLessThan(0.02);
    // Held to be from new, those that were watched late look longer-lived than they are.
    const flattered = fitWeibull(units.map((unit) => ({ ...unit, entry: 0 })));
    expect(flattered.scale).toBeGreaterThan(fit.scale * 1.02);
  });

  it('comes to the fit by times as the visits draw together', () => {
    const few = lives.slice(0, 60);
    const exact = fitWeibull(few.map((time) => ({ time, failed: true })));
    const near = fitWeibull(few.map((time) => ({ from: time - 1e-4, to: time })));
    expect(near.shape).toBeCloseTo(exact.shape, 3);
    expect(near.scale / exact.scale).toBeCloseTo(1, 5);
    const mixed = fitWeibull([
      ...few.map((time) => ({ time, failed: true })),
      { time: 1e-3, failed: false, entry: 1e-4 },
    ]);
    expect(mixed.shape).toBeCloseTo(exact.shape, 6);
    expect(mixed.logLikelihood).toBeCloseTo(exact.logLikelihood, 5);
  });

  it('has no better point beside the one it finds', () => {
    const units: LifeUnit[] = [
      { from: 0, to: 100 },
      { from: 100, to: 200 },
      { from: 150, to: 220, entry: 120 },
      { time: 180, failed: true, entry: 60 },
      { time: 260, failed: true },
      { time: 300, failed: false, entry: 200 },
    ];
    const best = fitWeibull(units);
    const likelihood = (k: number, s: number) => {
      const S = (t: number) => Math.exp(-((t / s) ** k));
      return (
        Math.log(S(0) - S(100)) +
        Math.log(S(100) - S(200)) +
        Math.log((S(150) - S(220)) / S(120)) +
        Math.log(((k / s) * (180 / s) ** (k - 1) * S(180)) / S(60)) +
        Math.log((k / s) * (260 / s) ** (k - 1) * S(260)) +
        Math.log(S(300) / S(200))
      );
    };
    expect(best.logLikelihood).toBeCloseTo(likelihood(best.shape, best.scale), 8);
    for (const [dk, ds] of [
      [0.02, 0],
      [-0.02, 0],
      [0, 1],
      [0, -1],
    ] as const)
      expect(likelihood(best.shape + dk, best.scale + ds)).toBeLessThan(best.logLikelihood);
  });

  it('says so where too little is known', () => {
    expect(() =>
      fitWeibull([
        { from: 0, to: 10 },
        { from: 0, to: 10 },
      ]),
    ).toThrow(/too little is known/);
  });
});
