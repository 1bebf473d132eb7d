import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compareRocking, tiltMmPerM } from './index.ts';

it('a rocking at any radius is the same tilt (geometry)', () => {
  const positive = fc.double({ min: 1, max: 500, noNaN: true });
  fc.assert(
    fc.property(positive, positive, fc.double({ min: 0, max: 20, noNaN: true }), (r1, r2, tilt) => {
      const at = (radiusMm: number) => tiltMmPerM({ movementMm: (tilt * radiusMm) / 1000, radiusMm });
      expect(at(r1)).toBeCloseTo(at(r2), 9);
    }),
  );
  expect(tiltMmPerM({ movementMm: 0.5, radiusMm: 250 })).toBe(2);
});

// Rule of this product, no source.
it.each([
  [3, 1.9, 'more'],
  [3, 2.1, 'alike'],
  [1, 1.6, 'less'],
  [0, 0, 'alike'],
  [0.1, 0, 'more'],
] as const)('a tilt of %d beside one of %d: %s', (here, there, said) => {
  expect(compareRocking(here, there)).toBe(said);
});
