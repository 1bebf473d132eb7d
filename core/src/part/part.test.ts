import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import {
  bySize,
  compareByMeasure,
  forecastStock,
  numberDistance,
  partSchema,
  plainNumber,
  readNumber,
  sealAdvice,
  standOfLine,
  type OldPart,
  type StockedPart,
} from './index.ts';

describe('a part number', () => {
  it('is the same however it is spaced and dashed', () => {
    for (const text of ['47-2210 B', '472210b', ' 47.2210/B', '４７２２１０Ｂ'])
      expect(plainNumber(text)).toBe('472210B');
  });

  it('is read with its gaps', () => {
    expect(readNumber('47-2?1*b')).toEqual({ pattern: '472?1*B', hasGaps: true, read: 5 });
    expect(readNumber('47 2210')).toEqual({ pattern: '472210', hasGaps: false, read: 6 });
    expect(readNumber('***').pattern).toBe('*');
  });

  it('is nearer where signs only look alike: an 8 read as a B, an O as a 0', () => {
    expect(numberDistance('472210', '472210')).toBe(0);
    expect(numberDistance('47221B', '472218')).toBe(0.5);
    expect(numberDistance('472217', '472218')).toBe(1);
    expect(numberDistance('4722', '472218')).toBe(2);
  });

  it('is as far one way as the other', () => {
    const plain = fc.stringMatching(/^[A-Z0-9]{2,12}$/);
    fc.assert(
      fc.property(plain, plain, (a, b) => {
        expect(numberDistance(a, b)).toBe(numberDistance(b, a));
      }),
    );
  });
});

const part = (more: object) =>
  partSchema.parse({
    ...{ id: '00000000-0000-4000-8000-000000000001', kind: 'seal', title: 'Hub seal', number: '47-2210' },
    ...more,
  });
const sized = (bore: number, outside: number, width: number) => ({
  dims: { bore: quantity(bore, 'mm'), outside: quantity(outside, 'mm'), width: quantity(width, 'mm') },
});

describe('a part by its measures', () => {
  const old: OldPart = {
    dims: { bore: 82.5, outside: 127, width: 20 },
    lips: { count: 2, facing: 'inward' },
  };
  const lips = { count: 2, facing: 'inward' as const };

  it('fits where all that was measured is inside the tolerance, an inch part as well', () => {
    const inches = part({
      dims: { bore: quantity(3.25, 'in'), outside: quantity(5, 'in'), width: quantity(0.787, 'in') },
      lips,
    });
    const fit = compareByMeasure(old, inches, 0.1);
    // 3.25 in is 82.55 mm, 5 in is 127 mm (an inch is 25.4 mm, NIST SP 811).
    expect(fit.off.bore).toBeCloseTo(0.05, 9);
    expect(fit.off.outside).toBeCloseTo(0, 9);
    expect(fit).toMatchObject({ fits: true, lips: 'same', unknown: [] });
  });

  it('says by how much it does not, and what nobody knows of it', () => {
    const wide = compareByMeasure(old, part({ ...sized(82.5, 127, 23), lips }), 0.3);
    expect(wide).toMatchObject({ fits: false, off: { width: 3 } });
    expect(sealAdvice(wide, 0.3)).toMatchObject({ sum: 'seal-seat' });
    const unknown = compareByMeasure(old, part({ dims: { bore: quantity(82.5, 'mm') } }), 0.3);
    expect(unknown).toMatchObject({ fits: false, unknown: ['outside', 'width'], lips: 'unknown' });
  });

  it('a seal whose lips look the other way does not fit; what to do is said, the worst first', () => {
    const turned = compareByMeasure(
      old,
      part({ ...sized(82.5, 127, 20), lips: { count: 2, facing: 'outward' } }),
      0.3,
    );
    expect(turned).toMatchObject({ fits: false, lips: 'other' });
    expect(sealAdvice(turned, 0.3)!.text).toMatch(/main lip/);
    const advice = (bore: number, outside: number, width: number) =>
      sealAdvice(compareByMeasure({ dims: old.dims }, part(sized(bore, outside, width)), 0.3), 0.3);
    expect(advice(82.5, 128, 25)!.text).toMatch(/does not hold/);
    expect(advice(80, 127, 20)!.text).toMatch(/too small/);
    expect(advice(85, 127, 20)!.text).toMatch(/wear sleeve/);
    expect(advice(82.5, 127, 20)).toBeNull();
  });

  it('is told apart from nonsense', () => {
    const issue = (more: object) =>
      partSchema.safeParse({ ...part({}), ...more }).error?.issues[0]?.path.join('.');
    expect(issue(sized(127, 82, 10))).toBe('dims.outside.value');
    expect(issue({ kind: 'nut', lips })).toBe('lips');
    expect(issue({ number: '-' })).toBe('number');
    expect(issue({ supersededBy: part({}).id })).toBe('supersededBy');
  });
});

describe('how the store can answer a line', () => {
  const stocked = (number: string, width: number | null, more: Partial<StockedPart> = {}): StockedPart => ({
    ...{ number, dims: width === null ? {} : { width: quantity(width, 'mm') } },
    ...{ free: 0, places: [], coming: [], ...more },
  });
  const here = { free: 1, places: ['A3', 'B1'] };
  const coming = (expected: string, late = false) => ({
    coming: [{ orderId: part({}).id, orderNumber: 12, expected, late }],
  });

  it('with what is here, the fullest place first; by one of several that fit alike', () => {
    expect(standOfLine([stocked('47-1', 22), stocked('47-2', 22, here)])).toEqual({
      state: 'here',
      parts: [{ number: '47-2', place: 'A3' }],
    });
    // Kept for others, it is no answer for this one.
    expect(standOfLine([stocked('47-1', 22, { places: ['A3'] })])).toEqual({ state: 'none' });
    expect(standOfLine([])).toEqual({ state: 'none' });
  });

  it('as the worse of an inner and an outer bearing, which are told apart by their sizes', () => {
    const inner = stocked('61-1', 36.5, here);
    expect(standOfLine([inner, stocked('61-2', 38.1, here)]).state).toBe('here');
    expect(standOfLine([inner, stocked('61-2', 38.1, coming('2026-12-05'))])).toMatchObject({
      ...{ state: 'ordered', number: '61-2', coming: { expected: '2026-12-05' } },
    });
    expect(standOfLine([inner, stocked('61-2', 38.1)]).state).toBe('none');
    // Of one nobody knows the size: it may be either, and answers for neither.
    expect(bySize([inner, stocked('61-3', null)], (p) => p.dims)).toHaveLength(1);
    expect(bySize([inner, stocked('61-2', 38.1), stocked('61-3', null)], (p) => p.dims)).toHaveLength(3);
  });

  it('not by an order that is late while another is in time', () => {
    const late = stocked('47-1', 22, coming('2026-11-20', true));
    expect(standOfLine([late]).state).toBe('late');
    expect(standOfLine([late, stocked('47-2', 22, coming('2026-12-09'))])).toMatchObject({
      ...{ state: 'ordered', number: '47-2' },
    });
  });
});

describe('whether stock lasts', () => {
  const base = { today: '2026-11-27', leadDays: 5 };

  it('a worked calendar: four on the shelf, nine days ahead one is missing', () => {
    // 27 Nov: 4. 30 Nov: -2 = 2. 3 Dec: +1 = 3. 6 Dec: -4 = -1, nine days on. 8 Dec: -1 = -2. 10 Dec: +6.
    const forecast = forecastStock({
      ...base,
      onHand: 4,
      demands: [
        { date: '2026-12-08', quantity: 1, what: 'Tern 404' },
        { date: '2026-12-06', quantity: 4, what: 'Hollow 64' },
        { date: '2026-11-30', quantity: 2, what: 'Drift 8' },
      ],
      arrivals: [
        { date: '2026-12-03', quantity: 1 },
        { date: '2026-12-10', quantity: 6 },
      ],
    });
    expect(forecast).toEqual({
      shortOn: '2026-12-06',
      first: 'Hollow 64',
      missing: 2,
      orderBy: '2026-12-01',
      late: false,
    });
  });

  it('what arrives on a day is there for what is wanted on it; a day that is past is today', () => {
    const demands = [{ date: '2026-11-20', quantity: 1, what: 'Sluice 3' }];
    const arrivals = [{ date: '2026-11-27', quantity: 1 }];
    expect(forecastStock({ ...base, onHand: 0, demands, arrivals }).shortOn).toBeNull();
    const short = forecastStock({ ...base, onHand: 0, demands, arrivals: [] });
    expect(short).toMatchObject({ shortOn: '2026-11-27', orderBy: '2026-11-22', late: true });
    expect(forecastStock({ ...base, leadDays: null, onHand: 0, demands, arrivals: [] })).toMatchObject({
      orderBy: null,
      late: false,
    });
  });

  it('what is missing on the shelf is never missing any more', () => {
    const date = fc.integer({ min: 1, max: 28 }).map((d) => `2026-12-${String(d).padStart(2, '0')}`);
    const demand = fc.record({ date, quantity: fc.integer({ min: 1, max: 9 }), what: fc.constant('x') });
    const arrival = fc.record({ date, quantity: fc.integer({ min: 1, max: 9 }) });
    fc.assert(
      fc.property(fc.nat(20), fc.array(demand), fc.array(arrival), (onHand, demands, arrivals) => {
        const { missing } = forecastStock({ ...base, onHand, demands, arrivals });
        const mended = forecastStock({ ...base, onHand: onHand + missing, demands, arrivals });
        expect(mended).toMatchObject({ shortOn: null, missing: 0 });
        if (missing > 0)
          expect(
            forecastStock({ ...base, onHand: onHand + missing - 1, demands, arrivals }).shortOn,
          ).not.toBeNull();
      }),
    );
  });
});
