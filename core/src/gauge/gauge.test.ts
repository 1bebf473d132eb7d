import { describe, expect, it } from 'vitest';
import { chiSquareTail, fTail, gammaP, lnGamma } from '../statistics/index.ts';
import { controlChart, gaugeStudy, gaugeStudyCalculation } from './index.ts';

/** The worked gauge study of the AIAG manual, ten parts, three appraisers, three trials (data from memory). */
const aiag = [
  [
    [0.29, 0.41, 0.64],
    [0.08, 0.25, 0.07],
    [0.04, -0.11, -0.15],
  ],
  [
    [-0.56, -0.68, -0.58],
    [-0.47, -1.22, -0.68],
    [-1.38, -1.13, -0.96],
  ],
  [
    [1.34, 1.17, 1.27],
    [1.19, 0.94, 1.34],
    [0.88, 1.09, 0.67],
  ],
  [
    [0.47, 0.5, 0.64],
    [0.01, 1.03, 0.2],
    [0.14, 0.2, 0.11],
  ],
  [
    [-0.8, -0.92, -0.84],
    [-0.56, -1.2, -1.28],
    [-1.46, -1.07, -1.45],
  ],
  [
    [0.02, -0.11, -0.21],
    [-0.2, 0.22, 0.06],
    [-0.29, -0.67, -0.49],
  ],
  [
    [0.59, 0.75, 0.66],
    [0.47, 0.55, 0.83],
    [0.02, 0.01, 0.21],
  ],
  [
    [-0.31, -0.2, -0.17],
    [-0.63, 0.08, -0.34],
    [-0.46, -0.56, -0.49],
  ],
  [
    [2.26, 1.99, 2.01],
    [1.8, 2.12, 2.19],
    [1.77, 1.45, 1.87],
  ],
  [
    [-1.36, -1.25, -1.31],
    [-1.68, -1.62, -1.5],
    [-1.49, -1.77, -2.16],
  ],
];

describe('gaugeStudy', () => {
  it('reproduces the worked study of the AIAG manual (results from memory: 0.1999, 0.2268, 0.3024, 1.0423)', () => {
    const study = gaugeStudy({ measurements: aiag });
    expect(study.repeatability).toBeCloseTo(0.1999, 3);
    expect(study.reproducibility).toBeCloseTo(0.2268, 3);
    expect(study.gaugeRr).toBeCloseTo(0.3024, 3);
    expect(study.part).toBeCloseTo(1.0423, 3);
    expect(study.percentOfTotal).toBeCloseTo(27.86, 1);
    expect(study).toMatchObject({ interaction: 0, pooled: true, distinctCategories: 4 });
  });

  it('holds six standard deviations of the gauge against the band, and wants a band with a width', () => {
    const { percentOfBand, gaugeRr } = gaugeStudy({ measurements: aiag, band: { minMm: 0, maxMm: 4 } });
    expect(percentOfBand).toBeCloseTo((100 * 6 * gaugeRr) / 4, 12);
    expect(percentOfBand).toBeCloseTo(45.4, 1);
    expect(gaugeStudy({ measurements: aiag })).not.toHaveProperty('percentOfBand');
    const { inputSchema } = gaugeStudyCalculation;
    expect(inputSchema.safeParse({ measurements: aiag, band: { minMm: 1, maxMm: 1 } }).success).toBe(false);
  });

  it('says nothing about categories where the gauge shows no spread, and wants a balanced study', () => {
    const part = (v: number) => [
      [v, v],
      [v, v],
    ];
    expect(gaugeStudy({ measurements: [part(1), part(2)] })).toMatchObject({
      gaugeRr: 0,
      distinctCategories: null,
      percentOfTotal: 0,
    });
    expect(() => gaugeStudy({ measurements: [part(1), [[1, 2]]] })).toThrow(/as many appraisers/);
    expect(() =>
      gaugeStudy({
        measurements: [
          part(1),
          [
            [1, 2, 3],
            [1, 2],
          ],
        ],
      }),
    ).toThrow(/as many trials/);
  });
});

describe('controlChart', () => {
  it('gives the limits of the flow-rate example (NIST/SEMATECH e-handbook 6.3.2.2)', () => {
    const chart = controlChart({ values: [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1] });
    expect(chart.centre).toBeCloseTo(50.81, 9);
    expect(chart.movingRange.centre).toBeCloseTo(1.8778, 4);
    expect(chart.upper).toBeCloseTo(55.8041, 2);
    expect(chart.lower).toBeCloseTo(45.8159, 2);
    expect(chart.signals).toEqual([]);
  });

  it('names the value that stands out', () => {
    expect(controlChart({ values: [1, 1.1, 0.9, 1, 1.1, 0.9, 1, 1.1, 1, 0.9, 1, 3] }).signals).toEqual([11]);
  });
});

describe('special functions', () => {
  it('agree with tables (Abramowitz and Stegun; values from memory)', () => {
    expect(lnGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12);
    expect(lnGamma(6)).toBeCloseTo(Math.log(120), 12);
    expect(gammaP(1, 2)).toBeCloseTo(1 - Math.exp(-2), 12);
    expect(gammaP(0.5, 2)).toBeCloseTo(0.954499736, 8);
    expect(chiSquareTail(3.841458820694124, 1)).toBeCloseTo(0.05, 10);
    expect(chiSquareTail(200, 2)).toBeCloseTo(Math.exp(-100), 50);
    expect(fTail(4.26, 2, 9)).toBeCloseTo(0.05, 3);
    expect(fTail(4.96, 1, 10)).toBeCloseTo(0.05, 3);
  });
});
