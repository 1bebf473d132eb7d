import { describe, expect, it } from 'vitest';
import { layerStates } from './index.ts';
import { next } from './testing/next-job.ts';
import { did, REASON, release, step, todo, yes } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

describe('what is done beside the route', () => {
  it('a nut that is turned after it was locked is not locked, by whatever act it was turned', () => {
    const t = new TestJob(openingOn(['2L'], 'e-torque', ['adjust']));
    t.workTo('2L', 'fill');
    t.do(step(t, '2L', 'adjust', 'new-nut', did));
    expect(todo(t, '2L')).toEqual(expect.arrayContaining(['lock']));
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Nobody releases/);
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('a hub that went on and came off again is recorded off once more', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'seat');
    expect(t.try(step(t, '2L', 'tear-down', 'hub-off', did))).toBeNull();
    expect(layerStates(t.at('2L'))).toMatchObject({ hub: 'off' });
    expect(t.try(step(t, '2L', 'tear-down', 'hub-off', did))).toMatch(/recorded already/);
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });

  it('an adjuster turned on a brake that nothing else moved asks for its proof anew', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['check']));
    t.workTo('2L');
    t.do(step(t, '2L', 'wheel-on', 'adjuster', yes));
    expect(todo(t, '2L')).toContain('brake-proved');
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/Nobody releases/);
  });

  it('what an earlier job packed into a hub stays packed where the next one sets the nut', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'seat');
    const u = next(t, '2L', 'a-drive-tang', ['adjust']);
    expect(todo(u, '2L')).not.toContain('pack');
    expect(todo(u, '2L')).toContain('seat');
    u.workTo('2L');
    u.do(release('2L', REASON), supervisor);
  });
});
