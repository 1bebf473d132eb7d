import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reckon } from '../reckoner/index.ts';
import { kingpinFit, shimChoice, spindleFit } from './index.ts';

const issuesOf = (name: string, input: object) => {
  const answer = reckon(name, input);
  return answer.ok ? [] : answer.error.issues.map((i) => i.path);
};

describe('spindle-fit', () => {
  // Worked by hand: means 50.00, 49.99, 49.97; ranges at a place 0.02, 0, 0.02.
  const places = [
    { diametersMm: [49.99, 50.01] },
    { diametersMm: [49.99, 49.99] },
    { diametersMm: [49.98, 49.96] },
  ];

  it('tells least, greatest, taper and roundness', () => {
    const result = spindleFit({ places, fit: { minMm: 49.96, maxMm: 50.01 } });
    expect(result).toMatchObject({ leastMm: 49.96, greatestMm: 50.01, state: 'in-fit' });
    expect(result.taperMm).toBeCloseTo(0.03, 9);
    expect(result.outOfRoundMm).toBeCloseTo(0.02, 9);
  });

  it.each([
    [49.961, 50.02, 'worn'],
    [49.961, 50.0, 'worn'],
    [49.9, 50.0, 'oversize'],
    [49.96, 50.01, 'in-fit'],
  ])('from %d to %d mm it is %s: under comes before over', (minMm, maxMm, state) => {
    expect(spindleFit({ places, fit: { minMm, maxMm } }).state).toBe(state);
  });

  it('needs two directions at every place, and limits the right way round', () => {
    const fit = { minMm: 1, maxMm: 2 };
    expect(issuesOf('spindle-fit', { places: [{ diametersMm: [1.5] }], fit })).toEqual([
      'places.0.diametersMm',
    ]);
    expect(issuesOf('spindle-fit', { places: [], fit })).toEqual(['places']);
    expect(issuesOf('spindle-fit', { places, fit: { minMm: 2, maxMm: 1 } })).toEqual(['fit.maxMm']);
  });
});

describe('kingpin-fit', () => {
  const pin = { pinMm: [44.98, 44.98], upperMm: [45.02, 45.04], lowerMm: [45.02, 45.02] };
  const clearance = { minMm: 0.03, maxMm: 0.06 };

  it('reckons clearance by bush, and the rock of both over their span', () => {
    // By hand: 45.03 − 44.98 = 0.05 and 0.04; (0.05 + 0.04) / 180 × 480 = 0.24.
    const result = kingpinFit({ ...pin, clearance, bushSpanMm: 180, tipRadiusMm: 480 });
    expect(result.upperMm).toBeCloseTo(0.05, 9);
    expect(result.lowerMm).toBeCloseTo(0.04, 9);
    expect(result.rockMm).toBeCloseTo(0.24, 9);
    expect(result).toMatchObject({ state: 'in-fit', verticalState: null });
  });

  it.each([
    [0.041, 0.06, 'tight'],
    [0.03, 0.049, 'loose'],
    [0.045, 0.045, 'tight'],
    [0.04, 0.05, 'in-fit'],
  ])('asked for %d to %d mm it is %s', (minMm, maxMm, state) => {
    expect(kingpinFit({ ...pin, clearance: { minMm, maxMm } }).state).toBe(state);
  });

  it.each([
    [0.04, 'tight'],
    [0.05, 'in-fit'],
    [0.25, 'in-fit'],
    [0.26, 'loose'],
  ])('a vertical play of %d mm is %s', (verticalMm, state) => {
    const vertical = { minMm: 0.05, maxMm: 0.25 };
    expect(kingpinFit({ ...pin, clearance, verticalMm, vertical }).verticalState).toBe(state);
  });

  it('asks for what goes with what was given', () => {
    expect(issuesOf('kingpin-fit', { ...pin, clearance, bushSpanMm: 180 })).toEqual(['tipRadiusMm']);
    expect(issuesOf('kingpin-fit', { ...pin, clearance, tipRadiusMm: 480 })).toEqual(['bushSpanMm']);
    expect(issuesOf('kingpin-fit', { ...pin, clearance, verticalMm: 0.1 })).toEqual(['vertical']);
  });
});

describe('shim-choice', () => {
  const shims = [0.1, 0.2, 0.5].map((thicknessMm) => ({ thicknessMm, count: 3 }));
  const play = { currentMm: 1, measuredMm: 0.3, shims, mostShims: 4 };

  it('takes out what the play is over, fewest shims first', () => {
    // By hand: 0.3 less the middle 0.1 is 0.2 to take out of 1.0: 0.8 = 0.5 + 0.2 + 0.1.
    const result = shimChoice({ ...play, thickerMeans: 'looser', target: { minMm: 0.05, maxMm: 0.15 } });
    expect(result.wantedMm).toBeCloseTo(0.8, 9);
    expect(result.best).toBe(0);
    expect(result.options).toHaveLength(1);
    expect(result.options[0]).toMatchObject({ shims: [0.5, 0.2, 0.1], stackMm: 0.8, state: 'in-band' });
    expect(result.options[0]!.predictedMm).toBeCloseTo(0.1, 9);
  });

  it('puts in where thicker is tighter, to a preload', () => {
    // By hand: from 0.3 to −0.1 is 0.4 more: 1.4.
    const result = shimChoice({ ...play, thickerMeans: 'tighter', target: { minMm: -0.12, maxMm: -0.08 } });
    expect(result.wantedMm).toBeCloseTo(1.4, 9);
    expect(result.options[0]).toMatchObject({ shims: [0.5, 0.5, 0.2, 0.2], stackMm: 1.4, state: 'in-band' });
  });

  it('names the nearest on either side where none is in the target, and no best', () => {
    const target = { minMm: 0.12, maxMm: 0.13 };
    const result = shimChoice({ ...play, thickerMeans: 'looser', target });
    expect(result.best).toBeNull();
    expect(result.options.map((o) => [o.stackMm, o.state])).toEqual([
      [0.8, 'tight'],
      [0.9, 'loose'],
    ]);
  });

  it('takes no more of a size than there are, and no more shims than may be', () => {
    const one = { ...play, thickerMeans: 'looser' as const, target: { minMm: -0.7, maxMm: 100 } };
    expect(
      shimChoice({ ...one, shims: [{ thicknessMm: 0.1, count: 2 }] }).options.map((o) => o.stackMm),
    ).toEqual([0.2, 0.1]);
    expect(
      shimChoice({ ...one, shims: [{ thicknessMm: 0.1, count: 9 }], mostShims: 2 }).options,
    ).toHaveLength(2);
  });

  it('refuses play of nothing, more than twelve sizes and more than six shims', () => {
    const input = { ...play, thickerMeans: 'looser', target: { minMm: 0, maxMm: 1 } };
    expect(issuesOf('shim-choice', { ...input, measuredMm: 0 })).toEqual(['measuredMm']);
    expect(issuesOf('shim-choice', { ...input, mostShims: 7 })).toEqual(['mostShims']);
    const many = Array.from({ length: 13 }, (_, i) => ({ thicknessMm: 0.1 + i / 100, count: 1 }));
    expect(issuesOf('shim-choice', { ...input, shims: many })).toEqual(['shims']);
    expect(reckon('shim-choice', { ...input, mostShims: undefined })).toEqual(
      reckon('shim-choice', { ...input, mostShims: 4 }),
    );
  });

  it('finds what trying every stack finds', () => {
    const mm = fc.integer({ min: 1, max: 60 }).map((n) => n / 50);
    const input = fc.record({
      currentMm: mm,
      measuredMm: mm,
      thickerMeans: fc.constantFrom('looser' as const, 'tighter' as const),
      target: fc
        .tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: 0, max: 20 }))
        .map(([from, wide]) => ({
          minMm: from / 50,
          maxMm: (from + wide) / 50,
        })),
      shims: fc.uniqueArray(fc.record({ thicknessMm: mm, count: fc.integer({ min: 1, max: 2 }) }), {
        ...{ minLength: 1, maxLength: 4, selector: (s) => s.thicknessMm },
      }),
      mostShims: fc.integer({ min: 1, max: 4 }),
    });
    fc.assert(
      fc.property(input, (asked) => {
        const { options, best } = shimChoice(asked);
        // Every subset of the single shims, in fiftieths so that nothing is rounded.
        const single = asked.shims.flatMap(({ thicknessMm, count }) =>
          Array.from({ length: count }, () => thicknessMm),
        );
        const inBand = new Map<number, number>();
        for (let bits = 1; bits < 2 ** single.length; bits++) {
          const stack = single.filter((_, i) => (bits >> i) & 1);
          if (stack.length > asked.mostShims) continue;
          const fiftieths = (v: number) => Math.round(v * 50);
          const thick = stack.reduce((sum, s) => sum + fiftieths(s), 0);
          const change = thick - fiftieths(asked.currentMm);
          const play = fiftieths(asked.measuredMm) + (asked.thickerMeans === 'looser' ? change : -change);
          const within = play >= fiftieths(asked.target.minMm) && play <= fiftieths(asked.target.maxMm);
          if (within) inBand.set(thick, Math.min(stack.length, inBand.get(thick) ?? 99));
        }
        expect(best).toBe(inBand.size > 0 ? 0 : null);
        if (best === null) {
          expect(options.filter((o) => o.state === 'in-band')).toEqual([]);
          return;
        }
        expect(options).toHaveLength(Math.min(5, inBand.size));
        for (const o of options) {
          expect(o.state).toBe('in-band');
          expect(o.shims).toHaveLength(inBand.get(Math.round(o.stackMm * 50))!);
        }
        const middle = (asked.target.minMm + asked.target.maxMm) / 2;
        const off = options.map((o) => Math.abs(o.predictedMm - middle));
        off.forEach((v, i) => expect(v).toBeGreaterThanOrEqual((off[i - 1] ?? 0) - 1e-9));
      }),
      { numRuns: 300 },
    );
  });
});
