import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeEndPlay } from './index.ts';

// Band of TMC RP 618: 0.001 to 0.005 in.
const band = { minMm: 0.0254, maxMm: 0.127 };
const cyclesOf = (...inches: number[]) => inches.map((v) => ({ pushMm: 0, pullMm: v * 25.4 }));
const verdict = (inches: number, more = {}) =>
  judgeEndPlay({ cycles: cyclesOf(inches, inches, inches), band, ...more }).verdict;

describe('judgeEndPlay', () => {
  it.each([
    [0.0005, 'tight'],
    [0.001, 'in-band'],
    [0.003, 'in-band'],
    [0.005, 'in-band'],
    [0.0051, 'loose'],
    [0.01, 'loose'],
  ])('calls %s in %s (TMC RP 618; limits inside: trade practice)', (inches, expected) => {
    expect(verdict(inches)).toBe(expected);
  });

  it('takes the mean of the cycles and says how far out it is', () => {
    const result = judgeEndPlay({ cycles: cyclesOf(0.0085, 0.0081, 0.0083), band });
    expect(result.endPlayMm / 25.4).toBeCloseTo(0.0083, 9);
    expect(result.byMm / 25.4).toBeCloseTo(0.0033, 9);
    expect(result.rangeMm / 25.4).toBeCloseTo(0.0004, 9);
    expect(result.verdict).toBe('loose');
  });

  it('wants three cycles that repeat within 0.001 in (common practice, no source)', () => {
    expect(judgeEndPlay({ cycles: cyclesOf(0.003, 0.003), band }).verdict).toBe('repeat');
    expect(judgeEndPlay({ cycles: cyclesOf(0.002, 0.003, 0.0031), band }).verdict).toBe('repeat');
    expect(judgeEndPlay({ cycles: cyclesOf(0.002, 0.0025, 0.003), band }).verdict).toBe('in-band');
  });

  it('corrects a tip that is not square by the cosine (geometry)', () => {
    const cycles = cyclesOf(0.004, 0.004, 0.004);
    expect(judgeEndPlay({ cycles, band, inclinationDeg: 60 }).endPlayMm / 25.4).toBeCloseTo(0.002, 9);
  });

  it('keeps the uncertainty clear of both limits under the guarded rule (ISO 14253-1)', () => {
    const guarded = { rule: 'guarded' as const, expandedUncertaintyMm: 0.0127 };
    expect(verdict(0.0046, guarded)).toBe('unsure');
    expect(verdict(0.0054, guarded)).toBe('unsure');
    expect(verdict(0.0056, guarded)).toBe('loose');
    expect(verdict(0.0045, guarded)).toBe('in-band');
    expect(verdict(0.0012, guarded)).toBe('unsure');
    expect(() => verdict(0.003, { rule: 'guarded' })).toThrow(/uncertainty/);
  });

  it('does not care which way round push and pull are, nor where the dial was zeroed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 0.5, noNaN: true }), { minLength: 3, maxLength: 9 }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (plays, zero) => {
          const plain = judgeEndPlay({ cycles: plays.map((p) => ({ pushMm: 0, pullMm: p })), band });
          const turned = judgeEndPlay({
            cycles: plays.map((p) => ({ pushMm: zero + p, pullMm: zero })),
            band,
          });
          expect(turned.endPlayMm).toBeCloseTo(plain.endPlayMm, 9);
          expect(plain.byMm).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});
