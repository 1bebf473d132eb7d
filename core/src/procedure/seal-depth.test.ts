import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { sealDepths, seatFromTouched, whyNoSeat, whyNotTouched, type MeasuredSeat } from './index.ts';

const mm = (value: number) => quantity(value, 'mm');

describe('what can be touched with the hub off', () => {
  const seal = { lip: mm(8), deepest: mm(9) };
  it('gives the places below the hub face once the bearing stands at the shoulder (geometry)', () => {
    const touched = { faceToBearing: mm(42), journalFrom: mm(24), journalTo: mm(39) };
    const grooved = { ...touched, grooveFrom: mm(30.5), grooveTo: mm(31.5) };
    const places = ({ journalStart, journalEnd, grooveStart, grooveEnd }: MeasuredSeat) =>
      [journalStart, journalEnd, grooveStart, grooveEnd].map((q) => q?.value);
    expect(places(seatFromTouched(grooved, seal))).toEqual([3, 18, 10.5, 11.5]);
    expect(places(seatFromTouched(touched, seal))).toEqual([3, 18, undefined, undefined]);
  });

  it.each([
    [{ journalTo: mm(20) }, 'journal-backwards'],
    [{ journalFrom: mm(-1) }, 'journal-outboard'],
    [{ faceToBearing: mm(0) }, 'bearing-above-face'],
    [{ grooveFrom: mm(30) }, 'groove-one-edge'],
    [{ grooveFrom: mm(30), grooveTo: mm(29) }, 'groove-backwards'],
  ])('refuses what cannot be: %j', (wrong, why) => {
    const touched = { faceToBearing: mm(42), journalFrom: mm(24), journalTo: mm(39), ...wrong };
    expect(whyNotTouched(touched)).toBe(why);
  });
});

describe('the depth of a seal', () => {
  it('leaves every lip a millimetre from both ends of the journal and from the groove, for any journal (geometry)', () => {
    const place = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const seat = fc.record({
      start: place(0, 5),
      long: place(6, 40),
      grooveAt: place(0.1, 0.8),
      grooveWide: place(0.2, 3),
      lip: place(0, 10),
      dustLip: place(0, 10),
      deepest: place(1, 20),
    });
    fc.assert(
      fc.property(seat, place(0, 1), (s, part) => {
        const grooveStart = s.start + s.long * s.grooveAt;
        const measured: MeasuredSeat = {
          journalStart: mm(s.start),
          journalEnd: mm(s.start + s.long),
          grooveStart: mm(grooveStart),
          grooveEnd: mm(grooveStart + s.grooveWide),
          lip: mm(s.lip),
          dustLip: mm(s.dustLip),
          deepest: mm(s.deepest),
        };
        for (const { fromMm, toMm } of sealDepths(measured).ranges) {
          const depth = fromMm + (toMm - fromMm) * part;
          expect(depth).toBeLessThanOrEqual(s.deepest + 1e-6);
          for (const lip of [s.lip, s.dustLip]) {
            const at = depth + lip;
            expect(at).toBeGreaterThanOrEqual(s.start + 1 - 1e-6);
            expect(at).toBeLessThanOrEqual(s.start + s.long - 1 + 1e-6);
            expect(at <= grooveStart - 1 + 1e-6 || at >= grooveStart + s.grooveWide + 1 - 1e-6).toBe(true);
          }
        }
      }),
    );
  });

  it('the handbook’s example: band 10 mm wide, lip 3 mm in, about 5 mm below the face (common practice, no source)', () => {
    const { ranges, recommendedMm } = sealDepths({
      journalStart: mm(3),
      journalEnd: mm(13),
      lip: mm(3),
      deepest: mm(12),
    });
    expect(ranges).toHaveLength(1);
    expect(ranges[0]?.fromMm).toBeCloseTo(1, 9);
    expect(ranges[0]?.toMm).toBeCloseTo(9, 9);
    expect(recommendedMm).toBeCloseTo(5, 9);
  });

  it('says what cannot be a journal', () => {
    const seat = { journalStart: mm(3), journalEnd: mm(13), lip: mm(3), deepest: mm(12) };
    expect(whyNoSeat(seat)).toBeNull();
    expect(whyNoSeat({ ...seat, journalEnd: mm(2) })).toBe('journal-backwards');
    expect(whyNoSeat({ ...seat, grooveStart: mm(5) })).toBe('groove-one-edge');
    expect(whyNoSeat({ ...seat, deepest: mm(-1) })).toBe('no-depth');
    expect(() => sealDepths({ ...seat, journalEnd: mm(2) })).toThrow(RangeError);
  });
});
