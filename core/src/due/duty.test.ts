import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { duties, dutyShares, saidDutiesSchema, shortenedBy, type Duty, type SaidDuty } from './duty.ts';

const interval = { km: 100_000, months: 12, hours: 800 };
const by = (work: 'seal' | 'brakes', ...said: [Duty, SaidDuty['share']][]) =>
  shortenedBy(
    work,
    interval,
    said.map(([of, share]) => ({ of, share })),
  );

describe('an interval of a unit of hard duty', () => {
  it('is shorter by the share that was said (worked by hand)', () => {
    expect(by('seal', ['load', 0.75])).toEqual({
      ...{ interval: { km: 75_000, months: 9, hours: 600 }, by: ['load'] },
    });
    expect(by('seal', ['load', 0.75], ['larger-wheels', 0.5])).toEqual({
      ...{ interval: { km: 50_000, months: 6, hours: 400 }, by: ['larger-wheels'] },
    });
  });

  it('standing shortens months alone, water what it gets to alone', () => {
    expect(by('seal', ['standing', 0.5])).toEqual({ interval: { ...interval, months: 6 }, by: ['standing'] });
    expect(by('brakes', ['water', 0.5])).toEqual({ interval, by: [] });
    expect(by('seal', ['water', 0.25]).by).toEqual(['water']);
    expect(by('seal', ['standing', 0.5], ['load', 0.75])).toEqual({
      ...{ interval: { km: 75_000, months: 6, hours: 600 }, by: ['load', 'standing'] },
    });
  });

  it('is never longer, never none, and says who shortened it exactly where it is shorter', () => {
    const said = fc.uniqueArray(
      fc.record({
        of: fc.constantFrom(...(Object.keys(duties) as Duty[])),
        share: fc.constantFrom(...dutyShares),
      }),
      { selector: (d) => d.of },
    );
    const limits = fc.record({
      km: fc.option(fc.integer({ min: 1, max: 1e6 })),
      months: fc.option(fc.integer({ min: 2, max: 60 })),
      hours: fc.option(fc.integer({ min: 1, max: 5_000 })),
    });
    fc.assert(
      fc.property(said, limits, fc.constantFrom('seal', 'brakes', 'check'), (duty, whole, work) => {
        const { interval: left, by: who } = shortenedBy(work, whole, duty);
        const keys = ['km', 'months', 'hours'] as const;
        for (const key of keys) {
          expect(left[key] === null).toBe(whole[key] === null);
          if (left[key] !== null) expect(left[key]).toBeGreaterThan(0);
          expect(left[key] ?? 0).toBeLessThanOrEqual(whole[key] ?? 0);
        }
        expect(who.length > 0).toBe(keys.some((key) => left[key] !== whole[key]));
      }),
    );
  });

  it('a duty is said once', () => {
    const water = { of: 'water', share: 0.5 };
    expect(saidDutiesSchema.safeParse([water, { ...water, share: 0.75 }]).success).toBe(false);
    expect(saidDutiesSchema.safeParse([{ ...water, share: 0.9 }]).success).toBe(false);
  });
});
