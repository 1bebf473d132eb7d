import { describe, expect, it } from 'vitest';
import { fold, layerStates, type Command } from './index.ts';
import { next } from './testing/next-job.ts';
import { codes, did, REASON, release, step, todo, yes } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

describe('what is done beside the route', () => {
  it('a nut that is turned after it was locked is not locked, by whatever act it was turned', () => {
    const t = new TestJob(openingOn(['2L'], 'e-torque', ['adjust']));
    t.workTo('2L', 'fill');
    t.do(step(t, '2L', 'adjust', 'new-nut', did));
    expect(todo(t, '2L')).toEqual(expect.arrayContaining(['lock']));
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
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
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/cannot be released/);
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

  it('a record that came late counts once a supervisor says that it was done after what it follows', () => {
    const t = new TestJob(openingOn(['2L'], 'a-trailer', ['wheel-off']));
    t.workTo('2L', 'wheel-nuts');
    const doneAt = '2026-11-25T07:01:00.000Z';
    const nuts = t.at('2L').sheet.wheelTorque!.max;
    const data = { kind: 'torque', torque: nuts, tool: 'TW-03', rounds: 1 } as const;
    t.do({ ...step(t, '2L', 'wheel-on', 'wheel-nuts', data), doneAt } as Command);
    expect(todo(t, '2L')).toContain('wheel-nuts');
    const { id } = t.job.events.at(-1)!;
    const counts: Command = {
      ...{ kind: 'late-counted', position: '2L', records: [id], reason: 'The clock of the tablet was slow' },
    };
    expect(t.try(counts)).toMatch(/A supervisor says/);
    expect(t.try({ ...counts, records: [t.job.events.at(-2)!.id] }, supervisor)).toMatch(/came late/);
    t.do(counts, supervisor);
    expect(todo(t, '2L')).not.toContain('wheel-nuts');
    expect(fold(t.job.events)).toEqual(t.job);
    const corrects = t.job.events.at(-1)!.id;
    t.do({ kind: 'correction', corrects, reason: 'It was 2R', replacement: null }, supervisor);
    expect(todo(t, '2L')).toContain('wheel-nuts');
    expect(t.at('2L').notCounted[id]).toEqual({ why: 'late' });
  });

  it('a struck record that had begun another round leaves the readings after it standing', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'lock-as-found');
    t.do(step(t, '2L', 'adjust', 'hand-loose', yes));
    const corrects = t.job.events.at(-1)!.id;
    t.workTo('2L');
    expect(t.at('2L').rounds).toHaveLength(2);
    t.do({ kind: 'correction', corrects, reason: 'That was 2R', replacement: null }, supervisor);
    expect(t.at('2L').rounds).toHaveLength(1);
    expect(todo(t, '2L')).toEqual([]);
    expect(t.try(release('2L'), supervisor)).toBeNull();
  });
});

describe('what was answered decides what is asked', () => {
  it('a chamber without a spring has nothing to uncage, and its brake was not touched', () => {
    const after = (option: string) => {
      const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
      t.do(step(t, '2L', 'tear-down', 'caging', { kind: 'choose', option }));
      return todo(t, '2L').filter((id) => id === 'uncaged' || id === 'brake-proved');
    };
    expect(after('none')).toEqual([]);
    expect(after('caged')).toEqual(['uncaged', 'brake-proved']);
  });

  it('a nut that was set by the one school is never asked for the steps of the other', () => {
    const t = new TestJob(openingOn(['1L'], 'd-towed', ['adjust']));
    t.workTo('1L', 'school');
    expect(t.recordStep('1L', { kind: 'choose', option: 'finger' })).toBeNull();
    t.workTo('1L', 'lock');
    t.do({ kind: 'adjust-reopened', position: '1L', round: 1, from: 'setting', turns: -1 / 12 });
    expect(todo(t, '1L')).not.toContain('seat');
    t.workTo('1L');
    expect(todo(t, '1L')).toEqual([]);
    expect(t.try(release('1L'), supervisor)).toBeNull();
  });
});

describe('a choice of an earlier setting, when that of this one is struck out', () => {
  it('is asked anew, and what covers the nut comes off for it', () => {
    const t = new TestJob(openingOn(['1L'], 'd-towed', ['adjust']));
    t.workTo('1L', 'lock');
    t.do({ kind: 'adjust-reopened', position: '1L', from: 'start', round: 1 });
    t.workTo('1L');
    const school = t.job.events.findLast((e) => 'stepId' in e.body && e.body.stepId === 'school')!;
    t.do({ kind: 'correction', corrects: school.id, reason: 'It was 2L', replacement: null }, supervisor);
    expect(t.step('1L')?.id).toBe('cap-off');
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual([]);
  });
});
