import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { greaseFill } from '../lubricant/index.ts';
import { whichJoint } from '../inspection/index.ts';
import { jobCost } from './index.ts';

describe('jobCost', () => {
  it('comes to 635.16 for two wheels (worked by hand: 465.30 + 125.55 + 7.5 % of 590.85, half up)', () => {
    const bill = jobCost({
      labour: [{ hours: 5.5, rateMinor: 8460 }],
      parts: [{ quantity: 3, unitMinor: 4185 }],
      suppliesPercent: 0,
      tax: { percent: 7.5, on: ['labour', 'parts'] },
    });
    expect(bill).toEqual({
      labourMinor: 46_530,
      partsMinor: 12_555,
      suppliesMinor: 0,
      taxMinor: 4431,
      totalMinor: 63_516,
    });
  });

  it('rounds each sum once, half up, as a person with a decimal pencil would', () => {
    const labour = [{ hours: 0.35, rateMinor: 9010 }];
    expect(jobCost({ labour, parts: [], suppliesPercent: 0, tax: { percent: 0, on: [] } }).labourMinor).toBe(
      3154,
    );
    expect(
      jobCost({
        labour: [{ hours: 1, rateMinor: 1 }],
        parts: [],
        suppliesPercent: 50,
        tax: { percent: 0, on: [] },
      }).suppliesMinor,
    ).toBe(1);
    const thirds = {
      labour: [],
      parts: Array(3).fill({ quantity: 0.333, unitMinor: 100 }),
      suppliesPercent: 0,
      tax: { percent: 0, on: [] },
    };
    expect(jobCost(thirds).partsMinor).toBe(100);
  });

  it('is always the sum of its lines, and tax falls only on what it is on', () => {
    const line = fc.record({
      hours: fc.double({ min: 0, max: 50, noNaN: true }),
      rateMinor: fc.integer({ min: 0, max: 20_000 }),
    });
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 8 }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (labour, percent) => {
          const bill = jobCost({ labour, parts: [], suppliesPercent: 5, tax: { percent, on: ['supplies'] } });
          expect(bill.totalMinor).toBe(
            bill.labourMinor + bill.partsMinor + bill.suppliesMinor + bill.taxMinor,
          );
          expect(bill.taxMinor).toBeLessThanOrEqual(Math.ceil((bill.suppliesMinor * percent) / 100));
        },
      ),
    );
  });
});

describe('greaseFill', () => {
  it('fills what the steel leaves free (general formula, worked by hand: 70 × 140 × 39, 2.4 kg)', () => {
    const { bearingsMl, massG, totalMl } = greaseFill({
      bearings: [{ boreMm: 70, outsideMm: 140, widthMm: 39, massKg: 2.4 }],
      cavityMl: 600,
      cavityFillPercent: 30,
      densityGPerMl: 0.9,
    });
    expect(bearingsMl[0]).toBeCloseTo(((Math.PI / 4) * (140 ** 2 - 70 ** 2) * 39) / 1000 - 2400 / 7.8, 9);
    expect(totalMl).toBeCloseTo(bearingsMl[0]! + 180, 9);
    expect(massG).toBeCloseTo(totalMl * 0.9, 9);
  });

  it('refuses a bearing that cannot be', () => {
    const bearing = { boreMm: 70, outsideMm: 140, widthMm: 39, massKg: 24 };
    const fill = (part: object) => () =>
      greaseFill({
        bearings: [{ ...bearing, ...part }],
        cavityMl: 0,
        cavityFillPercent: 0,
        densityGPerMl: 0.9,
      });
    expect(fill({})).toThrow(/more steel/);
    expect(fill({ boreMm: 140, massKg: 1 })).toThrow(/under outsideMm/);
  });
});

describe('whichJoint', () => {
  const test = (axleToKnuckleMm: number, knuckleToHubMm: number) =>
    whichJoint({ axleToKnuckleMm, knuckleToHubMm, kingpinLimitMm: 0.25, bearingLimitMm: 0.127 });
  it('tells a loose bearing from a worn kingpin (common practice, no source)', () => {
    expect(test(0.0254, 0.3048)).toMatchObject({ suspect: 'bearing' });
    expect(test(0.5, 0.05).suspect).toBe('kingpin');
    expect(test(0.5, 0.5)).toEqual({ suspect: 'both', bearingShare: 0.5 });
    expect(test(0.25, 0.127).suspect).toBe('neither');
    expect(test(0, 0)).toEqual({ suspect: 'neither', bearingShare: null });
  });
});
