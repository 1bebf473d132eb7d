import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { competingRisks, logRank, survivalCurve } from './index.ts';

const lives = (times: readonly number[]) => times.map((t) => ({ time: Math.abs(t), failed: t > 0 }));
const rounded = (value: number, digits = 2) => Number(value.toFixed(digits));

describe('logRank', () => {
  it('tells treatment from placebo in the remission data (Freireich and others 1963; 16.79 as in textbooks, from memory)', () => {
    const result = logRank({
      groups: [
        {
          id: 'treated',
          units: lives([
            6, 6, 6, -6, 7, -9, 10, -10, -11, 13, 16, -17, -19, -20, 22, 23, -25, -32, -32, -34, -35,
          ]),
        },
        {
          id: 'placebo',
          units: lives([1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23]),
        },
      ],
    });
    expect(rounded(result.chiSquare)).toBe(16.79);
    expect(result.degreesOfFreedom).toBe(1);
    expect(result.pValue).toBeCloseTo(4.17e-5, 6);
    expect(result.groups.map((g) => [g.id, g.observed, rounded(g.expected)])).toEqual([
      ['treated', 9, 19.25],
      ['placebo', 21, 10.75],
    ]);
  });

  it('gives 3.4 for the leukaemia study of Miller (1981; chi-square 3.4, p 0.065, expected 10.69 and 7.31 from memory)', () => {
    const result = logRank({
      groups: [
        { id: 'maintained', units: lives([9, 13, -13, 18, 23, -28, 31, 34, -45, 48, -161]) },
        { id: 'not maintained', units: lives([5, 5, 8, 8, 12, -16, 23, 27, 30, 33, 43, 45]) },
      ],
    });
    expect(rounded(result.chiSquare, 1)).toBe(3.4);
    expect(rounded(result.pValue, 3)).toBe(0.065);
    expect(result.groups.map((g) => rounded(g.expected))).toEqual([10.69, 7.31]);
  });

  const unit = fc.record({ time: fc.integer({ min: 1, max: 12 }), failed: fc.boolean() });
  const units = fc.array(unit, { minLength: 1, maxLength: 20 });

  it('does not care which group comes first, and observes as many as it expects', () => {
    fc.assert(
      fc.property(fc.array(units, { minLength: 2, maxLength: 4 }), (groups) => {
        fc.pre(groups.flat().some((u) => u.failed));
        const named = groups.map((list, i) => ({ id: `g${i}`, units: list }));
        const one = logRank({ groups: named });
        const two = logRank({ groups: [...named].reverse() });
        expect(one.chiSquare).toBeCloseTo(two.chiSquare, 6);
        expect(one.degreesOfFreedom).toBe(two.degreesOfFreedom);
        const sum = (of: (g: (typeof one.groups)[number]) => number) =>
          one.groups.reduce((s, g) => s + of(g), 0);
        expect(sum((g) => g.observed)).toBeCloseTo(
          sum((g) => g.expected),
          9,
        );
        expect(one.pValue).toBeGreaterThanOrEqual(0);
        expect(one.pValue).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('a group that was never at risk at a failure adds no degree; with none left nothing is told', () => {
    const early = { id: 'early', units: [{ time: 1, failed: false }] };
    const a = { id: 'a', units: lives([5, 6, 9]) };
    const b = { id: 'b', units: lives([7, -8, 12]) };
    expect(logRank({ groups: [a, b, early] })).toMatchObject({
      degreesOfFreedom: 1,
      chiSquare: expect.closeTo(logRank({ groups: [a, b] }).chiSquare, 9),
    });
    expect(logRank({ groups: [a, early] })).toMatchObject({ degreesOfFreedom: 0, chiSquare: 0, pValue: 1 });
  });

  it('compares within strata only', () => {
    const of = (stratum: string, times: readonly number[]) => lives(times).map((u) => ({ ...u, stratum }));
    // Steer ends live long and drive ends short; within each there is no difference.
    const a = { id: 'a', units: [...of('steer', [50, 55, 60, 65, 70, 75]), ...of('drive', [5])] };
    const b = { id: 'b', units: [...of('steer', [62]), ...of('drive', [3, 4, 5, 5, 6, 7])] };
    const mixed = logRank({
      groups: [a, b].map((g) => ({ ...g, units: g.units.map(({ time, failed }) => ({ time, failed })) })),
    });
    const within = logRank({ groups: [a, b] });
    expect(mixed.chiSquare).toBeGreaterThan(2);
    expect(within.chiSquare).toBeLessThan(0.2);
  });

  it('refuses a comparison without a failure, and two groups of one id', () => {
    const a = { id: 'a', units: lives([-5]) };
    expect(() => logRank({ groups: [a, { ...a, id: 'b' }] })).toThrow(/one failure/);
    expect(() => logRank({ groups: [a, a] })).toThrow(/earlier group/);
  });
});

describe('competingRisks', () => {
  it('adds to 1 with survival at every time, and is 1 less survival for one cause', () => {
    const unit = fc.record({
      time: fc.integer({ min: 1, max: 15 }),
      cause: fc.constantFrom('leak', 'wear', 'spin', null),
    });
    fc.assert(
      fc.property(fc.array(unit, { minLength: 1, maxLength: 50 }), (units) => {
        const { causes } = competingRisks({ units });
        const { steps } = survivalCurve(units.map((u) => ({ time: u.time, failed: u.cause !== null })));
        for (const { time, survival } of steps) {
          const ended = causes.reduce(
            (sum, c) => sum + (c.steps.filter((s) => s.time <= time).at(-1)?.incidence ?? 0),
            0,
          );
          expect(ended + survival).toBeCloseTo(1, 9);
        }
        expect(causes.map((c) => c.cause)).toEqual([...causes.map((c) => c.cause)].sort());
      }),
    );
  });

  it('is worked by hand: four of ten leak, two wear at the same time as one of them', () => {
    const units = [
      ...[1, 2, 2, 6].map((time) => ({ time, cause: 'leak' })),
      ...[2, 5].map((time) => ({ time, cause: 'wear' })),
      ...[3, 4, 7, 8].map((time) => ({ time, cause: null })),
    ];
    // S: 0.9 after 1; of nine at risk at 2 three end; of four at 5 one; of three at 6 one.
    const after2 = 0.9 * (6 / 9);
    expect(competingRisks({ units }).causes).toEqual([
      {
        cause: 'leak',
        steps: [
          { time: 1, incidence: 0.1 },
          { time: 2, incidence: expect.closeTo(0.1 + 0.9 * (2 / 9), 12) },
          { time: 6, incidence: expect.closeTo(0.1 + 0.2 + after2 * 0.75 * (1 / 3), 12) },
        ],
      },
      {
        cause: 'wear',
        steps: [
          { time: 2, incidence: expect.closeTo(0.1, 12) },
          { time: 5, incidence: expect.closeTo(0.1 + after2 / 4, 12) },
        ],
      },
    ]);
  });

  it('has no cause where everything still runs', () => {
    expect(competingRisks({ units: [{ time: 4, cause: null }] }).causes).toEqual([]);
  });
});
