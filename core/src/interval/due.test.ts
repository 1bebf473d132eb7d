import { describe, expect, it } from 'vitest';
import { addMonths } from './calendar.ts';
import { reckon } from '../reckoner/index.ts';
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

  it('says unknown rather than guess where the meter does not move or was read on one day only', () => {
    const last = { date: '2026-01-01', hours: 120 };
    expect(due({ interval: { hours: 50 }, last })).toMatchObject({
      state: 'unknown',
      criteria: [{ remaining: 50 }],
    });
    const once = [{ date: '2026-01-01', hours: 180 }];
    expect(due({ interval: { hours: 50 }, last, meter: once }).state).toBe('unknown');
    const stands = [
      { date: '2026-02-01', hours: 120 },
      { date: '2026-03-01', hours: 120 },
    ];
    expect(due({ interval: { hours: 50 }, last, meter: stands })).toMatchObject({
      state: 'unknown',
      criteria: [{ remaining: 50 }],
    });
    const run = { date: '2026-01-01', hours: 100 };
    expect(due({ interval: { hours: 10 }, last: { ...run, hours: 100 }, meter: stands }).state).toBe(
      'overdue',
    );
  });

  it('takes the service itself for a reading, but where one was taken on its day', () => {
    // By hand: 4,000 km in 59 days; 6,000 left from 1 March: 88 days on.
    const last = { date: '2026-01-01', distanceKm: 1_000 };
    const later = { date: '2026-03-01', distanceKm: 5_000 };
    const ahead = due({ interval: { distanceKm: 10_000 }, last, meter: [later] });
    expect(ahead).toMatchObject({ dueDate: '2026-05-28', criteria: [{ remaining: 6_000 }] });
    // The reading of that day wins: 3,000 km in 59 days, and 6,000 left as before.
    const own = { date: '2026-01-01', distanceKm: 2_000 };
    const other = due({ interval: { distanceKm: 10_000 }, last, meter: [own, later] });
    expect(other).toMatchObject({ dueDate: '2026-06-27', criteria: [{ remaining: 6_000 }] });
  });

  it('refuses a meter that goes back, and names the reading', () => {
    const issuesOf = (last: object, meter: object[]) => {
      const input = { interval: { distanceKm: 10_000 }, last, meter, today: '2026-11-25' };
      const answer = reckon('due', input);
      return answer.ok ? [] : answer.error.issues.map((i) => i.path);
    };
    const at = (date: string, distanceKm: number) => ({ date, distanceKm });
    expect(issuesOf(at('2026-01-01', 100), [at('2026-03-01', 300), at('2026-02-01', 200)])).toEqual([]);
    expect(issuesOf(at('2026-01-01', 100), [at('2026-03-01', 300), at('2026-04-01', 200)])).toEqual([
      'meter.1.distanceKm',
    ]);
    expect(issuesOf(at('2026-05-01', 100), [at('2026-03-01', 300)])).toEqual(['last.distanceKm']);
  });
});
