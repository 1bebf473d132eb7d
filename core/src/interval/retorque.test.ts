import { describe, expect, it } from 'vitest';
import { addDays, retorqueDue, retorqueState } from './index.ts';

describe('retorque', () => {
  it('is due 80 to 160 km on, or by a date (common practice, no source)', () => {
    expect(retorqueDue(611_240, '2026-02-26')).toEqual({
      fromKm: 611_320,
      byKm: 611_400,
      byDate: '2026-03-12',
    });
    expect(retorqueDue(null, '2026-02-26')).toMatchObject({ fromKm: null, byKm: null });
  });

  it('whichever comes first makes it overdue', () => {
    const due = retorqueDue(1000, '2026-11-20');
    expect(retorqueState(due, 1050, '2026-11-21')).toBe('early');
    expect(retorqueState(due, 1090, '2026-11-21')).toBe('due');
    expect(retorqueState(due, 1161, '2026-11-21')).toBe('overdue');
    expect(retorqueState(due, 1000, '2026-12-05')).toBe('overdue');
    expect(retorqueState(retorqueDue(null, '2026-11-20'), null, '2026-11-27')).toBe('early');
  });

  it('counts days over the ends of months and years', () => {
    expect([addDays('2026-12-30', 3), addDays('2028-02-28', 1), addDays('2026-03-01', -1)]).toEqual([
      '2027-01-02',
      '2028-02-29',
      '2026-02-28',
    ]);
  });
});
