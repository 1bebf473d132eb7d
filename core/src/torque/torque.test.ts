import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clampLoad, rollingTorque, tighteningSequence, torqueSetting } from './index.ts';

describe('torqueSetting', () => {
  it('sets less where an adapter in line lengthens the lever (worked by hand: 610 × 1067/1143)', () => {
    const result = torqueSetting({
      targetNm: 610,
      wrenchLengthMm: 1067,
      adapter: { lengthMm: 76, angleDeg: 0 },
      tool: { minNm: 150, maxNm: 750 },
    });
    expect(result.settingNm).toBeCloseTo(569.44, 2);
    expect(result.tool).toEqual({ withinRange: true, withinRecommended: true });
  });

  it('an adapter at a right angle changes nothing, a folded one asks for more (geometry)', () => {
    const at = (angleDeg: number) =>
      torqueSetting({ targetNm: 100, wrenchLengthMm: 400, adapter: { lengthMm: 100, angleDeg } }).settingNm;
    expect(at(90)).toBeCloseTo(100, 9);
    expect(at(180)).toBeCloseTo(400 / 3, 9);
    expect(() =>
      torqueSetting({ targetNm: 1, wrenchLengthMm: 100, adapter: { lengthMm: 100, angleDeg: 180 } }),
    ).toThrow(/folds/);
    expect(() => torqueSetting({ targetNm: 1, adapter: { lengthMm: 100, angleDeg: 0 } })).toThrow(
      /length of the wrench/,
    );
  });

  it('divides by ratio and efficiency of a multiplier, and keeps to 20 to 100 % of the range (ISO 6789)', () => {
    const tool = { minNm: 20, maxNm: 200 };
    const set = (targetNm: number) =>
      torqueSetting({ targetNm, multiplier: { ratio: 5, efficiency: 0.9 }, tool });
    expect(set(610).settingNm).toBeCloseTo(610 / 4.5, 9);
    expect(set(135).tool).toEqual({ withinRange: true, withinRecommended: false });
    expect(set(180).tool).toEqual({ withinRange: true, withinRecommended: true });
    expect(set(1000).tool).toEqual({ withinRange: false, withinRecommended: false });
  });
});

describe('clampLoad', () => {
  it('gives the nut factor of about 0.2 for unlubricated steel (torque-tension handbooks; M10 worked by hand)', () => {
    const { loadN, nutFactor } = clampLoad({
      torqueNm: 50,
      diameterMm: 10,
      pitchMm: 1.5,
      threadFriction: 0.15,
      bearingFriction: 0.15,
      bearingDiameterMm: 13,
    });
    expect(nutFactor).toBeCloseTo(0.1995, 4);
    expect(loadN).toBeCloseTo(50_000 / 1.995383, 0);
  });

  it('without friction all torque goes into the thread: F = 2πT/p', () => {
    const { loadN } = clampLoad({
      torqueNm: 10,
      diameterMm: 10,
      pitchMm: 1.5,
      threadFriction: 0,
      bearingFriction: 0,
      bearingDiameterMm: 13,
    });
    expect(loadN).toBeCloseTo((2 * Math.PI * 10_000) / 1.5, 6);
  });
});

describe('tighteningSequence', () => {
  const order = (studs: number) =>
    tighteningSequence({ studs, stages: [0.5, 1], targetNm: 610 }).passes[0]!.order;
  const apart = (a: number, b: number, n: number) => Math.min(Math.abs(a - b), n - Math.abs(a - b));

  it('goes through the stages and once more at full torque', () => {
    const { passes } = tighteningSequence({ studs: 10, stages: [0.3, 0.6, 1], targetNm: 610 });
    expect(passes.map((p) => p.torqueNm)).toEqual([183, 366, 610, 610]);
  });

  it('five studs go round as a star (common practice, no source)', () => {
    expect(order(5)).toEqual([1, 3, 5, 2, 4]);
  });

  it('meets every stud once; even wheels cross over and never start beside the stud just done', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 24 }), (n) => {
        const o = order(n);
        expect([...o].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i + 1));
        for (let i = 1; i < n; i++) {
          if (n % 2 === 1) expect((o[i]! - o[i - 1]! + n) % n).toBe((n - 1) / 2);
          else if (i % 2 === 1) expect(apart(o[i]!, o[i - 1]!, n)).toBe(n / 2);
          else if (n >= 6) expect(apart(o[i]!, o[i - 1]!, n)).toBeGreaterThan(1);
        }
      }),
    );
  });
});

describe('rollingTorque', () => {
  it('is pull times radius less the seal’s drag (by hand: 60 × 0.1 − 1.5)', () => {
    expect(rollingTorque({ pullN: 60, radiusMm: 100, sealDragNm: 1.5 })).toEqual({ torqueNm: 4.5 });
  });

  it.each([
    [44.9, 'loose'],
    [45, 'in-band'],
    [60, 'in-band'],
    [60.1, 'tight'],
  ])('a pull of %d N at 100 mm, asked for 4.5 to 6 N·m, is %s', (pullN, verdict) => {
    expect(rollingTorque({ pullN, radiusMm: 100, band: { minNm: 4.5, maxNm: 6 } }).verdict).toBe(verdict);
  });

  it('never comes out under zero', () => {
    expect(rollingTorque({ pullN: 10, radiusMm: 100, sealDragNm: 1 }).torqueNm).toBe(0);
    expect(() => rollingTorque({ pullN: 10, radiusMm: 100, sealDragNm: 1.1 })).toThrow(/more than the whole/);
  });
});
