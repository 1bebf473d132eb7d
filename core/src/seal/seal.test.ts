import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sealSeat, sealSpeed } from './index.ts';

const lips = [
  { offsetMm: 8, marginMm: 1 },
  { offsetMm: 3, marginMm: 1 },
];

describe('sealSeat', () => {
  it('splits the depths at the groove and takes the middle of the widest (worked by hand)', () => {
    const result = sealSeat({
      journal: { startMm: 3, endMm: 18 },
      groove: { startMm: 10.5, endMm: 11.5 },
      lips,
      depth: { minMm: 0, maxMm: 9 },
    });
    expect(result).toEqual({
      ranges: [
        { fromMm: 1, toMm: 1.5 },
        { fromMm: 4.5, toMm: 6.5 },
      ],
      recommendedMm: 5.5,
    });
  });

  it('the shop’s own example: band 10 mm wide, lip 3 mm in, seal about 5 mm deep at the most (common practice, no source)', () => {
    const { ranges } = sealSeat({
      journal: { startMm: 0, endMm: 10 },
      lips: [{ offsetMm: 3, marginMm: 2 }],
      depth: { minMm: 0, maxMm: 20 },
    });
    expect(ranges).toEqual([{ fromMm: 0, toMm: 5 }]);
  });

  it('finds none where the band is too narrow', () => {
    expect(sealSeat({ journal: { startMm: 0, endMm: 1 }, lips, depth: { minMm: 0, maxMm: 9 } })).toEqual({
      ranges: [],
      recommendedMm: null,
    });
  });

  it('keeps every lip on sound journal at any depth it allows', () => {
    const mm = fc.double({ min: 0, max: 20, noNaN: true });
    fc.assert(
      fc.property(mm, mm, mm, mm, (start, width, gap, depth) => {
        const journal = { startMm: start, endMm: start + width + 0.1 };
        const groove = { startMm: start + gap, endMm: start + gap + 0.5 };
        const { ranges } = sealSeat({ journal, groove, lips, depth: { minMm: 0, maxMm: depth } });
        for (const { fromMm, toMm } of ranges) {
          for (const at of [fromMm, (fromMm + toMm) / 2, toMm]) {
            for (const { offsetMm, marginMm } of lips) {
              const lip = at + offsetMm;
              expect(lip - journal.startMm).toBeGreaterThanOrEqual(marginMm - 1e-6);
              expect(journal.endMm - lip).toBeGreaterThanOrEqual(marginMm - 1e-6);
              expect(Math.max(groove.startMm - lip, lip - groove.endMm)).toBeGreaterThanOrEqual(
                marginMm - 1e-6,
              );
            }
          }
        }
      }),
    );
  });
});

it('sealSpeed: 90 km/h on a 3.2 m tyre is 468.75 turns a minute (worked by hand)', () => {
  const { rpm, metresPerSecond } = sealSpeed({
    journalDiameterMm: 110,
    speedKmh: 90,
    rollingCircumferenceMm: 3200,
  });
  expect(rpm).toBeCloseTo(468.75, 9);
  expect(metresPerSecond).toBeCloseTo(2.6998, 4);
});
