import { describe, expect, it } from 'vitest';
import { inchReader, metricReader } from '../quantity/index.ts';
import { describeCalculation, listCalculations, reckon } from './reckon.ts';
import { describeResult } from './describe-result.ts';

const said = (name: string, input: unknown, reader = inchReader) => {
  const answer = reckon(name, input);
  if (!answer.ok) throw new Error(answer.error.message);
  return describeResult(name, answer.result as Record<string, unknown>, reader);
};
const nut = {
  thread: { threadsPerInch: 16 },
  lock: { kind: 'indexed', positionsPerTurn: 8, reversible: true },
  band: { minMm: 0.0254, maxMm: 0.127 },
};

describe('a result in one line for the record', () => {
  it('says which way and how far for a nut, or that no place is in band', () => {
    expect(said('nut-setting', { ...nut, measuredMm: 0.0083 * 25.4 })).toBe('Tighten 1/16 turn: 0.0044 in');
    expect(said('nut-setting', { ...nut, measuredMm: 0.003 * 25.4 })).toBe(
      'Leave the nut where it stands: 0.0030 in',
    );
    const coarse = { kind: 'castellated', slots: 6, holeAxesDeg: [0] };
    expect(said('nut-setting', { ...nut, lock: coarse, measuredMm: 0.009 * 25.4 })).toBe(
      'No lock position is in band',
    );
  });

  it('shows figures in the unit of the device', () => {
    const wrench = { targetNm: 610.118 };
    expect(said('torque-setting', wrench)).toBe('setting 450 lbf·ft');
    expect(said('torque-setting', wrench, metricReader)).toBe('setting 610.1 N·m');
  });

  it('has words for every sum, short enough for a record', () => {
    for (const { name } of listCalculations()) {
      const words = said(name, describeCalculation(name)!.example);
      expect(words, name).not.toMatch(/undefined|NaN|\[object/);
      expect(words.length, name).toBeGreaterThan(3);
      expect(words.length, name).toBeLessThanOrEqual(500);
    }
  });
});
