import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { replayMeters, readsOf, withReads, withoutRepeats, type BroughtReads } from './brought-reads.ts';
import { program, type Entry } from './entry.ts';
import { meterAggregate, type MeterBody, type MeterRead } from './meter.ts';

const UNIT = '7f0c4a52-4a2b-4a53-9a60-3a3f5a0c9f01';
const read = (date: string, km: number): MeterRead => ({
  ...{ date, distance: null, km, hours: null, source: 'by-hand' },
});
const entryOf = (body: MeterBody, i: number): Entry => ({
  ...{
    id: `e${i}`,
    stream: 'meter',
    streamId: UNIT,
    version: i + 1,
    at: '2026-11-26T08:00:00Z',
    by: program,
    body,
  },
});
const brought = (after: number, ...reads: BroughtReads['reads']): BroughtReads => ({
  ...{ unitId: UNIT, after, source: 'file', distanceIn: 'km', reads },
});

describe('readings that a batch brought', () => {
  it('stand where they came: a correction means the reading it was made of (worked by hand)', () => {
    const entries = [
      entryOf({ kind: 'meter-read', read: read('2026-01-01', 1_000) }, 0),
      entryOf({ kind: 'meter-corrected', nth: 2, right: read('2026-01-20', 2_100) }, 1),
    ];
    const state = replayMeters(entries, [
      brought(1, ['2026-01-10', 1_500, null], ['2026-01-20', 9_999, null]),
      brought(2, ['2026-02-01', 3_000, null]),
    ]);
    expect(meterAggregate.project(state!).reads.map((r) => r.totalKm)).toEqual([1_000, 1_500, 2_100, 3_000]);
    expect(state!.version).toBe(2);
  });

  it('begin a stream that has no record of its own', () => {
    const state = replayMeters([], [brought(0, ['2026-01-10', null, 12])]);
    expect(state).toMatchObject({ version: 0, reads: [{ hours: 12, km: null, source: 'file' }] });
  });

  it('are told of where they hang on a record that is not there', () => {
    expect(() => replayMeters([], [brought(1, ['2026-01-10', 5, null])])).toThrow(/not there/);
    const entries = [entryOf({ kind: 'meter-read', read: read('2026-01-01', 1) }, 1)];
    expect(() => replayMeters(entries, [])).toThrow(/Version 2 stands where 1/);
  });

  it('are kept as they were read, and in km beside it', () => {
    const [mile] = readsOf({ source: 'feed', distanceIn: 'mi', reads: [['2026-01-01', 100, null]] });
    // 1 mile is 1.609344 km. Source: the international yard and pound agreement, 1959.
    expect(mile).toMatchObject({ distance: { value: 100, unit: 'mi' } });
    expect(mile!.km).toBeCloseTo(160.9344, 9);
  });

  it('come to the same in one batch or in many', () => {
    const km = fc.array(fc.integer({ min: 0, max: 9_999 }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(km, fc.integer({ min: 0, max: 20 }), (kms, cut) => {
        const rows = kms.map((value, i): BroughtReads['reads'][number] => [`2026-01-${10 + i}`, value, null]);
        const [first, second] = [rows.slice(0, cut), rows.slice(cut)];
        const parts = [first, second].filter((p) => p.length > 0).map((p) => brought(0, ...p));
        expect(replayMeters([], parts)).toEqual(replayMeters([], [brought(0, ...rows)]));
      }),
    );
  });
});

describe('of a feed is kept', () => {
  const kms = (known: MeterRead[], ...reads: MeterRead[]) => withoutRepeats(known, reads).map((r) => r.km);

  it('the first of a day, what ran far since, and what goes back', () => {
    const day = (km: number) => read('2026-03-01', km);
    expect(kms([], day(100), day(120), day(179), day(180), day(181))).toEqual([100, 180]);
    expect(kms([day(100)], day(140), read('2026-03-02', 150))).toEqual([150]);
    expect(kms([day(100)], day(3))).toEqual([3]);
  });

  it('and nothing twice, however often it is sent', () => {
    const day = fc.integer({ min: 10, max: 20 }).map((d) => `2026-03-${d}`);
    const reads = fc.array(fc.tuple(day, fc.integer({ min: 0, max: 500 })).map(([d, km]) => read(d, km)));
    fc.assert(
      fc.property(reads, (sent) => {
        const sorted = [...sent].sort((a, b) => a.date.localeCompare(b.date) || a.km! - b.km!);
        const kept = withoutRepeats([], sorted);
        expect(withoutRepeats(withReads(null, kept).reads, kept.slice(-1))).toEqual([]);
        expect(new Set(sorted.map((r) => r.date)).size).toBe(new Set(kept.map((r) => r.date)).size);
      }),
    );
  });
});
