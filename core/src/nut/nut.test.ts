import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { adviseSetting, lockPositions, nutTravel, planNutSetting, formatTurn, type Lock } from './index.ts';

const band = { minMm: 0.0254, maxMm: 0.127 };
const degreesOf = (lock: Lock) => lockPositions(lock).map((t) => Math.round(t * 360));

describe('nutTravel', () => {
  it('moves by the pitch (worked by hand: 12 threads per inch, one turn is 0.0833 in)', () => {
    expect(nutTravel({ threadsPerInch: 12 }, 1) / 25.4).toBeCloseTo(0.08333, 5);
    expect(nutTravel({ threadsPerInch: 12 }, 4.32 / 360) / 25.4).toBeCloseTo(0.001, 9);
    expect(nutTravel({ pitchMm: 1.5 }, -0.5)).toBe(-0.75);
  });

  it('at 16 threads, 60° is 0.0104 in: enough to jump the whole band (worked by hand)', () => {
    expect(nutTravel({ threadsPerInch: 16 }, 1 / 6) / 25.4).toBeCloseTo(0.0104, 4);
  });
});

describe('lockPositions', () => {
  it('repeats every 360/n with one hole, twice as often with a second at 90° (geometry)', () => {
    expect(degreesOf({ kind: 'castellated', slots: 6, holeAxesDeg: [0] })).toEqual([
      -180, -120, -60, 0, 60, 120, 180,
    ]);
    expect(degreesOf({ kind: 'castellated', slots: 6, holeAxesDeg: [0, 90] })).toEqual([
      -180, -150, -120, -90, -60, -30, 0, 30, 60, 90, 120, 150, 180,
    ]);
  });

  it('counts from the hole in which the pin is now', () => {
    expect(degreesOf({ kind: 'castellated', slots: 4, holeAxesDeg: [30, 50] })).toEqual([
      -180, -160, -90, -70, 0, 20, 90, 110, 180,
    ]);
  });

  it('gains the half positions when the washer turns over', () => {
    expect(degreesOf({ kind: 'indexed', positionsPerTurn: 4, reversible: false })).toEqual([
      -180, -90, 0, 90, 180,
    ]);
    expect(degreesOf({ kind: 'indexed', positionsPerTurn: 4, reversible: true })).toEqual([
      -180, -135, -90, -45, 0, 45, 90, 135, 180,
    ]);
  });
});

describe('planNutSetting', () => {
  it('finds the half point that brings 0.0083 in back (worked by hand, 16 threads, eight points)', () => {
    const plan = planNutSetting({
      thread: { threadsPerInch: 16 },
      lock: { kind: 'indexed', positionsPerTurn: 8, reversible: true },
      measuredMm: 0.0083 * 25.4,
      band,
    });
    const best = plan.options[plan.best!]!;
    expect(best.turns).toBeCloseTo(1 / 16, 12);
    expect(best.predictedMm / 25.4).toBeCloseTo(0.0044, 4);
    expect(plan.options.map((o) => o.state).slice(-3)).toEqual(['in-band', 'tight', 'preload']);
  });

  it('says that none is in band where the slots are too coarse (6 slots, 18 threads, 0.010 in)', () => {
    const plan = planNutSetting({
      thread: { threadsPerInch: 18 },
      lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0] },
      measuredMm: 0.254,
      band,
    });
    expect(plan.best).toBeNull();
    expect(plan.options.find((o) => Math.round(o.degrees) === 60)?.predictedMm).toBeCloseTo(0.0188, 4);
  });

  it('goes exactly to the target where any angle locks, and takes the looser of two equals', () => {
    const stepless = planNutSetting({
      thread: { pitchMm: 2 },
      lock: { kind: 'stepless' },
      measuredMm: 0.2,
      band,
      targetMm: 0.1,
    });
    expect(stepless.options).toHaveLength(1);
    expect(stepless.exactTurns).toBeCloseTo(0.05, 12);
    const tie = planNutSetting({
      thread: { pitchMm: 0.4 },
      lock: { kind: 'indexed', positionsPerTurn: 10, reversible: false },
      measuredMm: 0.1,
      band: { minMm: 0.05, maxMm: 0.11 },
      targetMm: 0.08,
    });
    expect(tie.options[tie.best!]?.predictedMm).toBeCloseTo(0.1, 12);
  });

  const anyLock: fc.Arbitrary<Lock> = fc.oneof(
    fc.record({
      kind: fc.constant('castellated' as const),
      slots: fc.integer({ min: 1, max: 24 }),
      holeAxesDeg: fc.array(fc.integer({ min: 0, max: 180 }), { minLength: 1, maxLength: 3 }),
    }),
    fc.record({
      kind: fc.constant('indexed' as const),
      positionsPerTurn: fc.integer({ min: 1, max: 60 }),
      reversible: fc.boolean(),
    }),
  );

  it('end play falls as the nut tightens, the best is never a preload and always in band', () => {
    fc.assert(
      fc.property(
        anyLock,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        (lock, measuredMm, pitchMm) => {
          const { options, best } = planNutSetting({ thread: { pitchMm }, lock, measuredMm, band });
          for (let i = 1; i < options.length; i++) {
            expect(options[i]!.turns).toBeGreaterThan(options[i - 1]!.turns);
            expect(options[i]!.predictedMm).toBeLessThan(options[i - 1]!.predictedMm);
          }
          expect(options.filter((o) => o.state === 'preload').length).toBeLessThanOrEqual(1);
          if (best !== null) expect(options[best]!.state).toBe('in-band');
        },
      ),
    );
  });
});

describe('adviseSetting', () => {
  const advise = (lock: Lock, measuredIn: number) =>
    adviseSetting(measuredIn * 25.4, band, { threadsPerInch: 18 }, lock);

  it('asks for nothing in band', () => {
    expect(advise({ kind: 'castellated', slots: 6, holeAxesDeg: [0] }, 0.003)).toMatchObject({
      go: null,
      remedies: [],
    });
  });

  it('names the second hole only where it helps, and always ends with inspection', () => {
    expect(advise({ kind: 'castellated', slots: 6, holeAxesDeg: [0] }, 0.0075).remedies).toEqual([
      'second-hole',
      'change-nut',
      'inspect',
    ]);
    expect(advise({ kind: 'indexed', positionsPerTurn: 6, reversible: false }, 0.0075).remedies).toEqual([
      'turn-washer-over',
      'change-washer',
      'inspect',
    ]);
    expect(advise({ kind: 'indexed', positionsPerTurn: 2, reversible: false }, 0.0075).remedies).toEqual([
      'change-washer',
      'inspect',
    ]);
  });
});

it('says a turn as a fitter does', () => {
  expect([0.25, -1, 1 / 16, 1.5, 2, 1 / 6, 0.123].map(formatTurn)).toEqual([
    '1/4 turn',
    'one full turn',
    '1/16 turn',
    '1 1/2 turns',
    '2 turns',
    '1/6 turn',
    '44°',
  ]);
});
