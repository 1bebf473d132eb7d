import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import type { Work } from '../stack/index.ts';
import { fold, progressOf, whatIsLeft } from './index.ts';
import { codes, ids, recordOf, release, step, todo } from './testing/ways.ts';
import { openingOn, supervisor, TestJob, withOtherSide } from './testing/work.ts';

function on(name: string, works: Work[]): TestJob {
  const built = everyStack.find((b) => b.name === name)!;
  const opening = openingOn(['1L'], built.sheetId, works);
  const [w] = opening.wheelEnds;
  const stack = [...built.stack];
  return new TestJob(withOtherSide({ ...opening, wheelEnds: [{ ...w!, route: { ...w!.route!, stack } }] }));
}
const before = (t: TestJob, a: string, b: string) => {
  const order = ids(t, '1L');
  expect(order).toContain(a);
  expect(order).toContain(b);
  expect(order.indexOf(a)).toBeLessThan(order.indexOf(b));
};

describe('rims and tyres', () => {
  it.each(['heavy drive', 'heavy steer'])(
    '%s: a sound tyre stays up, one that was deflated is filled again',
    (name) => {
      const up = on(name, ['wheel-off']);
      up.workTo('1L', 'rims');
      expect(up.recordStep('1L', { kind: 'choose', option: 'sound' })).toBeNull();
      expect(ids(up, '1L')).not.toContain('inflated');
      const down = on(name, ['wheel-off']);
      down.workTo('1L', 'rims');
      expect(down.recordStep('1L', { kind: 'choose', option: 'deflated' })).toMatch(/not a choice/);
      expect(down.recordStep('1L', { kind: 'choose', option: 'core-out' })).toBeNull();
      before(down, 'wheel-drawn', 'inflated');
      before(down, 'inflated', 'wheel-nuts');
    },
  );
});

describe('a crawler', () => {
  it('has its track slackened before the sprocket, and its sag measured after', () => {
    const t = on('crawler', ['seal']);
    before(t, 'track-slack', 'wheel-off');
    before(t, 'wheel-nuts', 'track-sag');
    const words = progressOf(t.at('1L')).map((p) => `${p.step.title} ${p.step.text}`);
    expect(words.filter((w) => /wheel nuts|wheel still clear/i.test(w))).toEqual([]);
    t.workTo('1L', 'track-sag');
    const asked = { least: quantity(20, 'mm'), most: quantity(30, 'mm') };
    const loose = { kind: 'dimension', value: quantity(45, 'mm'), asked } as const;
    expect(t.recordStep('1L', loose)).toMatch(/off its figure/);
    expect(t.recordStep('1L', { ...loose, note: 'Tensioner leaks' })).toBeNull();
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual(['dimension-off']);
  });

  it('records the grease that the seal was packed with', () => {
    const t = on('crawler', ['seal']);
    t.workTo('1L', 'pack-seal');
    expect(t.recordStep('1L', { kind: 'pack', lubricant: 'Something else', by: 'hand' })).toMatch(
      /calls for/,
    );
  });
});

describe('a C-clip axle', () => {
  it('lets everything but its oil go on while the sealant cures', () => {
    const t = on('light-truck rear', ['seal']);
    t.workTo('1L', 'axle-cover-joint');
    expect(t.recordStep('1L', { kind: 'choose', option: 'sealant' })).toBeNull();
    before(t, 'axle-cover-3', 'axle-cover-cured');
    before(t, 'wheel-nuts', 'axle-cover-cured');
    before(t, 'axle-cover-cured', 'axle-oil');
    t.workTo('1L', 'axle-cover-cured');
    // Oil that was poured in before it had cured was poured, and does not count.
    const oil = { kind: 'fill', lubricant: t.at('1L').sheet.lubricant.name } as const;
    expect(t.try(step(t, '1L', 'lock-and-fill', 'axle-oil', oil))).toBeNull();
    expect(todo(t, '1L')).toContain('axle-oil');
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
  });

  it('names its oil, and where its seal sits', () => {
    const t = on('light-truck rear', ['seal']);
    t.workTo('1L', 'shaft-seal-in');
    expect(t.step('1L')?.kind).toBe('seal');
    t.workTo('1L', 'axle-oil');
    expect(t.recordStep('1L', { kind: 'fill', lubricant: 'Something else' })).toMatch(/calls for/);
    t.workTo('1L');
    t.do(release('1L'), supervisor);
    expect(whatIsLeft(t.job, t.at('1L'))).toBeNull();
  });
});

it('a castellated second nut is jammed first; then the slot, and the pin through both', () => {
  const t = on('old drum and hub', ['adjust']);
  before(t, 'jam-nut', 'to-slot');
  before(t, 'to-slot', 'lock');
});

describe('a kingpin job', () => {
  const done = () => {
    const t = on('farm front', ['kingpin']);
    t.workTo('1L');
    return t;
  };

  it('measures clearance and vertical play, locks with a torque, and closes, greases, pins', () => {
    const t = done();
    for (const [a, b] of [
      ['stub-links-off', 'kingpin-out'],
      ['bushes', 'kingpin-clearance'],
      ['kingpin-clearance', 'stub-on'],
      ['thrust-bearing', 'stub-on'],
      ['stub-on', 'vertical-play'],
      ['vertical-play', 'kingpin-lock'],
      ['kingpin-lock', 'kingpin-lock-bolt'],
      ['kingpin-plugs', 'kingpin-grease'],
      ['stub-links', 'stub-pins'],
      ['stub-pins', 'hub-on'],
      ['wheel-nuts', 'toe'],
    ] as const)
      before(t, a, b);
    expect(codes(t, '1L')).toEqual([]);
    expect(t.try(release('1L'), supervisor)).toBeNull();
  });

  it.each(['heavy steer', 'bus front', 'farm front'])('can be had on a %s', (name) => {
    expect(ids(on(name, ['kingpin']), '1L')).toContain('kingpin-clearance');
  });

  it('keeps no old bushes where it renews them', () => {
    const t = on('farm front', ['kingpin']);
    t.workTo('1L', 'bushes');
    expect(t.recordStep('1L', { kind: 'choose', option: 'old' })).toMatch(/not a choice/);
    const u = on('farm front', ['spindle']);
    u.workTo('1L', 'bushes');
    expect(u.recordStep('1L', { kind: 'choose', option: 'old' })).toBeNull();
  });

  it('of a build that asked less stays released when a slip in it is corrected, and not when its lock is struck', () => {
    const t = done();
    t.do(release('1L'), supervisor);
    // As an earlier build recorded it: nothing was measured at the pin.
    const events = t.job.events
      .filter(
        (e) =>
          e.body.kind !== 'step-recorded' || !/^(kingpin-clearance|vertical-play|toe)$/.test(e.body.stepId),
      )
      .map((e, i) => ({
        ...{ ...e, version: i + 1 },
        body: e.body.kind === 'wheel-end-released' ? { ...e.body, rules: 2 as const } : e.body,
      }));
    const old = () => {
      const u = done();
      u.job = fold(events);
      expect(u.at('1L').release).not.toBeNull();
      return u;
    };
    const slip = old();
    const nuts = recordOf(slip, 'wheel-nuts');
    if (nuts.body.kind !== 'step-recorded') throw new Error('no step');
    const replacement = { ...nuts.body, data: { ...nuts.body.data, note: 'By hand' } };
    slip.do({ kind: 'correction', corrects: nuts.id, reason: 'A word more', replacement }, supervisor);
    expect(slip.at('1L').release?.inDoubt).toBeNull();
    const struck = old();
    struck.do(
      { kind: 'correction', corrects: recordOf(struck, 'lock').id, reason: 'Never bent', replacement: null },
      supervisor,
    );
    expect(struck.at('1L').release?.inDoubt).toMatchObject({ reason: 'Never bent' });
  });
});
