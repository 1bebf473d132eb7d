import { describe, expect, it } from 'vitest';
import { sinceSet, usualGrowth, type PlayAt } from './index.ts';

const band = { minMm: 0.0254, maxMm: 0.127 };
const set = (jobId: string, endPlayMm: number, km: number | null): PlayAt => ({
  jobId,
  round: 1,
  endPlayMm,
  km,
  final: true,
});
const found = (jobId: string, endPlayMm: number, km: number | null): PlayAt => ({
  ...set(jobId, endPlayMm, km),
  round: 0,
  final: false,
});

describe('since a wheel end was set', () => {
  it('a nut that was never locked has walked out of the band', () => {
    const before = [found('a', 0.09, 0), set('a', 0.08, 0), found('b', 0.09, 50_000), set('b', 0.08, 50_000)];
    const since = sinceSet(before, found('c', 0.28, 100_000), band);
    expect(since).toMatchObject({ setMm: 0.08, foundMm: 0.28, km: 50_000, finding: 'walked' });
    expect(since?.mmPer10000Km).toBeCloseTo(0.04, 12);
    expect(since?.usualMmPer10000Km).toBeCloseTo(0.002, 12);
  });

  it('a setting that grew as it always does has held', () => {
    const before = [set('a', 0.08, 0), found('b', 0.09, 50_000), set('b', 0.08, 50_000)];
    expect(sinceSet(before, found('c', 0.092, 100_000), band)?.finding).toBe('held');
  });

  it('still in band, but much faster than it used to, has walked', () => {
    const before = [set('a', 0.05, 0), found('b', 0.055, 50_000), set('b', 0.05, 50_000)];
    expect(sinceSet(before, found('c', 0.12, 100_000), band)?.finding).toBe('walked');
    expect(sinceSet(before, found('c', 0.07, 100_000), band)?.finding).toBe('held');
  });

  it('says nothing of a rate without an odometer, and nothing at all of a first visit', () => {
    const since = sinceSet([set('a', 0.08, null)], found('b', 0.1, 90_000), band);
    expect(since).toMatchObject({ km: null, mmPer10000Km: null, usualMmPer10000Km: null, finding: 'held' });
    expect(sinceSet([], found('a', 0.1, 0), band)).toBeNull();
  });
});

describe('how settings usually grow', () => {
  it('is the middle of them, whichever way round one wild visit reads (worked by hand: 0.002, 0.004, 0.08)', () => {
    const readings = [
      ...[set('a', 0.08, 0), found('b', 0.09, 50_000), set('b', 0.08, 50_000)],
      ...[found('c', 0.1, 100_000), set('c', 0.08, 100_000), found('d', 0.48, 150_000)],
    ];
    const growth = usualGrowth(readings);
    expect(growth?.settings).toBe(3);
    expect(growth?.mmPer10000Km).toBeCloseTo(0.004, 12);
  });

  it('is not said without a setting, a later visit and a distance between', () => {
    expect(usualGrowth([])).toBeNull();
    expect(usualGrowth([set('a', 0.08, 0), found('a', 0.1, 10_000)])).toBeNull();
    expect(usualGrowth([set('a', 0.08, 0), found('b', 0.1, null)])).toBeNull();
    expect(usualGrowth([set('a', 0.08, 10), found('b', 0.1, 10)])).toBeNull();
  });
});
