import { describe, expect, it } from 'vitest';
import type { Work } from '../stack/index.ts';
import { visitTime, type MeasuredTime } from '../work-plan/index.ts';
import { billFor, billTotals, type WorkAt } from './bill.ts';
import { estimateOf, writtenAnew, type EstimatedEnd, type Rates } from './estimate.ts';

const rates: Rates = { currency: 'GBP', hourMinor: 8_000, suppliesPercent: 0, taxes: [] };
const estimate = (ends: readonly EstimatedEnd[], more: Partial<Rates> = {}, measured: MeasuredTime[] = []) =>
  estimateOf(ends, { kind: 'rigid', measured, rates: { ...rates, ...more } });
const end = (position: string, works: Work[], parts: EstimatedEnd['parts'] = []): EstimatedEnd => ({
  ...{ position, works, parts },
});
const hours = (bill: ReturnType<typeof estimate> | null) =>
  (bill?.lines ?? []).reduce((sum, l) => sum + (l.group === 'labour' ? l.quantity : 0), 0);

describe('a first estimate', () => {
  it('charges what a visit takes, in quarters of an hour', () => {
    // A seal takes 105 minutes, bearings 150, the unit in and out 30: see `workTime`, common practice, no source.
    const bill = estimate([end('2L', ['seal', 'bearings']), end('2R', ['seal'])]);
    expect(bill.lines.map((l) => [l.at?.position ?? '', l.what, l.quantity])).toEqual([
      ['', 'Unit in, on stands and out', 0.5],
      ['2L', 'Seal, renew', 1.75],
      ['2L', 'Bearings, renew, additional time', 0.75],
      ['2R', 'Seal, renew', 1.75],
    ]);
    const visit = visitTime([{ works: ['seal', 'bearings'] }, { works: ['seal'] }], 'rigid', []);
    expect(hours(bill) * 60).toBe(visit.usual);
    expect(billTotals(bill).totalMinor).toBe(4.75 * 8_000);
  });

  it('comes to the time of the longest work that is done, whichever is left out', () => {
    const works: Work[] = ['bearings', 'adjust', 'seal'];
    const asked: WorkAt[] = works.map((work) => ({ position: '1R', work }));
    const bill = estimate([end('1R', works)]);
    for (let mask = 1; mask < 8; mask += 1) {
      const done = asked.filter((_, i) => mask & (1 << i));
      const alone = estimate([
        end(
          '1R',
          done.map((d) => d.work),
        ),
      ]);
      expect(hours(billFor(bill, asked, done))).toBe(hours(alone));
    }
    expect(billFor(bill, asked, [])).toBeNull();
  });

  it('leaves a part in while one work that needs it is done', () => {
    const parts = [
      { title: 'Hub seal', works: ['seal', 'bearings'] as const, minor: 3_000 },
      { title: 'Bearings', works: ['bearings'] as const, minor: 9_000 },
    ];
    const asked: WorkAt[] = [
      { position: '2L', work: 'seal' },
      { position: '2L', work: 'bearings' },
    ];
    const bill = estimate([end('2L', ['seal', 'bearings'], parts)]);
    const left = (...done: WorkAt[]) =>
      billFor(bill, asked, done)!.lines.flatMap((l) => (l.group === 'parts' ? [l.what] : []));
    expect(left(asked[0]!)).toEqual(['Hub seal']);
    expect(left(asked[1]!)).toEqual(['Hub seal', 'Bearings']);
  });

  it('keeps a line that is for nothing that was asked', () => {
    const bill = estimate([end('2L', ['seal'])]);
    const typed = { ...bill.lines[0]!, what: 'Call-out' };
    const other = { ...bill.lines[1]!, what: 'Seal of 3L', at: { position: '3L', works: ['seal' as const] } };
    const asked: WorkAt[] = [
      { position: '2L', work: 'seal' },
      { position: '2L', work: 'studs' },
    ];
    const left = billFor({ ...bill, lines: [...bill.lines, typed, other] }, asked, [asked[1]!])!;
    expect(left.lines.map((l) => l.what)).toEqual(['Unit in, on stands and out', 'Call-out', 'Seal of 3L']);
  });

  it('leaves open what has no price, and reckons with this shop’s own times', () => {
    const parts = [{ title: 'Hub seal', works: ['seal'] as const, minor: null }];
    const own: MeasuredTime = { work: 'seal', kind: 'rigid', low: 50, usual: 61, high: 80, measured: 9 };
    const bill = estimate([end('2L', ['seal'], parts)], { hourMinor: null }, [own]);
    expect(bill.lines.map((l) => [l.quantity, l.unitMinor])).toEqual([
      [0.5, 0],
      [1.25, 0],
      [1, 0],
    ]);
  });
});

describe('an estimate that is written anew', () => {
  const seal = { title: 'Hub seal', works: ['seal'] as const, minor: 3_000 };
  const both = { title: 'Hub seal', works: ['seal', 'bearings'] as const, minor: 3_000 };
  const bearings = { title: 'Bearings', works: ['bearings'] as const, minor: 9_000 };
  const first = estimate([end('2L', ['seal'], [seal]), end('2R', ['seal'], [seal])]);
  /** As somebody changed it: another price for each seal, a round labour on 2R, a line of its own. */
  const typed = {
    ...first,
    lines: [
      ...first.lines.map((l) =>
        l.group === 'parts'
          ? { ...l, unitMinor: 2_500 }
          : l.at?.position === '2R'
            ? { ...l, quantity: 1.5 }
            : l,
      ),
      { ...first.lines[0]!, what: 'Call-out', unitMinor: 5_000 },
    ],
  };
  const now = estimate([end('2L', ['seal', 'bearings'], [both, bearings]), end('2R', ['seal'], [seal])]);

  it('has the new work with its labour and parts; what was typed stands', () => {
    const anew = writtenAnew(typed, now);
    const said = anew.lines.map((l) => [l.at?.position ?? '', l.what, l.quantity, l.unitMinor]);
    expect(said.sort()).toEqual(
      [
        ['', 'Unit in, on stands and out', 0.5, 8_000],
        ['', 'Call-out', 0.5, 5_000],
        ['2L', 'Seal, renew', 1.75, 8_000],
        ['2L', 'Bearings, renew, additional time', 0.75, 8_000],
        ['2L', 'Hub seal', 1, 2_500],
        ['2L', 'Bearings', 1, 9_000],
        ['2R', 'Seal, renew', 1.5, 8_000],
        ['2R', 'Hub seal', 1, 2_500],
      ].sort(),
    );
    // The seal is charged with the bearings too, from now on.
    const asked: WorkAt[] = (['seal', 'bearings'] as const).map((work) => ({ position: '2L', work }));
    const left = billFor(anew, asked, [asked[1]!])!.lines.filter((l) => l.at?.position === '2L');
    expect(left.map((l) => l.what)).toContain('Hub seal');
  });

  it('is without what was left out since, and as it was where nothing changed or it is not split', () => {
    expect(writtenAnew(typed, first)).toEqual(typed);
    const less = writtenAnew(now, first).lines.map((l) => l.what);
    expect(less).not.toContain('Bearings');
    expect(less).not.toContain('Bearings, renew, additional time');
    expect(less.filter((what) => what === 'Hub seal')).toHaveLength(2);
    const whole = { ...first, lines: first.lines.slice(0, 1) };
    expect(writtenAnew(whole, now)).toEqual(whole);
    // Where the works of today are not known, nothing is lost.
    expect(writtenAnew(typed, whole)).toEqual(typed);
  });
});
