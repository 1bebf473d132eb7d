import { describe, expect, it } from 'vitest';
import { oilTells } from '../route/index.ts';
import { fold, openFindings, progressOf } from './index.ts';
import { REASON, release } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

/** A trailer's oil hub whose cap came off, with the oil that was caught. */
function withOil(signs: string[], works: ('adjust' | 'bearings' | 'seal')[] = ['adjust']): TestJob {
  const t = new TestJob(openingOn(['2L'], 'a-trailer', works));
  t.workTo('2L', 'oil-out');
  expect(t.recordStep('2L', { kind: 'found', signs })).toBeNull();
  return t;
}
const ids = (t: TestJob) => progressOf(t.at('2L')).map((p) => p.step.id);
const found = (t: TestJob) => openFindings(t.at('2L')).map((f) => `${f.id}: ${f.guard}`);
/** Where the oil went, and everything after it. */
function leaked(t: TestJob, option: string): string[] {
  t.workTo('2L', 'oil-leak');
  expect(t.recordStep('2L', { kind: 'choose', option })).toBeNull();
  t.workTo('2L');
  return found(t);
}

describe('the oil of a hub', () => {
  it('is looked at before its cap is off, and asks for nothing where it is as it should be', () => {
    const t = withOil([]);
    expect(ids(t).indexOf('oil-out')).toBe(ids(t).indexOf('cap-off') - 1);
    t.workTo('2L');
    expect(ids(t)).not.toContain('oil-leak');
    expect(ids(t)).not.toContain('oil-washed');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('tells a leak, dirt, or both', () => {
    expect(oilTells([])).toBeNull();
    expect(oilTells(['paste', 'over'])).toBeNull();
    expect(oilTells(['low'])).toBe('leak');
    expect(oilTells(['burnt'])).toBe('dirt');
    expect(oilTells(['metal'])).toBe('dirt');
    expect(oilTells(['water'])).toBe('leak-and-dirt');
    expect(oilTells(['low', 'metal'])).toBe('leak-and-dirt');
  });

  it('with metal or water in it, is washed out, and the bearings are judged', () => {
    for (const sign of ['metal', 'water']) {
      const t = withOil([sign]);
      t.workTo('2L', 'oil-washed');
      if (ids(t).includes('oil-leak')) expect(sign).toBe('water');
      t.workTo('2L');
      expect(found(t)).toEqual(['oil: never']);
      expect(t.try(release('2L', REASON), supervisor)).toMatch(/bearings were not judged/);
      t.do({ kind: 'work-added', position: '2L', work: 'bearings', reason: 'Metal in the oil' });
      t.workTo('2L');
      expect(found(t)).toEqual([]);
      expect(t.try(release('2L'), supervisor)).toBeNull();
    }
  });

  it('new oil goes in after the old was washed out: filled before it, it counts for nothing', () => {
    const t = withOil(['metal'], ['bearings']);
    t.workTo('2L', 'oil-washed');
    const fill = progressOf(t.at('2L')).find((p) => p.step.id === 'fill')!.step;
    const amount = { value: 1, unit: 'L', si: 0.001 } as const;
    const data = {
      kind: 'fill',
      lubricant: t.at('2L').sheet.lubricant.name,
      amount,
      joint: 'gasket',
    } as const;
    t.do({ kind: 'step-recorded', position: '2L', stage: fill.stage, stepId: 'fill', round: 1, data });
    t.workTo('2L');
    expect(
      t.job.events.filter((e) => e.body.kind === 'step-recorded' && e.body.stepId === 'fill'),
    ).toHaveLength(2);
  });

  it('that is clean because it is new tells nothing of what came out before', () => {
    const t = withOil(['metal']);
    t.workTo('2L', 'oil-level');
    t.do({ kind: 'layer-opened', position: '2L', layer: 'cap', reason: 'The gasket was cut' });
    t.workTo('2L', 'oil-out');
    expect(t.recordStep('2L', { kind: 'found', signs: [] })).toBeNull();
    t.workTo('2L');
    expect(found(t)).toEqual(['oil: never']);
  });

  it('burnt, it is the bearings, unless a supervisor says otherwise', () => {
    const t = withOil(['burnt']);
    t.workTo('2L');
    expect(found(t)).toEqual(['oil-burnt: supervisor']);
    expect(t.try(release('2L'), supervisor)).toMatch(/burnt/);
    expect(t.try(release('2L', REASON), supervisor)).toBeNull();
  });

  it('missing, it went somewhere: that is mended, or a supervisor says why it may go', () => {
    expect(leaked(withOil(['low']), 'cap')).toEqual([]);
    expect(leaked(withOil(['low']), 'plug')).toEqual([]);
    expect(leaked(withOil(['low']), 'none')).toEqual(['oil-leak: supervisor']);
    // Past the seal it comes on to the brake: no adjustment lets that go.
    expect(leaked(withOil(['low']), 'seal')).toEqual(['oil-leak: never']);
    expect(leaked(withOil(['low'], ['seal']), 'seal')).toEqual([]);
    expect(leaked(withOil(['low']), 'hub')).toEqual(['oil-leak: never']);
    const bare = withOil(['low']);
    bare.workTo('2L');
    expect(ids(bare)).toContain('oil-leak');
  });

  it('was not asked by earlier rules: a release of those stands', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['adjust']));
    t.workTo('2L', 'cap-off');
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    const rules = (body: object) => ({ ...body, rules: 4 });
    const old = t.job.events.flatMap((e) => {
      if (e.body.kind === 'step-recorded' && e.body.stepId === 'oil-out') return [];
      return [e.body.kind === 'wheel-end-released' ? { ...e, body: rules(e.body) as typeof e.body } : e];
    });
    const of = fold(old.map((e, i) => ({ ...e, version: i + 1 })));
    expect(of.wheelEnds[0]!.release?.inDoubt).toBeNull();
  });
});
