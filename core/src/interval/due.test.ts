import { describe, expect, it } from 'vitest';
import { addMonths } from './calendar.ts';
import { serviceDue } from './index.ts';

const due = (part: Partial<Parameters<typeof serviceDue>[0]>) =>
  serviceDue({
    interval: { months: 12 },
    last: { date: '2026-01-31' },
    meter: [],
    today: '2026-11-25',
    soonDays: 30,
    ...part,
  });

describe('serviceDue', () => {
  it('keeps to the end of a month that is shorter (calendar arithmetic, worked by hand)', () => {
    expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
    expect(addMonths('2028-01-31', 1)).toBe('2028-02-29');
    expect(addMonths('2026-11-30', 3)).toBe('2027-02-28');
    expect(addMonths('2026-12-15', 13)).toBe('2028-01-15');
    expect(due({ interval: { months: 10 } }).dueDate).toBe('2026-11-30');
  });

  it.each([
    ['2026-11-24', 'overdue'],
    ['2026-11-25', 'soon'],
    ['2026-12-25', 'soon'],
    ['2026-12-26', 'later'],
  ])('a service due on %s is %s today', (last, state) => {
    const date = addMonths(last, -12);
    expect(due({ last: { date } }).state).toBe(state);
  });

  it('carries distance on from the last reading at the median rate, whichever comes first', () => {
    const meter = [
      { date: '2026-01-01', distanceKm: 100_000 },
      { date: '2026-04-11', distanceKm: 110_000 },
      { date: '2026-07-20', distanceKm: 120_000 },
      { date: '2026-10-28', distanceKm: 130_000 },
    ];
    const result = due({
      interval: { distanceKm: 35_000, months: 24 },
      last: { date: '2026-01-01', distanceKm: 100_000 },
      meter,
    });
    // 100 km a day; 5,000 km left on 28 October: 50 days on.
    expect(result).toMatchObject({ dueBy: 'distance', dueDate: '2026-12-17', state: 'soon' });
    expect(result.criteria[0]).toMatchObject({ remaining: 5000, limit: 35_000 });
    expect(result.criteria[1]).toMatchObject({ by: 'months', dueDate: '2028-01-01' });
  });

  it('says unknown rather than guess where the meter does not move or was never read', () => {
    const last = { date: '2026-01-01', hours: 100 };
    expect(due({ interval: { hours: 50 }, last }).state).toBe('unknown');
    const stands = [
      { date: '2026-02-01', hours: 120 },
      { date: '2026-03-01', hours: 120 },
    ];
    expect(due({ interval: { hours: 50 }, last, meter: stands })).toMatchObject({
      state: 'unknown',
      criteria: [{ remaining: 30 }],
    });
    expect(due({ interval: { hours: 10 }, last, meter: stands })).toMatchObject({
      state: 'overdue',
      dueDate: '2026-03-01',
    });
  });
});
