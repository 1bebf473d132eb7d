import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import type { Work } from '../stack/index.ts';
import { againstRelease, describeEvent, isClosed, type StoredEvent } from './index.ts';
import { codes, correct, ids, release, todo } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

const mm = (value: number) => quantity(value, 'mm');

function on(name: string, works: Work[]): TestJob {
  const built = everyStack.find((b) => b.name === name)!;
  const opening = openingOn(['1L'], built.sheetId, works);
  const [w] = opening.wheelEnds;
  return new TestJob({
    ...opening,
    wheelEnds: [{ ...w!, route: { ...w!.route!, stack: [...built.stack] } }],
  });
}
const last = (t: TestJob) => describeEvent(t.job, t.job.events.at(-1) as StoredEvent, null);

describe('a drum', () => {
  const at = (...sizes: number[]) => ({
    kind: 'wear' as const,
    measured: sizes.map(mm),
    discard: mm(424),
  });

  it('is measured where its brake is worked on, and not where a seal is', () => {
    expect(ids(on('heavy drive', ['brakes']), '1L')).toContain('brake-wear');
    expect(ids(on('heavy drive', ['linings']), '1L')).toContain('brake-wear');
    expect(ids(on('towed caravan', ['brakes']), '1L')).toContain('brake-wear');
    expect(ids(on('heavy drive', ['seal']), '1L')).not.toContain('brake-wear');
  });

  it('past its discard figure is kept on record and does not count; the new one does', () => {
    const t = on('heavy drive', ['brakes']);
    t.workTo('1L', 'brake-wear');
    expect(t.recordStep('1L', at(420, 424.5))).toMatch(/past its discard figure/);
    expect(t.recordStep('1L', { ...at(420, 424.5), note: 'A new drum goes in' })).toBeNull();
    expect(last(t)).toContain('420 mm, 424.5 mm, discard at 424 mm. A new drum goes in');
    expect(t.step('1L')?.id).toBe('brake-wear');
    const against = againstRelease(t.at('1L')).find((o) => o.params['step'] === 'brake-wear');
    expect(against).toMatchObject({ code: 'said-no', guard: 'never' });
    expect(t.recordStep('1L', at(418))).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
    t.do(release('1L'), supervisor);
    expect(isClosed(t.job)).toBe(true);
  });
});

describe('a rotor', () => {
  it('that runs out does not count until it runs true, and needs its limit', () => {
    const t = on('heavy pre-set', ['brakes']);
    t.workTo('1L', 'brake-wear');
    const sizes = { kind: 'wear' as const, measured: [mm(40), mm(39.5)], discard: mm(37) };
    expect(t.recordStep('1L', { ...sizes, runout: mm(0.3) })).toMatch(/allows as runout/);
    const out = { ...sizes, runout: mm(0.3), runoutLimit: mm(0.15) };
    expect(t.recordStep('1L', out)).toMatch(/runs out/);
    expect(t.recordStep('1L', { ...out, note: 'Dirt behind the rotor' })).toBeNull();
    expect(todo(t, '1L')).toContain('brake-wear');
    expect(t.recordStep('1L', { ...out, runout: mm(0.15) })).toBeNull();
    expect(todo(t, '1L')).not.toContain('brake-wear');
  });

  it('is refused without a size', () => {
    const t = on('heavy pre-set', ['brakes']);
    t.workTo('1L', 'brake-wear');
    expect(t.recordStep('1L', { kind: 'wear', measured: [mm(0)], discard: mm(37) })).toMatch(/over zero/);
  });
});

describe('the stroke of an air chamber', () => {
  const stroke = (applied: number, more: object = {}) => ({
    kind: 'stroke' as const,
    released: mm(70),
    applied: mm(applied),
    chamber: 30 as const,
    stroke: 'standard' as const,
    ...more,
  });
  const atStroke = () => {
    const t = on('heavy drive', ['brakes']);
    t.workTo('1L', 'pushrod-stroke');
    return t;
  };

  it('is measured after the adjuster, and before the brake is proved', () => {
    const order = ids(on('heavy drive', ['linings']), '1L');
    expect(order.indexOf('adjuster')).toBeLessThan(order.indexOf('pushrod-stroke'));
    expect(order.indexOf('pushrod-stroke')).toBeLessThan(order.indexOf('brake-proved'));
    expect(ids(on('heavy drive', ['seal']), '1L')).not.toContain('pushrod-stroke');
    expect(ids(on('light-truck rear', ['brakes']), '1L')).not.toContain('pushrod-stroke');
  });

  it('over its limit asks for the cause, is kept, and does not count', () => {
    const t = atStroke();
    // 2 in is the limit of a standard type 30: 50.8 mm. Source: 49 CFR 393.47(e), value from memory.
    expect(t.recordStep('1L', stroke(121))).toMatch(/find the cause/);
    expect(t.recordStep('1L', stroke(121, { note: 'Clevis bush worn out' }))).toBeNull();
    expect(last(t)).toContain('51 mm of 50.8 mm, chamber 30, standard stroke: over its limit');
    expect(t.step('1L')?.id).toBe('pushrod-stroke');
    expect(t.recordStep('1L', stroke(120.8))).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
  });

  it('cannot be held against nothing, nor run backwards', () => {
    const t = atStroke();
    const bare = { kind: 'stroke', released: mm(70), applied: mm(110) } as const;
    expect(t.recordStep('1L', bare)).toMatch(/Choose the chamber/);
    expect(t.recordStep('1L', { ...bare, chamber: 36, stroke: 'long' })).toMatch(/Choose the chamber/);
    expect(t.recordStep('1L', stroke(60))).toMatch(/under the released/);
    expect(t.recordStep('1L', { ...bare, marked: mm(60) })).toBeNull();
  });

  it('is measured anew after the adjuster was turned', () => {
    const t = atStroke();
    t.workTo('1L');
    expect(correct(t, 'adjuster', null)).toBeNull();
    expect(todo(t, '1L')).toEqual(expect.arrayContaining(['adjuster', 'pushrod-stroke', 'brake-proved']));
  });
});
