import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { joinMeter } from '../interval/index.ts';
import { program, type Entry } from './entry.ts';
import { meterAggregate, type MeterBody, type MeterCommand, type MeterState } from './meter.ts';

/** The meters of a unit after some commands; each must be taken. */
function after(...commands: MeterCommand[]): MeterState {
  let state: MeterState | null = null;
  for (const command of commands) {
    const decided = meterAggregate.decide(state, command);
    if (!decided.ok) throw new Error(decided.reason);
    for (const body of decided.bodies) {
      const version = ((state as MeterState | null)?.version ?? 0) + 1;
      const entry: Entry<MeterBody> = {
        ...{ id: `e${version}`, stream: 'meter', streamId: 'u', version, at: '2026-11-26T08:00:00Z' },
        ...{ by: program, body },
      };
      state = meterAggregate.fold(state, entry);
    }
  }
  return state!;
}
const read = (
  date: string,
  km: number | null,
  hours: number | null = null,
  source: 'by-hand' | 'feed' = 'feed',
): MeterCommand => ({ kind: 'read', read: { date, distance: null, km, hours, source } });
const typed = (date: string, km: number | null, hours: number | null = null) =>
  read(date, km, hours, 'by-hand');
const totals = (state: MeterState) => meterAggregate.project(state).reads.map((r) => r.totalKm);
const why = (state: MeterState, command: MeterCommand) => {
  const decided = meterAggregate.decide(state, command);
  return decided.ok ? null : decided.reason;
};

describe('meters', () => {
  it('count on across a swap, also for what was read before it and told after (worked by hand)', () => {
    const state = after(
      read('2026-01-01', 600_000),
      read('2026-03-01', 612_000),
      {
        kind: 'swap',
        swap: { date: '2026-03-10', of: 'distance', why: 'swapped', last: 612_500, first: 40 },
      },
      read('2026-04-01', 5_040),
      read('2026-02-01', 606_000),
      read('2026-03-10', 50),
    );
    expect(totals(state)).toEqual([600_000, 612_000, 617_500, 606_000, 612_510]);
  });

  it('a second swap counts on from the first; the other meter goes its own way', () => {
    const state = after(
      read('2026-01-01', 1_000, 10),
      { kind: 'swap', swap: { date: '2026-02-01', of: 'distance', why: 'swapped', last: 1_500, first: 0 } },
      read('2026-02-10', 200, 20),
      { kind: 'swap', swap: { date: '2026-03-01', of: 'distance', why: 'set-back', last: 300, first: 7 } },
      read('2026-03-09', 107, 30),
    );
    expect(totals(state)).toEqual([1_000, 1_700, 1_900]);
    expect(meterAggregate.project(state).reads.map((r) => r.totalHours)).toEqual([10, 20, 30]);
  });

  it('a reading that does not fit is kept and not believed: one too high, or the first after a fall', () => {
    expect(
      totals(
        after(
          read('2026-01-01', 100),
          read('2026-01-02', 9_000),
          read('2026-01-03', 300),
          read('2026-01-04', 400),
        ),
      ),
    ).toEqual([100, null, 300, 400]);
    expect(totals(after(read('2026-01-01', 100), read('2026-01-02', 12)))).toEqual([100, null]);
  });

  it('what a person types must fit, and says what it does not fit', () => {
    const state = after(read('2026-01-01', 100_000, 50), read('2026-01-11', 104_000, 60));
    expect(why(state, typed('2026-01-12', 103_000))).toMatch(/104,000 km on 2026-01-11 already/);
    expect(why(state, typed('2026-01-05', 105_000))).toMatch(/only 104,000 km on 2026-01-11/);
    expect(why(state, typed('2026-01-12', 110_000))).toMatch(/in a day/);
    expect(why(state, typed('2026-01-12', null, 90))).toMatch(/hour meter read 60 h/);
    expect(why(state, typed('2026-01-12', 105_000, 70))).toBeNull();
    expect(why(state, { ...typed('2026-01-12', 110_000), sure: true } as MeterCommand)).toBeNull();
  });

  it('an old meter cannot have ended below what it read', () => {
    const state = after(read('2026-01-01', 100_000));
    const swap = (last: number): MeterCommand => ({
      kind: 'swap',
      swap: { date: '2026-01-02', of: 'distance', why: 'swapped', last, first: 0 },
    });
    expect(why(state, swap(99_999))).toMatch(/cannot have ended at less/);
    expect(why(state, swap(100_000))).toBeNull();
    // On the new one, what the old one read binds nobody.
    const swapped = after(read('2026-01-01', 100_000), swap(100_000), {
      kind: 'swap',
      swap: { date: '2026-01-09', of: 'distance', why: 'set-back', last: 300, first: 0 },
    });
    expect(swapped.swaps).toHaveLength(2);
  });

  it('a correction takes the doubt away', () => {
    const state = after(read('2026-01-01', 100), read('2026-01-02', 9_000), {
      kind: 'correct',
      nth: 1,
      right: { date: '2026-01-02', distance: null, km: 190, hours: null, source: 'feed' },
    });
    expect(totals(state)).toEqual([100, 190]);
    expect(why(state, { kind: 'correct', nth: 7, right: null })).toBe('There is no such reading');
  });

  it('what somebody looked at is not outvoted by a few lines of a file about the wrong unit', () => {
    const looked = [0, 1, 2].map((i) => typed(`2026-0${i + 1}-01`, 600_000 + i * 5_000));
    const wrong = (count: number) =>
      Array.from({ length: count }, (_, i) => read(`2026-03-${String(2 + i).padStart(2, '0')}`, 40 + i));
    const believed = (count: number) => totals(after(...looked, ...wrong(count))).filter((t) => t !== null);
    // Three that were looked at weigh nine.
    expect(believed(8)).toEqual([600_000, 605_000, 610_000]);
    expect(believed(10)).toHaveLength(10);
  });

  it('of all runs that never go back the heaviest is believed (against every subset)', () => {
    const points = fc.array(fc.record({ value: fc.nat(6), weight: fc.constantFrom(1, 3) }), { maxLength: 9 });
    fc.assert(
      fc.property(points, (list) => {
        const all = list.map((p, nth) => ({ ...p, nth, date: `2026-01-0${nth + 1}` }));
        const weigh = (of: readonly { weight: number }[]) => of.reduce((sum, p) => sum + p.weight, 0);
        const goesUp = (of: readonly { value: number }[]) =>
          of.every((p, i) => i === 0 || of[i - 1]!.value <= p.value);
        let best = 0;
        for (let subset = 0; subset < 1 << all.length; subset++) {
          const run = all.filter((_, i) => subset & (1 << i));
          if (goesUp(run)) best = Math.max(best, weigh(run));
        }
        const kept = joinMeter(all, []).filter((p) => !p.doubtful);
        expect(goesUp(kept)).toBe(true);
        expect(weigh(kept)).toBe(best);
      }),
    );
  });

  it('whatever order readings are told in, days alone decide', () => {
    const point = {
      day: fc.integer({ min: 1, max: 28 }),
      value: fc.nat(5_000),
      weight: fc.constantFrom(1, 3),
    };
    const points = fc.uniqueArray(fc.record(point), { selector: (p) => p.day, minLength: 1 });
    fc.assert(
      fc.property(points, fc.infiniteStream(fc.nat()), (list, order) => {
        const all = list.map((p, nth) => ({
          date: `2026-01-${String(p.day).padStart(2, '0')}`,
          value: p.value,
          weight: p.weight,
          nth,
        }));
        const mixed = [...all].sort(() => (order.next().value! % 3) - 1);
        const joined = joinMeter(all, []);
        expect(joinMeter(mixed, [])).toEqual(joined);
        const believed = joined.filter((p) => !p.doubtful).map((p) => p.total);
        expect(believed).toEqual([...believed].sort((a, b) => a - b));
        // None that could stand with all of the others is left out.
        for (const p of joined.filter((q) => q.doubtful)) {
          const with_ = joined.filter((q) => !q.doubtful || q === p).map((q) => q.total);
          expect(with_).not.toEqual([...with_].sort((a, b) => a - b));
        }
      }),
    );
  });
});
