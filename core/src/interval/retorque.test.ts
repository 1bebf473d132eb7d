import { describe, expect, it } from 'vitest';
import { addDays, retorqueDue, retorqueState } from './index.ts';

const odometer = (km: number) => ({ km, hours: null });

describe('retorque', () => {
  it('is due 80 to 160 km on, or by a date (common practice, no source)', () => {
    expect(retorqueDue(odometer(611_240), '2026-02-26')).toEqual({
      fromKm: 611_320,
      byKm: 611_400,
      byDate: '2026-03-12',
    });
    expect(retorqueDue({ km: null, hours: null }, '2026-02-26')).toEqual({
      fromKm: null,
      byKm: null,
      byDate: '2026-03-12',
    });
  });

  it('whichever comes first makes it overdue', () => {
    const due = retorqueDue(odometer(1000), '2026-11-20');
    expect(retorqueState(due, odometer(1050), '2026-11-21')).toBe('early');
    expect(retorqueState(due, odometer(1090), '2026-11-21')).toBe('due');
    expect(retorqueState(due, odometer(1161), '2026-11-21')).toBe('overdue');
    expect(retorqueState(due, odometer(1000), '2026-12-05')).toBe('overdue');
    const none = { km: null, hours: null };
    expect(retorqueState(retorqueDue(none, '2026-11-20'), none, '2026-11-27')).toBe('early');
  });

  it('goes by the hour meter where there is no odometer (10 h: makers’ practice, value from memory)', () => {
    const hoursAt = (hours: number) => ({ km: null, hours });
    const due = retorqueDue(hoursAt(4820.25), '2026-11-20');
    expect(due).toEqual({ fromKm: null, byKm: null, byHours: 4830.3, byDate: '2026-12-04' });
    expect(retorqueState(due, hoursAt(4825), '2026-11-21')).toBe('early');
    expect(retorqueState(due, hoursAt(4830.3), '2026-11-21')).toBe('due');
    expect(retorqueState(due, hoursAt(4831), '2026-11-21')).toBe('overdue');
    expect(retorqueState(due, hoursAt(4825), '2026-12-05')).toBe('overdue');
    expect(retorqueDue({ km: 1000, hours: 50 }, '2026-11-20')).not.toHaveProperty('byHours');
  });

  it('counts days over the ends of months and years', () => {
    expect([addDays('2026-12-30', 3), addDays('2028-02-28', 1), addDays('2026-03-01', -1)]).toEqual([
      '2027-01-02',
      '2028-02-29',
      '2026-02-28',
    ]);
  });
});
