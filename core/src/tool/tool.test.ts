import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import {
  describeTool,
  describeToolRefusal,
  toolSchema,
  usableRangeNm,
  whyNotTool,
  type Tool,
} from './index.ts';

const base = {
  id: '00000000-0000-4000-8000-000000000001',
  title: 'Long wrench',
  calibratedUntil: '2027-03-01',
};
const wrench: Tool = {
  ...base,
  kind: 'torque-wrench',
  code: 'TW-03',
  min: quantity(70, 'Nm'),
  max: quantity(700, 'Nm'),
};
const dial = (value: number, unit: 'in' | 'mm'): Tool => ({
  ...base,
  kind: 'dial-indicator',
  code: 'DI-04',
  graduation: quantity(value, unit),
});
const today = '2026-11-25';

const words = (...asked: Parameters<typeof whyNotTool>) => {
  const refusal = whyNotTool(...asked);
  return refusal && describeToolRefusal(refusal);
};

describe('whether a tool may be used', () => {
  it('a torque wrench in the upper 80 % of its range (ISO 6789)', () => {
    expect(usableRangeNm(wrench as Extract<Tool, { kind: 'torque-wrench' }>)).toEqual([140, 700]);
    const of = (settingNm: number) => words(wrench, { kind: 'torque-wrench', today, settingNm });
    expect([of(140), of(400), of(700)]).toEqual([null, null, null]);
    expect(of(139)).toBe('TW-03 is good from 140 to 700 N·m');
    expect(of(701)).toBe('TW-03 is good from 140 to 700 N·m');
  });

  it('inside its calibration, the last day included; never without one', () => {
    const use = { kind: 'torque-wrench', settingNm: 400 } as const;
    expect(whyNotTool(wrench, { ...use, today: '2027-03-01' })).toBeNull();
    expect(words(wrench, { ...use, today: '2027-03-02' })).toBe(
      'TW-03 is out of calibration since 2027-03-01',
    );
    expect(words({ ...wrench, calibratedUntil: null }, { ...use, today })).toMatch(/no calibration/);
  });

  it('a dial graduated in 0.001 in or finer (common practice, no source), and no other kind of tool', () => {
    const use = { kind: 'dial-indicator', today } as const;
    expect(whyNotTool(dial(0.001, 'in'), use)).toBeNull();
    expect(whyNotTool(dial(0.01, 'mm'), use)).toBeNull();
    expect(whyNotTool(dial(0.05, 'mm'), use)?.code).toBe('too-coarse');
    expect(whyNotTool(wrench, use)?.code).toBe('other-kind');
  });

  it('says what it can do', () => {
    expect(
      describeTool({ ...wrench, min: quantity(50, 'lbf-ft'), max: quantity(250, 'lbf-ft') } as Tool),
    ).toBe('50 to 250 lbf·ft');
    expect(describeTool(dial(0.0005, 'in'))).toBe('0.0005 in');
  });

  it('a socket by its points, whatever its calibration; it and an adapter say what they are', () => {
    const socket = toolSchema.parse({
      ...{ ...base, kind: 'socket', code: 'SK-01', calibratedUntil: null },
      ...{ size: quantity(2.625, 'in'), points: 8, drive: '3/4' },
    });
    const use = { kind: 'socket', today } as const;
    expect(whyNotTool(socket, use)).toBeNull();
    expect(whyNotTool(socket, { ...use, points: [6, 8] })).toBeNull();
    expect(words(socket, { ...use, points: [6] })).toBe('SK-01 has 8 points');
    expect(describeTool(socket)).toBe('2.625 in, 8 points, 3/4 in drive');
    const adapter = { ...base, kind: 'adapter', code: 'AD-1', length: quantity(50, 'mm'), drive: '1/2' };
    expect(describeTool(toolSchema.parse(adapter))).toBe('50 mm long, 1/2 in drive');
    const onDrive = (drive: '1/2' | '3/4') =>
      words(toolSchema.parse(adapter), { kind: 'adapter', today, drive });
    expect([onDrive('1/2'), onDrive('3/4')]).toEqual([null, 'AD-1 is for a drive of 1/2 in']);
    expect(toolSchema.safeParse({ ...socket, points: 7 }).success).toBe(false);
    expect(describeTool({ ...wrench, drive: '3/4' } as Tool)).toBe('70 to 700 N·m, 3/4 in drive');
  });

  it('refuses a range that runs backwards, and names the field', () => {
    const turned = { ...wrench, min: quantity(700, 'Nm'), max: quantity(70, 'Nm') };
    expect(toolSchema.safeParse(turned).error?.issues[0]?.path).toEqual(['max', 'value']);
  });

  it('any torque is refused exactly where it lies outside the upper 80 % of the range (ISO 6789)', () => {
    const range = fc.tuple(
      fc.double({ min: 1, max: 500, noNaN: true }),
      fc.double({ min: 1.01, max: 20, noNaN: true }),
    );
    fc.assert(
      fc.property(range, fc.double({ min: 0, max: 12_000, noNaN: true }), ([min, ratio], settingNm) => {
        const [low, high] = [quantity(min, 'Nm'), quantity(min * ratio, 'Nm')];
        const tool = { ...wrench, min: low, max: high } as Tool;
        const [from, to] = usableRangeNm({ min: low, max: high });
        fc.pre(Math.min(Math.abs(settingNm - from), Math.abs(settingNm - to)) > 1e-6);
        const fits = settingNm > from && settingNm < to;
        expect(whyNotTool(tool, { kind: 'torque-wrench', today, settingNm }) === null).toBe(fits);
      }),
    );
  });
});
