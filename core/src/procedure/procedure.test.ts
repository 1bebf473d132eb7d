import { describe, expect, it } from 'vitest';
import {
  familySheet,
  familySheets,
  findProcedure,
  hubFill,
  procedures,
  sheetSchema,
  stageOrder,
  stepsOf,
  type Hub,
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
      'seat-2',
      'rotate-2',
      'seat-3',
      'rotate-3',
      'loosen',
      'set',
      'back-off',
      'washer',
      'jam-nut',
    ]);
  });

  it('keeps its first version, where the rounds were one step, and only the first round is a must', () => {
    const first = findProcedure('a-two-nuts', 1)!;
    expect(first.steps.map((s) => s.id)).not.toContain('seat-2');
    const { steps } = findProcedure('a-two-nuts')!;
    expect(steps.filter((s) => s.optional).map((s) => s.id)).toEqual([
      'seat-2',
      'rotate-2',
      'seat-3',
      'rotate-3',
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
      'seat-2',
      'rotate-2',
      'seat-3',
      'rotate-3',
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

describe('the other families', () => {
  it('B: three rounds at 200 and three at 100 lbf·ft, 1/8 turn on a drive axle (common practice, no source)', () => {
    expect(adjustIds('b-lock-ring')).toEqual([
      'seat',
      'seat-2',
      'seat-3',
      'loosen',
      'set',
      'set-2',
      'set-3',
      'back-off',
      'ring-in',
    ]);
    const sheet = familySheet('b-drive')!;
    expect([sheet.seatTorque?.max.value, sheet.setTorque?.max.value, sheet.backOff?.turns]).toEqual([
      200, 100, -0.125,
    ]);
  });

  it('C: one torque of 300 lbf·ft (common practice), ceiling 0.006 in (value from memory), no way to adjust', () => {
    const sheet = familySheet('c-preset')!;
    expect(adjustIds('c-preset')).toEqual(['set']);
    expect([sheet.setTorque?.max.value, sheet.band?.max.value, sheet.band?.mark]).toEqual([
      300,
      0.006,
      'from-memory',
    ]);
    expect(findProcedure('c-preset')!.readjust).toEqual([]);
  });

  it('E: 77 lbf·ft and a quarter turn back, twice; caliper bolts 118, each seen on one vehicle (common practice)', () => {
    expect(adjustIds('e-torque')).toEqual(['seat', 'back-off', 'seat-2', 'back-off-2']);
    const { seatTorque, backOff, caliperTorque } = familySheet('e-torque')!;
    expect([seatTorque?.max.value, backOff?.turns, caliperTorque?.max.value]).toEqual([77, -0.25, 118]);
    for (const figure of [seatTorque, backOff, caliperTorque]) expect(figure?.mark).toBe('seen-once');
  });

  it('wheel nuts: 135 to 140 lbf·ft seen on one light truck, 450 to 500 on hub-piloted M22 (TMC RP 222, from memory)', () => {
    for (const id of ['f-unitised', 'g-c-clip']) {
      const { wheelTorque, studs } = familySheet(id)!;
      expect([wheelTorque?.min.value, wheelTorque?.max.value, studs]).toEqual([135, 140, 8]);
      expect(wheelTorque?.mark).toBe('seen-once');
    }
    const { wheelTorque } = familySheet('a-drive-dowel')!;
    expect([wheelTorque?.min.value, wheelTorque?.max.value, wheelTorque?.mark]).toEqual([
      450,
      500,
      'from-memory',
    ]);
  });

  it.each([
    'd-towed',
    'd-farm-front',
    'h-lock-nuts',
    'j-shaft-seal',
    'k-spindle-needle',
    'l-swivel',
    'm-swaged-studs',
  ])('%s asks for the maker’s figure of its wheel nuts', (id) => {
    expect(familySheet(id)!.wheelTorque).toBeNull();
  });

  it('what has no end play asks for no dial, as found or after', () => {
    for (const id of [
      'g-c-clip',
      'h-lock-nuts',
      'j-shaft-seal',
      'k-spindle-needle',
      'l-swivel',
      'm-swaged-studs',
    ]) {
      const ids = stepsOf(findProcedure(id)!, 'start', {}).map((s) => s.id);
      expect(ids.filter((i) => i === 'as-found' || i === 'end-play')).toEqual([]);
    }
  });
});

describe('shared steps', () => {
  it('stay as they were for running jobs; the next version records what the bench does', () => {
    const ids = (version: number) =>
      stepsOf(findProcedure('b-lock-ring', version)!, 'start', {}).map((s) => s.id);
    for (const id of ['looked-wrong', 'compare', 'pack', 'seal']) {
      expect(ids(1)).not.toContain(id);
      expect(ids(2)).toContain(id);
    }
    const held = (id: string) => stepsOf(findProcedure(id)!, 'start', {}).map((s) => s.id);
    expect(held('f-unitised')).toContain('compare');
    expect(held('f-unitised')).not.toContain('pack');
  });
});

const hub: Hub = {
  bearings: [
    { boreMm: 70, outsideMm: 140, widthMm: 39, massKg: 2.4 },
    { boreMm: 55, outsideMm: 115, widthMm: 34, massKg: 1.5 },
  ],
  cavityMl: 600,
  cavityFillPercent: 50,
  mark: 'from-memory',
  source: 'Recalled',
};

describe('what a hub takes', () => {
  it('grease fills the bearings and part of the cavity, oil stands to a level (formula of bearing handbooks)', () => {
    const free =
      ((Math.PI / 4) * (140 ** 2 - 70 ** 2) * 39) / 1000 -
      2400 / 7.8 +
      ((Math.PI / 4) * (115 ** 2 - 55 ** 2) * 34) / 1000 -
      1500 / 7.8;
    const lubricant = (kind: 'grease' | 'oil') => ({ kind, name: 'x' });
    expect(hubFill({ hub, lubricant: lubricant('grease') })).toMatchObject({
      value: Math.round((free + 300) * 0.9),
      unit: 'g',
    });
    expect(hubFill({ hub, lubricant: lubricant('oil') })).toMatchObject({
      value: Math.round((free + 600) / 2),
      unit: 'mL',
    });
    expect(hubFill({ hub: null, lubricant: lubricant('oil') })).toBeNull();
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
      if (procedure.readjust.length > 0) expect(adjustIds(procedure.id, 'setting')).toContain('planned-turn');
    },
  );
});

describe('family sheets', () => {
  it.each(familySheets.map((s) => [s.sheetId, s] as const))('%s is whole', (_id, sheet) => {
    expect(sheetSchema.parse(sheet)).toEqual(sheet);
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
