import { describe, expect, it } from 'vitest';
import type { Sheet, StepData } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import type { Tool } from '../tool/index.ts';
import { hasKingpin, openParts, partsToJudge, describeEvent, type Meter } from './index.ts';
import { openingOn, soundParts, supervisor, technician, TestJob } from './testing/work.ts';

const lastWords = (t: TestJob) => describeEvent(t.job, t.job.events.at(-1)!, null);
const mm = (value: number) => quantity(value, 'mm');

/** A job on 2L at a step, its sheet changed. */
function jobAt(
  stepId: string,
  sheet: Partial<Sheet> = {},
  sheetId = 'a-drive-tang',
  meter: Meter = openingOn(['2L']).meter,
): TestJob {
  const opening = { ...openingOn(['2L'], sheetId), meter };
  const [w] = opening.wheelEnds;
  const t = new TestJob({ ...opening, wheelEnds: [{ ...w!, sheet: { ...w!.sheet, ...sheet } }] });
  t.workTo('2L', stepId);
  return t;
}
const schools = (sheet: Partial<Sheet['schools']>): Partial<Sheet> => ({
  schools: { ...openingOn(['2L']).wheelEnds[0]!.sheet.schools, lockCheck: 'who-locks', ...sheet },
});

describe('tear-down', () => {
  it('what looked wrong is picked from the list, or said', () => {
    const t = jobAt('looked-wrong');
    expect(t.recordStep('2L', { kind: 'found', signs: ['gremlins'] })).toMatch(/not on the list/);
    expect(t.recordStep('2L', { kind: 'found', signs: ['metal', 'heat'] })).toBeNull();
    expect(lastWords(t)).toBe('2L, What looked wrong: metal in the cap or the lubricant, signs of heat');
  });

  it('notes what the lock looked like before it is opened', () => {
    const t = jobAt('lock-as-found');
    expect(t.recordStep('2L', { kind: 'found', signs: ['nut-loose', 'not-locked'] })).toBeNull();
    expect(lastWords(t)).toBe('2L, What the lock looked like: nut finger-loose, not locked at all');
  });
});

describe('new beside old', () => {
  it('wants every new part; one that differs wants a reason', () => {
    const t = jobAt('judge-parts');
    const parts = soundParts(partsToJudge(t.at('2L')));
    const findings = parts.findings.map((f) =>
      f.component === 'cage' ? { ...f, seen: 'damaged', disposition: 'replace-set' as const } : f,
    );
    expect(t.recordStep('2L', { ...parts, findings })).toBeNull();
    t.workTo('2L', 'compare');
    const wanted = openParts(t.at('2L'), 'compare');
    expect(wanted).toEqual(['cage', 'hub-seal', 'lock-washer', 'flange-gasket']);
    const same = wanted.map((part) => ({ part, differs: [] }));
    expect(t.recordStep('2L', { kind: 'compare', parts: same.slice(1) })).toMatch(/Hold cage against/);
    const other: StepData = {
      kind: 'compare',
      parts: [{ part: 'cage', differs: ['width'] }, ...same.slice(1)],
    };
    expect(t.recordStep('2L', other)).toMatch(/Cage is not as the old one/);
    expect(t.recordStep('2L', { ...other, note: 'Newer set, same T' })).toBeNull();
    expect(lastWords(t)).toMatch(/Cage: width differs\. Newer set/);
  });
});

describe('the seal', () => {
  // Machined band 10 mm wide, lip 3 mm in from the seal's back, set about 5 mm below the face (common practice).
  const seat = {
    journalStart: mm(3),
    journalEnd: mm(13),
    lip: mm(3),
    deepest: mm(12),
  };

  it('sits where its lip runs on sound journal, or somebody says why not', () => {
    const t = jobAt('seal');
    const seal = (depth?: number, note?: string): StepData => ({
      kind: 'seal',
      outside: 'dry',
      seat,
      ...(depth === undefined ? {} : { depth: mm(depth) }),
      ...(note ? { note } : {}),
    });
    expect(t.recordStep('2L', seal())).toMatch(/depth of the seal/);
    expect(t.recordStep('2L', seal(10))).toMatch(/does not run on sound journal/);
    expect(t.recordStep('2L', seal(5))).toBeNull();
    expect(lastWords(t)).toBe('2L, Seal in: 5 mm below the hub face, outside dry');
  });

  it('misses the old groove (geometry)', () => {
    const t = jobAt('seal');
    const grooved = { ...seat, grooveStart: mm(7), grooveEnd: mm(9) };
    const at = (depth: number): StepData => ({
      kind: 'seal',
      outside: 'dry',
      seat: grooved,
      depth: mm(depth),
    });
    expect(t.recordStep('2L', at(5))).toMatch(/sound journal/);
    const backwards = { ...grooved, grooveEnd: mm(6) };
    expect(t.recordStep('2L', { ...at(5), seat: backwards } as StepData)).toMatch(/ends before it begins/);
    expect(t.recordStep('2L', at(8))).toBeNull();
  });
});

describe('lubricant and joint', () => {
  it('packs what the sheet asks for, or says why', () => {
    const t = jobAt('pack', {}, 'd-towed');
    const pack = { kind: 'pack', lubricant: t.at('2L').sheet.lubricant.name, by: 'hand' } as const;
    expect(t.recordStep('2L', { ...pack, by: 'oiled' })).toMatch(/runs in grease/);
    expect(t.recordStep('2L', { ...pack, lubricant: 'Moly, lithium 12' })).toMatch(/Enter why another/);
    expect(t.recordStep('2L', { ...pack, amount: quantity(180, 'g') })).toBeNull();
    expect(lastWords(t)).toMatch(/by hand, 180 g/);
  });

  it('says what closes the cap; the sheet may ask for one of them', () => {
    const t = jobAt('fill', schools({ joint: 'gasket' }));
    const fill = { kind: 'fill', lubricant: t.at('2L').sheet.lubricant.name } as const;
    expect(t.recordStep('2L', fill)).toMatch(/what closes the cap/);
    expect(t.recordStep('2L', { ...fill, joint: 'sealant' })).toMatch(/with a gasket: say why not/);
    expect(t.recordStep('2L', { ...fill, joint: 'gasket' })).toBeNull();
  });
});

describe('the second person', () => {
  it('looks at the lock in a step of their own, under their own name', () => {
    const t = jobAt('lock', schools({ lockCheck: 'second-person' }));
    expect(t.recordStep('2L', { kind: 'lock', method: 'one-tang' })).toBeNull();
    expect(t.step('2L')?.id).toBe('lock-looked-at');
    expect(t.skip('2L', 'Nobody here')).toMatch(/cannot be skipped/);
    expect(t.recordStep('2L', { kind: 'inspect', ok: true }, technician)).toMatch(/Another person/);
    expect(t.recordStep('2L', { kind: 'inspect', ok: true }, supervisor)).toBeNull();
  });

  it('looks again when the lock was made again', () => {
    const t = jobAt('fill', schools({ lockCheck: 'second-person' }));
    expect(t.redo('2L', 'lock', { kind: 'lock', method: 'two-tangs' })).toBeNull();
    expect(t.step('2L')?.id).toBe('lock-looked-at');
  });

  it('is not asked for where the sheet does not', () => {
    const t = jobAt('lock', schools({}));
    t.recordStep('2L');
    expect(t.step('2L')?.id).not.toBe('lock-looked-at');
  });
});

describe('what a shop does with good-looking bearings', () => {
  it('renewed where the sheet says so, with its reason', () => {
    const t = jobAt('judge-parts', schools({ bearings: 'renew' }));
    const sound = soundParts(partsToJudge(t.at('2L')));
    expect(t.recordStep('2L', sound)).toMatch(/asks for something else/);
    const renewed = sound.findings.map((f) =>
      f.component === 'cups-and-rollers' ? { ...f, disposition: 'replace-set' as const } : f,
    );
    expect(t.recordStep('2L', { ...sound, findings: renewed })).toBeNull();
    expect(openParts(t.at('2L'), 'compare')).toContain('cups-and-rollers');
  });
});

describe('the tool', () => {
  const wrench: Tool = {
    id: technician.id,
    kind: 'torque-wrench',
    code: 'TW-01',
    title: 'Short wrench',
    calibratedUntil: '2027-01-31',
    min: quantity(40, 'lbf-ft'),
    max: quantity(250, 'lbf-ft'),
  };
  const torqued = (value: number, more: object = {}): StepData => ({
    kind: 'torque',
    torque: quantity(value, 'lbf-ft'),
    tool: 'TW-01',
    rounds: 1,
    listed: wrench,
    ...more,
  });

  it('from the list must be in calibration and able to do it (ISO 6789)', () => {
    const t = jobAt('seat');
    const late = { listed: { ...wrench, calibratedUntil: '2026-11-24' } };
    expect(t.recordStep('2L', torqued(200, late))).toMatch(/out of calibration/);
    const small: Tool = { ...wrench, max: quantity(150, 'lbf-ft') };
    expect(t.recordStep('2L', torqued(200, { listed: small }))).toMatch(/good from 40 to 150/);
    expect(t.recordStep('2L', torqued(200))).toBeNull();
  });

  it('is judged by what is set on it, multiplier counted in', () => {
    const t = jobAt('jam-nut', {
      jamTorque: openingOn(['2L'], 'a-drive-dowel').wheelEnds[0]!.sheet.jamTorque,
    });
    expect(t.recordStep('2L', torqued(350))).toMatch(/good from/);
    const via = { multiplier: { ratio: 4, efficiency: 0.9 } };
    expect(t.recordStep('2L', torqued(350, { via }))).toBeNull();
    expect(lastWords(t)).toMatch(/350 lbf·ft with TW-01 through a multiplier of 4/);
  });

  it('of a retorque as well', () => {
    const t = jobAt('none');
    t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    const torque = quantity(450, 'lbf-ft');
    const done = { kind: 'retorque-recorded', position: '2L', torque, tool: 'TW-01' } as const;
    expect(t.try({ ...done, listed: wrench })).toMatch(/good from/);
    expect(t.try({ ...done, listed: { ...wrench, max: quantity(600, 'lbf-ft') } })).toBeNull();
  });

  it('for end play is a dial that is fine enough', () => {
    const t = jobAt('end-play');
    t.readings('2L', 0.003, 0.003, 0.003);
    const coarse: Tool = {
      id: wrench.id,
      title: 'Shop dial',
      code: 'DI-09',
      kind: 'dial-indicator',
      calibratedUntil: '2027-01-31',
      graduation: quantity(0.05, 'mm'),
    };
    expect(t.recordStep('2L', { kind: 'measure', by: 'dial', listed: coarse })).toMatch(/too coarse/);
    const fine: Tool = { ...coarse, graduation: quantity(0.01, 'mm') };
    expect(t.recordStep('2L', { kind: 'measure', by: 'dial', listed: fine })).toBeNull();
    expect(lastWords(t)).toBe('2L, Measure end play: accepted by dial, DI-09');
  });
});

describe('the kingpin', () => {
  it('is asked for only where there is one', () => {
    const t = jobAt('rock', {}, 'a-trailer');
    const felt = { kind: 'joint', felt: 'twelve-six', knuckleToHub: mm(0.3) } as const;
    const asked = { ...felt, axleToKnuckle: mm(0.02), kingpinLimit: mm(0.25) };
    expect(t.recordStep('2L', asked)).toBe('2L has no kingpin to measure');
    expect(t.recordStep('2L', felt)).toBeNull();
    expect(hasKingpin(new TestJob(openingOn(['2L'], 'a-steer-double')).at('2L'))).toBe(true);
    const swivel = new TestJob(openingOn(['2L'], 'l-swivel')).at('2L');
    expect(hasKingpin({ ...swivel, axle: 'drive' })).toBe(true);
  });
});

it('the wheel nuts are torqued again by the sheet’s own rule where it has one', () => {
  const retorque = {
    from: quantity(50, 'mi'),
    by: quantity(75, 'mi'),
    hours: null,
    days: 5,
    mark: 'common-practice',
    source: 'Common practice',
  } as const;
  const t = jobAt('none', { retorque });
  t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
  // 50 and 75 mi (common practice, no source) on 611,240 km.
  expect(t.at('2L').release?.followUp).toEqual({ fromKm: 611_320.5, byKm: 611_360.7, byDate: '2026-11-30' });
  // A machine has an hour meter alone.
  const machine = jobAt('none', { retorque: { ...retorque, hours: quantity(50, 'h') } }, 'a-drive-tang', {
    hours: quantity(4_820, 'h'),
  });
  machine.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
  expect(machine.at('2L').release?.followUp).toMatchObject({ fromKm: null, byHours: 4_870 });
});
