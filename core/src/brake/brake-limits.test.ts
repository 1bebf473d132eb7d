import { describe, expect, it } from 'vitest';
import { reckon } from '../reckoner/index.ts';
import { pushrodStroke, wearLimit } from './index.ts';

const issuesOf = (name: string, input: object) => {
  const answer = reckon(name, input);
  return answer.ok ? [] : answer.error.issues.map((i) => i.path);
};
const inches = (n: number) => n * 25.4;

describe('pushrod-stroke', () => {
  // Limits in inches, clamp type. Source: 49 CFR 393.47(e), value from memory.
  it.each([
    ['standard', 6, 1.25],
    ['standard', 9, 1.375],
    ['standard', 12, 1.375],
    ['standard', 16, 1.75],
    ['standard', 20, 1.75],
    ['standard', 24, 1.75],
    ['standard', 30, 2],
    ['standard', 36, 2.25],
    ['long', 12, 1.75],
    ['long', 16, 2],
    ['long', 20, 2],
    ['long', 24, 2],
    ['long', 30, 2.5],
    ['extra-long', 20, 2.5],
    ['extra-long', 24, 2.5],
    ['extra-long', 30, 2.5],
  ] as const)('%s stroke of chamber %d: %d in', (stroke, chamber, limit) => {
    const of = (measuredMm: number) => pushrodStroke({ chamber, stroke, measuredMm });
    expect(of(0).limitMm).toBeCloseTo(inches(limit), 9);
    expect(of(inches(limit)).state).toBe('at-limit');
    expect(of(inches(limit) - 0.999).state).toBe('at-limit');
    expect(of(inches(limit) - 1.001).state).toBe('good');
    expect(of(inches(limit) + 0.001).state).toBe('out');
  });

  it('a chamber that is not listed may use 80 % of the stroke marked on it', () => {
    expect(pushrodStroke({ markedStrokeMm: 70, measuredMm: 56 })).toEqual({ limitMm: 56, state: 'at-limit' });
    expect(pushrodStroke({ markedStrokeMm: 70, measuredMm: 56.1 }).state).toBe('out');
  });

  it('says which field is missing, or one too many', () => {
    expect(issuesOf('pushrod-stroke', { measuredMm: 40 })).toEqual(['chamber']);
    expect(issuesOf('pushrod-stroke', { measuredMm: 40, chamber: 30 })).toEqual(['stroke']);
    expect(issuesOf('pushrod-stroke', { measuredMm: 40, chamber: 36, stroke: 'long' })).toEqual(['stroke']);
    expect(issuesOf('pushrod-stroke', { measuredMm: 40, chamber: 18, stroke: 'long' })).toEqual(['chamber']);
    expect(issuesOf('pushrod-stroke', { measuredMm: 40, markedStrokeMm: 70, stroke: 'long' })).toEqual([
      'stroke',
    ]);
    expect(
      issuesOf('pushrod-stroke', { measuredMm: 40, markedStrokeMm: 70, chamber: 30, stroke: 'long' }),
    ).toEqual(['markedStrokeMm']);
  });
});

describe('wear-limit', () => {
  const drum = { part: 'drum', discardMm: 424 } as const;
  const rotor = { part: 'rotor', discardMm: 37, measuredMm: [39, 38.2, 38.6] } as const;

  it('takes the greatest diameter of a drum and the least thickness of a rotor', () => {
    const ofDrum = wearLimit({ ...drum, measuredMm: [420, 420.6, 420.2] });
    expect(ofDrum).toMatchObject({ worstMm: 420.6, state: 'good' });
    expect(ofDrum.leftMm).toBeCloseTo(3.4, 9);
    expect(ofDrum.variationMm).toBeCloseTo(0.6, 9);
    const ofRotor = wearLimit({ ...rotor, measuredMm: [...rotor.measuredMm] });
    expect(ofRotor).toMatchObject({ worstMm: 38.2, state: 'good' });
    expect(ofRotor.leftMm).toBeCloseTo(1.2, 9);
  });

  it.each([
    [423.4, 'good'],
    [423.5, 'at-limit'],
    [424, 'at-limit'],
    [424.01, 'discard'],
  ])('a drum of %d mm to 424 is %s', (mm, state) => {
    expect(wearLimit({ ...drum, measuredMm: [mm] }).state).toBe(state);
  });

  it.each([
    [38.1, 'good'],
    [38, 'at-limit'],
    [37, 'at-limit'],
    [36.99, 'discard'],
  ])('a rotor of %d mm to 37 is %s', (mm, state) => {
    expect(wearLimit({ part: 'rotor', discardMm: 37, measuredMm: [mm] }).state).toBe(state);
  });

  it('runout over its limit is looked into before anything but a discard', () => {
    const at = (mm: number, runoutMm: number) =>
      wearLimit({ part: 'rotor', discardMm: 37, measuredMm: [mm], runoutMm, runoutLimitMm: 0.15 }).state;
    expect(at(39, 0.16)).toBe('runout');
    expect(at(39, 0.15)).toBe('good');
    expect(at(37.5, 0.16)).toBe('runout');
    expect(at(36, 0.16)).toBe('discard');
    const input = { part: 'rotor', discardMm: 37, measuredMm: [39] };
    expect(issuesOf('wear-limit', { ...input, runoutMm: 0.1 })).toEqual(['runoutLimitMm']);
    expect(issuesOf('wear-limit', { ...input, runoutLimitMm: 0.1 })).toEqual([]);
    expect(issuesOf('wear-limit', { ...input, measuredMm: [] })).toEqual(['measuredMm']);
  });
});
