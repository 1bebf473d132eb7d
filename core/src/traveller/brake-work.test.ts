import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import { stackSchema, type LayerOf, type Stack, type Work } from '../stack/index.ts';
import { againstRelease, describeEvent, isClosed, type StoredEvent } from './index.ts';
import { codes, correct, ids, release, todo } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

const withBrake = (stack: Stack, brake: object) =>
  stack.map((l) => (l.layer === 'brake-outer' ? { ...l, ...brake } : l));
const mm = (value: number) => quantity(value, 'mm');

function on(name: string, works: Work[], brake: Partial<LayerOf<'brake-outer'>> = {}): TestJob {
  const built = everyStack.find((b) => b.name === name)!;
  const opening = openingOn(['1L'], built.sheetId, works);
  const [w] = opening.wheelEnds;
  return new TestJob({
    ...opening,
    wheelEnds: [{ ...w!, route: { ...w!.route!, stack: withBrake(built.stack, brake) } }],
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

  it('is of the chamber that is on file, or says what is marked on another', () => {
    const t = on('heavy drive', ['brakes'], { chamberSize: 30, chamberStroke: 'long' });
    t.workTo('1L', 'pushrod-stroke');
    expect(t.recordStep('1L', stroke(110))).toMatch(/on file with another chamber/);
    expect(t.recordStep('1L', stroke(110, { chamber: 24, stroke: 'long' }))).toMatch(/another chamber/);
    expect(t.recordStep('1L', stroke(110, { note: 'Standard, new in the spring' }))).toBeNull();
    const u = on('heavy drive', ['brakes'], { chamberSize: 30, chamberStroke: 'long' });
    u.workTo('1L', 'pushrod-stroke');
    expect(u.recordStep('1L', stroke(110, { stroke: 'long' }))).toBeNull();
  });

  it('has a chamber of the table on file, on a brake that is worked by air', () => {
    const { stack } = everyStack.find((b) => b.name === 'heavy drive')!;
    const why = (brake: object) => stackSchema.safeParse(withBrake(stack, brake)).error?.issues[0]?.message;
    expect(why({ chamberSize: 30, chamberStroke: 'extra-long' })).toBeUndefined();
    expect(why({ chamberSize: 36, chamberStroke: 'long' })).toMatch(/chamber 36 with a stroke that none has/);
    expect(why({ by: 'hydraulic', chamberSize: 30 })).toMatch(/a chamber and no air brake/);
    expect(why({ by: 'hydraulic', chamberStroke: 'long' })).toMatch(/a chamber and no air brake/);
  });
});

describe('an adjuster', () => {
  const asked = (adjusting?: 'manual' | 'automatic') => {
    const t = on('heavy drive', ['brakes'], adjusting ? { adjusting } : {});
    t.workTo('1L', 'adjuster');
    return (t.step('1L') as { question: string }).question;
  };

  it('that is automatic is looked at and not turned, one set by hand is turned', () => {
    expect(asked('automatic')).toMatch(/take up by itself, stand at its angle/);
    expect(asked('manual')).toMatch(/Is the brake adjusted/);
    expect(asked()).toMatch(/Is the brake adjusted/);
  });
});

describe('a caliper worked by air', () => {
  it('has its pins, boots and clearance looked at where its brake is worked on', () => {
    expect(ids(on('heavy pre-set', ['brakes']), '1L')).toEqual(
      expect.arrayContaining(['guide-pins', 'running-clearance']),
    );
    expect(ids(on('heavy pre-set', ['seal']), '1L')).not.toContain('guide-pins');
    expect(ids(on('light-truck front', ['brakes']), '1L')).not.toContain('guide-pins');
    expect(ids(on('heavy drive', ['brakes']), '1L')).not.toContain('running-clearance');
  });

  it('off its clearance holds the release, whatever is written beside it', () => {
    const t = on('heavy pre-set', ['brakes']);
    t.workTo('1L', 'running-clearance');
    const at = (value: number, note?: string) => ({
      ...{ kind: 'dimension' as const, value: mm(value), asked: { least: mm(0.6), most: mm(1.1) } },
      ...(note ? { note } : {}),
    });
    expect(t.recordStep('1L', at(1.6))).toMatch(/off/i);
    expect(t.recordStep('1L', at(1.6, 'It does not take up'))).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual(['dimension-off']);
    expect(t.try(release('1L', 'It stays in the yard for today'), supervisor)).not.toBeNull();
  });
});
