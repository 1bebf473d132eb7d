import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, dueState, forecastDue, useOf, type RunPoint } from './index.ts';

const none = { points: [], use: null };
const runs = (points: RunPoint[]) => ({ points, use: useOf(points) });
const steady = (days: number, perDay: number, from = '2026-01-01', start = 0): RunPoint[] =>
  Array.from({ length: days }, (_, i) => ({ date: addDays(from, 10 * i), total: start + 10 * i * perDay }));

describe('the use of a unit', () => {
  it('is the median of the slopes, with the range that their ranks give (worked by hand)', () => {
    // Slopes 10, 100, 103.3, 105, 150, 200; ranks 1.3 × √(4·3·13 / 18) / 2 = 1.9 either way of the middle one.
    const use = useOf([
      { date: '2026-01-01', total: 0 },
      { date: '2026-01-02', total: 100 },
      { date: '2026-01-03', total: 300 },
      { date: '2026-01-04', total: 310 },
    ])!;
    expect(use.perDay).toBeCloseTo((310 / 3 + 105) / 2, 9);
    // The lower rank is nearer than a quarter: a quarter is allowed for.
    expect(use.low).toBeCloseTo(use.perDay / 1.25, 9);
    expect(use.high).toBe(150);
  });

  it('two days say nothing of how it varies, so a quarter either way is allowed for', () => {
    const use = useOf([
      { date: '2026-01-01', total: 0 },
      { date: '2026-01-11', total: 1_000 },
    ])!;
    expect(use).toEqual({ perDay: 100, low: 80, high: 125 });
  });

  it('is unknown on one day, and where the meter stands', () => {
    expect(useOf([{ date: '2026-01-01', total: 5 }])).toBeNull();
    expect(useOf(steady(5, 0))).toBeNull();
    expect(useOf([])).toBeNull();
  });
});

describe('when a work is due again', () => {
  it('goes by months to the end of a shorter month, over a leap year and a change of clocks (worked calendars)', () => {
    const months = (doneOn: string, count: number) =>
      forecastDue({ km: null, hours: null, months: count }, doneOn, { distance: none, hours: none }).date;
    expect(months('2027-01-31', 1)).toBe('2027-02-28');
    expect(months('2028-01-31', 1)).toBe('2028-02-29');
    expect(months('2024-02-29', 12)).toBe('2025-02-28');
    expect(months('2026-03-28', 1)).toBe('2026-04-28');
    expect(months('2026-08-31', 6)).toBe('2027-02-28');
  });

  it('counts on from the last reading at the use, early at the higher one and late at the lower one', () => {
    const distance = runs(steady(11, 100));
    const due = forecastDue({ km: 15_000, months: null, hours: null }, '2026-01-01', {
      distance,
      hours: none,
    });
    // 10,000 km on 11 April; 5,000 left: 50 days at 100, 40 at 125, 62 at 80.
    expect(due).toEqual({
      date: '2026-05-31',
      earliest: '2026-05-21',
      latest: '2026-06-12',
      by: 'distance',
      missing: [],
    });
  });

  it('a limit that is behind was reached on a day between two readings', () => {
    const distance = runs(steady(11, 100));
    const due = forecastDue({ km: 1_550, months: null, hours: null }, '2026-01-01', {
      distance,
      hours: none,
    });
    expect([due.date, due.earliest, due.latest]).toEqual(['2026-01-16', '2026-01-16', '2026-01-16']);
  });

  it('whichever comes first; what cannot be counted is named', () => {
    const distance = runs(steady(11, 100));
    const all = { km: 15_000, months: 4, hours: 500 };
    expect(forecastDue(all, '2026-01-01', { distance, hours: none })).toMatchObject({
      date: '2026-05-01',
      by: 'months',
      earliest: '2026-05-01',
      missing: ['hours'],
    });
    expect(
      forecastDue({ km: 1, months: null, hours: null }, '2026-01-01', { distance: none, hours: none }),
    ).toMatchObject({ date: null, missing: ['distance'] });
  });

  it('stands overdue, soon, later or unknown', () => {
    const today = '2026-11-26';
    const state = (date: string | null, earliest = date) => dueState({ date, earliest }, today);
    expect(state('2026-11-25')).toBe('overdue');
    expect(state('2026-11-26')).toBe('soon');
    expect(state('2026-12-26')).toBe('soon');
    expect(state('2026-12-27')).toBe('later');
    expect(state('2027-02-01', '2026-12-20')).toBe('soon');
    expect(state(null)).toBe('unknown');
  });

  it('more use never makes anything due later; the range holds the day', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 2, maxLength: 30 }),
        fc.integer({ min: 1, max: 200_000 }),
        (daily, km) => {
          let total = 0;
          const points = daily.map((d, i) => ({ date: addDays('2026-01-01', i), total: (total += d) }));
          const doubled = points.map((p) => ({ ...p, total: 2 * p.total }));
          const due = (of: RunPoint[]) =>
            forecastDue({ km, months: null, hours: null }, '2026-01-01', { distance: runs(of), hours: none });
          const one = due(points);
          expect(one.earliest! <= one.date! && one.date! <= one.latest!).toBe(true);
          expect(due(doubled).date! <= one.date!).toBe(true);
        },
      ),
    );
  });
});
