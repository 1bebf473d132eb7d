import { describe, expect, it } from 'vitest';
import type { StepData, TorqueFigure } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import type { Work } from '../stack/index.ts';
import { linesToAnswer, partsToJudge, progressOf } from './index.ts';
import { answer, openingOn, soundParts, supervisor, TestJob } from './testing/work.ts';
import { codes } from './testing/ways.ts';

function jobOn(name: string, works: Work[], sheet: object = {}): TestJob {
  const { sheetId, stack } = everyStack.find((s) => s.name === name)!;
  const opening = openingOn(['1L'], sheetId, works);
  const [w] = opening.wheelEnds;
  const wheelEnds = [{ ...w!, sheet: { ...w!.sheet, ...sheet }, route: { ...w!.route!, stack: [...stack] } }];
  return new TestJob({ ...opening, wheelEnds });
}

const done = (t: TestJob) =>
  progressOf(t.at('1L')).flatMap(({ step, record }) => (record?.data ? [step.id] : []));
const nm = (value: number) => quantity(value, 'Nm');
type Rolling = Extract<StepData, { kind: 'rolling' }>;
const turns = (more: Partial<Rolling>): StepData => ({ kind: 'rolling', bearings: 'run-in', ...more });

// Makers of such hubs ask for a rolling torque of new bearings about twice that of run-in ones: value from memory.
const makers = (min: number, max: number): TorqueFigure => ({
  ...{ min: nm(min), max: nm(max) },
  ...{ mark: 'shop', source: 'Maker’s sheet' },
});
const figures = { rollingNew: makers(10, 16), rollingRunIn: makers(5, 8) };

describe('a hub with reduction', () => {
  it('comes apart through its carrier, is sealed by faces and proved by its rolling torque before the carrier is in', () => {
    const t = jobOn('planetary front', ['seal']);
    const lines = linesToAnswer(t.at('1L')).map((l) => l.what);
    expect(lines).toEqual(
      expect.arrayContaining([
        'part:face-seal',
        'part:cover-ring',
        'face-seal-tool',
        'carrier-eye',
        'pull-scale',
      ]),
    );
    expect(lines).not.toContain('part:hub-seal');
    expect(lines).not.toContain('dial');
    t.workTo('1L', 'judge-parts');
    expect(partsToJudge(t.at('1L'))).toEqual(expect.arrayContaining(['planet-carrier', 'cups-and-rollers']));
    t.workTo('1L');
    const order = ['oil-out', 'cap-off', 'hub-off', 'seal', 'seal-height', 'hub-on', 'run-up', 'rotate'];
    const after = ['rolling-torque', 'lock', 'carrier-in', 'fill', 'flange-nuts', 'oil-level'];
    const steps = done(t);
    expect([...order, ...after].map((id) => steps.indexOf(id))).toEqual(
      [...order, ...after].map((id) => steps.indexOf(id)).sort((a, b) => a - b),
    );
    expect(steps.indexOf('oil-out')).toBeGreaterThanOrEqual(0);
    expect(t.try({ kind: 'wheel-end-released', position: '1L' }, supervisor)).toBeNull();
  });

  it('does not count a rolling torque off its figure; new bearings have another one', () => {
    const t = jobOn('planetary front', ['adjust'], figures);
    t.workTo('1L', 'rolling-torque');
    const off = [4.9, 8.1].map((value) => turns({ torque: nm(value) }));
    for (const data of off) {
      expect(t.recordStep('1L', data)).toBeNull();
      expect(t.step('1L')?.id).toBe('rolling-torque');
    }
    expect(t.recordStep('1L', turns({ bearings: 'new', torque: nm(7) }))).toBeNull();
    expect(t.step('1L')?.id).toBe('rolling-torque');
    expect(codes(t, '1L')).toContain('missing');
    expect(t.recordStep('1L', turns({ torque: nm(7) }))).toBeNull();
    expect(t.step('1L')?.id).toBe('lock');
  });

  it('reckons the torque from a cord, less what the seal drags (force times radius)', () => {
    const t = jobOn('planetary front', ['adjust'], figures);
    t.workTo('1L', 'rolling-torque');
    const cord = { pull: quantity(60, 'N'), radius: quantity(150, 'mm') };
    // 9 N·m in all, 2 of them the seal's.
    expect(t.recordStep('1L', turns({ ...cord, sealDrag: nm(9.5) }))).toMatch(/seal alone/);
    expect(t.recordStep('1L', turns(cord))).toBeNull();
    expect(t.step('1L')?.id).toBe('rolling-torque');
    expect(t.recordStep('1L', turns({ ...cord, sealDrag: nm(2) }))).toBeNull();
    expect(t.step('1L')?.id).toBe('lock');
  });

  it('asks for the maker’s figure where the sheet has none, and refuses what cannot be', () => {
    const t = jobOn('planetary front', ['adjust']);
    t.workTo('1L', 'rolling-torque');
    expect(t.recordStep('1L', turns({ torque: nm(7) }))).toMatch(/Enter the rolling torque/);
    const asked = { least: nm(8), most: nm(5) };
    expect(t.recordStep('1L', turns({ torque: nm(7), asked }))).toMatch(/least is over the most/);
    expect(t.recordStep('1L', turns({ torque: nm(0), asked }))).toMatch(/over zero/);
  });

  it('void when the nut is run up once more', () => {
    const t = jobOn('planetary front', ['adjust'], figures);
    t.workTo('1L', 'lock');
    expect(t.redo('1L', 'run-up', { kind: 'instruct' })).toBeNull();
    expect(t.step('1L')?.id).toBe('rotate');
    t.workTo('1L', 'lock');
    expect(done(t)).toContain('rolling-torque');
  });

  it('metal or water in its oil asks for the bearings', () => {
    const t = jobOn('planetary front', ['seal']);
    t.workTo('1L', 'oil-out');
    expect(t.recordStep('1L', { kind: 'found', signs: ['metal'] })).toBeNull();
    expect(codes(t, '1L')).toContain('finding');
    t.workTo('1L', 'judge-parts');
    expect(t.recordStep('1L', soundParts(partsToJudge(t.at('1L'))))).toBeNull();
    expect(codes(t, '1L')).not.toContain('finding');
  });
});

describe('bearings preloaded by shims', () => {
  const mm = (value: number) => quantity(value, 'mm');
  const shims = (chosen: number, more: object = {}): StepData => ({
    ...{ kind: 'shims', current: mm(1.5), play: mm(0.3), thicker: 'looser' },
    ...{ preload: { least: mm(0.02), most: mm(0.08) }, chosen: mm(chosen), ...more },
  });

  it('the stack follows from the play that was measured and the preload that is asked for (geometry)', () => {
    const t = jobOn('dumper hub, shims', ['bearings']);
    t.workTo('1L', 'shims');
    // 1.50 less 0.30 of play less 0.02 to 0.08 of preload: 1.12 to 1.18.
    for (const off of [1.11, 1.19, 1.5]) {
      expect(t.recordStep('1L', shims(off))).toBeNull();
      expect(t.step('1L')?.id).toBe('shims');
    }
    expect(t.recordStep('1L', shims(1.15))).toBeNull();
    expect(t.step('1L')?.id).toBe('plate-bolts');
  });

  it('a thicker stack that draws together is reckoned the other way', () => {
    const t = jobOn('dumper hub, shims', ['bearings']);
    t.workTo('1L', 'shims');
    expect(t.recordStep('1L', shims(1.15, { thicker: 'tighter' }))).toBeNull();
    expect(t.step('1L')?.id).toBe('shims');
    expect(t.recordStep('1L', shims(1.85, { thicker: 'tighter' }))).toBeNull();
    expect(t.step('1L')?.id).toBe('plate-bolts');
  });

  it('is refused from no play: the preload does not show there', () => {
    const t = jobOn('dumper hub, shims', ['bearings']);
    t.workTo('1L', 'shims');
    expect(t.recordStep('1L', shims(1.15, { play: mm(0) }))).toMatch(/at zero the preload does not show/);
    const preload = { least: mm(-0.02), most: mm(0.08) };
    expect(t.recordStep('1L', shims(1.15, { preload }))).toMatch(/not negative/);
  });
});

describe('hubs that are never opened', () => {
  it.each([
    ['trailer compact hub', 'unit-hub'],
    ['caravan rubber axle', 'brakes'],
  ] as const)('%s: off its spindle and on, with a new nut', (name, work) => {
    const t = jobOn(name, [work]);
    expect(linesToAnswer(t.at('1L')).map((l) => l.what)).toContain('part:flange-nut');
    t.workTo('1L');
    const steps = done(t);
    expect(steps).toEqual(expect.arrayContaining(['unit-hub-off', 'axle-nut', 'lock']));
    expect(steps).not.toContain('hub-bolts');
    if (work === 'brakes')
      expect(steps).toEqual(expect.arrayContaining(['brakes-back', 'inner-brake-proved']));
    expect(codes(t, '1L')).toEqual([]);
  });

  it('the nut that is used once does not go on again for the road', () => {
    const t = jobOn('caravan rubber axle', ['unit-hub']);
    const ready = answer(t.at('1L'), t.step('1L')!);
    if (ready.kind !== 'ready') throw new Error('a job begins with what is at hand');
    const what = 'part:flange-nut';
    const lines = ready.lines.map((l) => (l.what === what ? { ...l, state: 'missing' as const } : l));
    expect(t.recordStep('1L', { ...ready, lines, note: 'To be got' })).toBeNull();
    t.workTo('1L', 'axle-nut');
    t.do({ kind: 'part-received', position: '1L', what, as: 'reused' });
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual(['old-part-in']);
  });
});
