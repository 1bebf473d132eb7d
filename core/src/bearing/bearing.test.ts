import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bearingLife, bearingPair, loadDistribution, settingLife } from './index.ts';

const life = (dynamicRatingN: number, equivalentLoadN: number, more = {}) =>
  bearingLife({
    dynamicRatingN,
    equivalentLoadN,
    exponent: 10 / 3,
    reliabilityPercent: 90,
    lifeFactor: 1,
    ...more,
  });

describe('bearingLife', () => {
  it('is a million turns at C = P, and about ten times that at half the load (ISO 281)', () => {
    expect(life(100, 100).l10Mrev).toBe(1);
    expect(life(200, 100).l10Mrev).toBeCloseTo(2 ** (10 / 3), 9);
  });

  it.each([
    [95, 0.64],
    [96, 0.55],
    [97, 0.47],
    [98, 0.37],
    [99, 0.25],
  ] as const)('takes a1 for %s %% reliability as %s (ISO 281 table)', (reliabilityPercent, a1) => {
    expect(life(200, 100, { reliabilityPercent }).lifeMrev).toBeCloseTo(a1 * 2 ** (10 / 3), 9);
  });

  it('turns a million turns into as many km as the circumference has mm', () => {
    expect(life(100, 100, { rollingCircumferenceMm: 3200 }).distanceKm).toBe(3200);
  });

  it('falls as the load grows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 1e6, noNaN: true }),
        fc.double({ min: 1.01, max: 10, noNaN: true }),
        (p, more) => {
          expect(life(1e5, p * more).l10Mrev).toBeLessThan(life(1e5, p).l10Mrev);
        },
      ),
    );
  });
});

describe('bearingPair', () => {
  const a = { radialN: 10_000, axialFactor: 1.6, limitRatio: 0.37, dynamicRatingN: 100_000 };
  const b = { radialN: 6000, axialFactor: 1.5, limitRatio: 0.4, dynamicRatingN: 80_000 };

  it('follows the induced loads (rule of the bearing handbooks, worked by hand)', () => {
    const pushed = bearingPair({ a, b, axialN: 4000 });
    expect([pushed.a.axialN, pushed.b.axialN]).toEqual([6000, 2000]);
    expect(pushed.a.equivalentN).toBeCloseTo(0.4 * 10_000 + 1.6 * 6000, 9);
    expect(pushed.b.equivalentN).toBe(6000);
    const pulled = bearingPair({ a, b, axialN: -5000 });
    expect([pulled.a.axialN, pulled.b.axialN]).toEqual([3125, 8125]);
  });

  it('lives shorter than either of its bearings', () => {
    const pair = bearingPair({ a, b, axialN: 4000 });
    expect(pair.pairL10Mrev).toBeLessThan(Math.min(pair.a.l10Mrev, pair.b.l10Mrev));
    const twins = bearingPair({ a, b: a, axialN: 0 });
    expect(twins.pairL10Mrev).toBeCloseTo(twins.a.l10Mrev * 2 ** (-8 / 9), 6);
  });
});

describe('loadDistribution', () => {
  it('agrees with the published integrals for line contact (rolling-bearing handbooks: ε 0.5)', () => {
    const { jr, ja } = loadDistribution(0.5);
    expect(jr).toBeCloseTo(0.2453, 4);
    expect(ja).toBeCloseTo(0.309, 4);
  });

  it('approaches an evenly loaded row for a wide zone, and nothing for a narrow one (limits of the integral)', () => {
    expect(loadDistribution(1e6).ja).toBeCloseTo(1, 5);
    expect(loadDistribution(1e6).jr).toBeLessThan(1e-6);
    expect(loadDistribution(1e-4).ja).toBeLessThan(0.01);
  });

  it('has the closed form t = 1: ja = (2ε·ψ0 − ψ0 + sin ψ0)/(2πε) (integrated by hand)', () => {
    for (const epsilon of [0.2, 0.5, 0.9]) {
      const edge = Math.acos(1 - 2 * epsilon);
      const closed = ((2 * epsilon - 1) * edge + Math.sin(edge)) / (2 * Math.PI * epsilon);
      expect(loadDistribution(epsilon, 1).ja).toBeCloseTo(closed, 7);
    }
  });
});

describe('settingLife', () => {
  const row = { rollers: 30, contactAngleDeg: 15, pitchRadiusMm: 50, rollerLengthMm: 25, radialN: 20_000 };
  const sum = (values: readonly number[]) => values.reduce((s, v) => s + v, 0);

  it('at zero axial load and zero end play loads half the race as the integrals say', () => {
    const { settings } = settingLife({ a: row, b: row, axialN: 0, settingsMm: [0] });
    const { a } = settings[0]!;
    const { jr, ja } = loadDistribution(0.5, 10 / 9);
    expect(a.epsilon).toBeCloseTo(0.5, 6);
    expect(a.heaviestN).toBeCloseTo(20_000 / (30 * Math.cos(Math.PI / 12) * jr), -1);
    expect(sum(a.rollersN) / 30 / a.heaviestN).toBeCloseTo(ja, 2);
    expect(settings[0]!.relativeLife).toBeCloseTo(1, 9);
  });

  it('balances every load it was given, whatever the setting', () => {
    const load = fc.double({ min: 500, max: 60_000, noNaN: true });
    fc.assert(
      fc.property(
        load,
        load,
        fc.double({ min: -20_000, max: 20_000, noNaN: true }),
        fc.double({ min: -0.2, max: 0.25, noNaN: true }),
        (ra, rb, axialN, setting) => {
          const { settings } = settingLife({
            a: { ...row, radialN: ra },
            b: { ...row, rollers: 19, radialN: rb },
            axialN,
            settingsMm: [setting],
          });
          const { a, b } = settings[0]!;
          const radial = (rollersN: readonly number[]) =>
            sum(rollersN.map((q, j) => q * Math.cos((2 * Math.PI * j) / rollersN.length))) *
            Math.cos(Math.PI / 12);
          const tolerance = 1e-6 * (ra + rb + Math.abs(axialN));
          expect(Math.abs(radial(a.rollersN) - ra)).toBeLessThan(tolerance);
          expect(Math.abs(radial(b.rollersN) - rb)).toBeLessThan(tolerance);
          expect(Math.abs(a.axialN - b.axialN - axialN)).toBeLessThan(tolerance);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('narrows the load zone with end play and shortens life on both sides of the best setting', () => {
    const settingsMm = [-0.15, -0.02, 0, 0.05, 0.1, 0.25];
    const { settings, bestMm } = settingLife({ a: row, b: row, axialN: 0, settingsMm });
    const zones = settings.map((s) => s.a.epsilon);
    expect([...zones].sort((x, y) => y - x)).toEqual(zones);
    expect(bestMm).toBeGreaterThan(-0.15);
    expect(bestMm).toBeLessThan(0.05);
    expect(settings.at(-1)!.relativeLife).toBeLessThan(1);
    expect(settings[0]!.relativeLife).toBeLessThan(settings[1]!.relativeLife);
  });
});
