import { describe, expect, it } from 'vitest';
import {
  familySheet,
  familySheets,
  findProcedure,
  procedures,
  sheetSchema,
  stageOrder,
  stepsOf,
  whyNotAdjustable,
  type Sheet,
} from './index.ts';

const adjustIds = (id: string, from: 'start' | 'setting' = 'start', chosen = {}) =>
  stepsOf(findProcedure(id)!, from, chosen)
    .filter((s) => s.stage === 'adjust')
    .map((s) => s.id);

describe('family A', () => {
  it('walks RP 618 in its order (TMC RP 618, order recalled from memory)', () => {
    expect(adjustIds('a-two-nuts')).toEqual([
      'lubricate',
      'seat',
      'rotate',
      'loosen',
      'set',
      'back-off',
      'washer',
      'jam-nut',
    ]);
  });

  it.each([
    ['a-drive-dowel', 200, 50, -0.25, 300, 400, 'published'],
    ['a-drive-tang', 200, 50, -0.25, 200, 275, 'from-memory'],
    ['a-trailer', 200, 50, -0.25, 300, 400, 'from-memory'],
    ['a-steer-double', 200, 50, -0.5, 200, 300, 'from-memory'],
  ])(
    '%s carries the figures of RP 618 (values from memory)',
    (id, seat, set, backOff, jamMin, jamMax, mark) => {
      const sheet = familySheet(id)!;
      expect([sheet.seatTorque?.max, sheet.setTorque?.max].map((q) => [q?.value, q?.unit])).toEqual([
        [seat, 'lbf-ft'],
        [set, 'lbf-ft'],
      ]);
      expect(sheet.backOff?.turns).toBe(backOff);
      expect([sheet.jamTorque?.min.value, sheet.jamTorque?.max.value, sheet.jamTorque?.mark]).toEqual([
        jamMin,
        jamMax,
        mark,
      ]);
    },
  );

  it('measures after the jam nut, never before, and locks after the measurement', () => {
    const ids = stepsOf(findProcedure('a-two-nuts')!, 'start', {}).map((s) => s.id);
    expect(ids.indexOf('jam-nut')).toBeLessThan(ids.indexOf('end-play'));
    expect(ids.indexOf('end-play')).toBeLessThan(ids.indexOf('lock'));
  });
});

describe('family D', () => {
  it('backs a single steer nut off by its thread (TMC RP 618, values from memory)', () => {
    expect(familySheet('d-steer-12')?.backOff?.turns).toBeCloseTo(-1 / 6, 12);
    expect(familySheet('d-steer-18')?.backOff?.turns).toBe(-0.25);
    expect(adjustIds('d-steer-single-nut')).toEqual([
      'lubricate',
      'seat',
      'rotate',
      'loosen',
      'set',
      'back-off',
      'to-slot',
    ]);
  });

  it('accepts both towed schools and follows the one chosen (common practice, no source)', () => {
    expect(adjustIds('d-towed')).toEqual(['school', 'to-slot']);
    expect(adjustIds('d-towed', 'start', { school: 'torque' })).toEqual([
      'school',
      'seat',
      'free',
      'to-slot',
    ]);
    expect(adjustIds('d-towed', 'start', { school: 'finger' })).toEqual([
      'school',
      'finger-tight',
      'to-slot',
    ]);
  });
});

describe('every procedure', () => {
  it.each(procedures.map((p) => [p.id, p] as const))(
    '%s keeps the order of work and names each step once',
    (_id, procedure) => {
      const steps = stepsOf(procedure, 'start', { school: 'torque' });
      const orders = steps.map((s) => stageOrder(s.stage));
      expect([...orders].sort((a, b) => a - b)).toEqual(orders);
      expect(new Set(steps.map((s) => `${s.stage}/${s.id}`)).size).toBe(steps.length);
      expect(steps.filter((s) => s.kind === 'lock')).toHaveLength(1);
      expect(adjustIds(procedure.id, 'setting')).toContain('planned-turn');
    },
  );
});

describe('family sheets', () => {
  it.each(familySheets.map((s) => [s.sheetId, s] as const))('%s is whole', (_id, sheet) => {
    expect(sheetSchema.parse(sheet)).toEqual(sheet);
    expect(whyNotAdjustable(sheet) === null).toBe(sheet.procedureId !== null);
  });

  it('cannot be worked on while a figure is missing', () => {
    const sheet: Sheet = { ...familySheet('a-trailer')!, jamTorque: null };
    expect(whyNotAdjustable(sheet)).toMatch(/no figure for “Jam nut”/);
    expect(whyNotAdjustable({ ...sheet, band: null })).toMatch(/no end-play band/);
    expect(whyNotAdjustable(familySheet('f-plain')!)).toMatch(/no procedure/);
  });

  it('refuses a range that runs backwards and names the field', () => {
    const figure = familySheet('a-trailer')!.jamTorque!;
    const result = sheetSchema.safeParse({
      ...familySheet('a-trailer'),
      jamTorque: { ...figure, min: figure.max, max: figure.min },
    });
    expect(result.error?.issues[0]?.path).toEqual(['jamTorque', 'max', 'value']);
  });
});
