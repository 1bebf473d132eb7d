import { describe, expect, it } from 'vitest';
import { layouts, numbered, type PlacedAxle } from '../axle-plan/index.ts';
import { intervalFigureSchema } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import type { Work } from '../stack/index.ts';
import { doneWith, intervalsOf, unitDue, type UnitPast } from './index.ts';

const axlesOf = (layout: string): PlacedAxle[] =>
  numbered(layouts.find((l) => l.id === layout)!.axles).map((axle, i) => ({ ...axle, id: `axle-${i + 1}` }));
const every = (work: string, more: object) =>
  intervalFigureSchema.parse({ work, mark: 'shop', source: 'Ours', ...more });

const past = (more: Partial<UnitPast> = {}): UnitPast => {
  const axles = axlesOf('tractor-2').map((a) => ({
    ...a,
    sheet: { ...a.sheet, intervals: [every('seal', { months: 12 }), every('check', { months: 6 })] },
  }));
  return {
    kind: 'tractor',
    duty: [],
    axles,
    done: [],
    outOfBand: [],
    deferred: [],
    distance: [],
    hours: [],
    ...more,
  };
};

describe('what is due on a unit', () => {
  it('is every work with an interval on every wheel end; unknown until somebody says when it was done', () => {
    const due = unitDue(past());
    expect(due.map((d) => `${d.position} ${d.work}`)).toEqual(
      ['1L', '1R', '2L', '2R'].flatMap((p) => [`${p} seal`, `${p} check`]),
    );
    expect(due.every((d) => d.date === null && d.missing[0] === 'last')).toBe(true);
  });

  it('counts from the newest time on that axle: a seal renewed was a check as well, the other side is its own', () => {
    const done = [
      { axleId: 'axle-2', position: '2L', works: ['check' as const], date: '2026-01-10' },
      { axleId: 'axle-2', position: '2L', works: ['bearings' as const], date: '2026-03-10' },
      { axleId: 'gone', position: '2R', works: ['seal' as const], date: '2026-03-10' },
    ];
    const at = (position: string) =>
      Object.fromEntries(
        unitDue(past({ done }))
          .filter((d) => d.position === position)
          .map((d) => [d.work, d.date]),
      );
    expect(at('2L')).toEqual({ seal: '2027-03-10', check: '2026-09-10' });
    expect(at('2R')).toEqual({ seal: null, check: null });
  });

  it('asks the oil level only of hubs that run in oil; whatever opens one fills it', () => {
    const intervals = [every('oil-level', { months: 3 })];
    const axles = axlesOf('tractor-2').map((a) => ({ ...a, sheet: { ...a.sheet, intervals } }));
    const of = (more: Partial<UnitPast>) => unitDue(past({ axles, ...more }));
    const greased = axles.map((a) => (a.number === 1 ? { ...a, sheet: axlesOf('towed-1')[0]!.sheet } : a));
    expect(new Set(of({}).map((d) => d.work))).toEqual(new Set(['oil-level']));
    expect(of({ axles: greased }).some((d) => d.axleId === 'axle-1' && d.work === 'oil-level')).toBe(false);
    const done = [{ axleId: 'axle-2', position: '2L', works: ['seal' as const], date: '2026-11-30' }];
    expect(of({ done }).find((d) => d.position === '2L')?.date).toBe('2027-02-28');
  });

  it('comes sooner for a unit of hard duty, and says by what', () => {
    const done = [{ axleId: 'axle-2', position: '2L', works: ['seal' as const], date: '2026-01-31' }];
    const duty = [{ of: 'water' as const, share: 0.5 as const }];
    const seal = unitDue(past({ done, duty })).find((d) => d.position === '2L' && d.work === 'seal');
    expect(seal).toMatchObject({ date: '2026-07-31', by: 'months', shortened: ['water'] });
    expect(unitDue(past({ done })).every((d) => d.shortened.length === 0)).toBe(true);
  });

  it('leaves out what the wheel end has no part for', () => {
    const { axles } = past();
    const odd = axles.map((a) => ({
      ...a,
      sheet: { ...a.sheet, intervals: [every('unit-hub', { months: 1 })] },
    }));
    expect(unitDue(past({ axles: odd })).map((d) => d.work)).toEqual([]);
  });

  it('by distance from the unit’s own use', () => {
    const distance = [
      { date: '2026-01-01', total: 0 },
      { date: '2026-01-11', total: 2_000 },
      { date: '2026-01-21', total: 4_000 },
    ];
    const axles = past().axles.map((a) => ({
      ...a,
      sheet: { ...a.sheet, intervals: [every('seal', { distance: quantity(10_000, 'km') })] },
    }));
    const done = [{ axleId: 'axle-1', position: '1R', works: ['seal' as const], date: '2026-01-11' }];
    const due = unitDue(past({ axles, distance, done })).find((d) => d.position === '1R');
    // 12,000 km in all: 8,000 on from 21 January at 200 a day.
    expect(due).toMatchObject({ date: '2026-03-02', by: 'distance', lastOn: '2026-01-11' });
  });

  it('has the usual intervals where the sheet has none of its own (common practice, no source)', () => {
    const [axle] = axlesOf('towed-1');
    expect(intervalsOf(axle!, 'caravan')).toMatchObject([
      { work: 'repack', months: 12, distance: { value: 12_000, unit: 'mi' } },
    ]);
    expect(intervalsOf({ ...axle!, sheet: { ...axle!.sheet, intervals: [] } }, 'caravan')).toEqual([]);
    expect(intervalsOf(axlesOf('tractor-2')[0]!, 'tractor')).toEqual([]);
    expect(doneWith(['seal', 'brakes'])).toEqual(['seal', 'adjust', 'check', 'oil-level', 'brakes']);
  });

  it('is what its owner deferred on the day that was agreed, instead of its interval, until it is done', () => {
    const on = { axleId: 'axle-2', position: '2L' as const, work: 'seal' as const };
    const first = { ...on, on: '2026-03-10', until: '2026-06-01' };
    const deferred = [{ ...on, on: '2026-04-10', until: '2026-09-01' }, first];
    const axles = past().axles.map((a) => ({
      ...a,
      sheet: { ...a.sheet, intervals: [every('seal', { months: 12 })] },
    }));
    const seals = (more: Partial<UnitPast>) =>
      unitDue(past({ axles, ...more })).filter((d) => d.position === '2L' && d.work === 'seal');
    const served = (date: string, work: Work = 'seal') => [
      { axleId: 'axle-2', position: '2L' as const, works: [work], date },
    ];
    const agreed = { date: '2026-09-01', earliest: '2026-09-01', latest: '2026-09-01', by: 'deferred' };
    expect(seals({ deferred })).toMatchObject([{ ...agreed, lastOn: null, missing: [] }]);
    expect(seals({ deferred: [first] })).toMatchObject([{ date: '2026-06-01' }]);
    expect(seals({ deferred, done: served('2026-04-09') })).toMatchObject([
      { ...agreed, lastOn: '2026-04-09' },
    ]);
    expect(seals({ deferred, done: served('2026-04-10') })).toMatchObject([{ by: 'months' }]);
    expect(seals({ deferred, done: served('2026-05-02', 'bearings') })).toMatchObject([{ by: 'months' }]);
    expect(seals({ deferred: [{ ...first, axleId: 'gone' }] })).toMatchObject([{ by: null }]);
    // What was left out of its band does not wait for a day that an owner agreed to.
    const left = { axleId: 'axle-2', position: '2L' as const, date: '2026-04-02' };
    const put = { ...on, work: 'adjust' as const, on: '2026-04-03', until: '2026-12-01' };
    expect(
      unitDue(past({ deferred: [put], outOfBand: [left] })).filter((d) => d.work === 'adjust'),
    ).toMatchObject([{ by: 'out-of-band', date: '2026-04-02' }]);
  });

  it('is setting the bearing where the last reading was out of band, from that day on, whatever its interval says', () => {
    const left = { axleId: 'axle-2', position: '2L' as const, date: '2026-04-02' };
    const done = [{ axleId: 'axle-2', position: '2L', works: ['adjust' as const], date: '2026-04-02' }];
    const axles = past().axles.map((a) => ({
      ...a,
      sheet: { ...a.sheet, intervals: [every('adjust', { months: 12 })] },
    }));
    const due = unitDue(past({ axles, done, outOfBand: [left] }));
    const at = (position: string) => due.filter((d) => d.position === position);
    expect(at('2L')).toMatchObject([
      { work: 'adjust', date: '2026-04-02', by: 'out-of-band', lastOn: '2026-04-02', missing: [] },
    ]);
    expect(at('2R')).toMatchObject([{ work: 'adjust', by: null }]);
    // The axle that now has this place is another one.
    expect(
      unitDue(past({ outOfBand: [{ ...left, axleId: 'gone' }] })).some((d) => d.by === 'out-of-band'),
    ).toBe(false);
  });
});
