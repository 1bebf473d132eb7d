import { describe, expect, it } from 'vitest';
import { decideJoining, fold, isClosed, layerStates, whatIsLeft, type Command } from './index.ts';
import { codes, did, REASON, release, step, todo } from './testing/ways.ts';
import { openingOn, supervisor, technician, TestJob } from './testing/work.ts';

describe('what both sides share', () => {
  it('opened for one, it ends the release of the other', () => {
    const t = new TestJob(openingOn(['2L', '2R'], 'g-c-clip', ['seal']));
    t.workTo('2L', 'axle-cover-joint');
    t.workTo('2R', 'axle-cover-joint');
    t.workTo('2L', 'down');
    expect(t.recordStep('2L')).toBe(
      'Put the wheel of 2R on first: both sides of an axle are lowered together',
    );
    t.workTo('2R', 'down');
    t.workTo('2L');
    expect(t.try(release('2L'), supervisor)).toBeNull();
    t.do({ kind: 'layer-opened', position: '2R', layer: 'axle', reason: 'The cover weeps' });
    expect(t.at('2L').release).not.toBeNull();
    t.do(step(t, '2R', 'tear-down', 'axle-opened', did));
    expect(t.at('2L').release).toBeNull();
    expect(t.at('2L').lapsed).not.toBeNull();
    expect(codes(t, '2L')).toContain('missing');
  });

  it('the cross pin out on one side leaves the clip of the other to be looked at', () => {
    const t = new TestJob(openingOn(['2L', '2R'], 'g-c-clip', ['seal']));
    t.workTo('2L', 'axle-cover-joint');
    t.workTo('2R', 'shaft-out');
    expect(todo(t, '2L')).toContain('pin-bolt');
  });

  it('with the pin out, the other side joins the job before anything is released or ends', () => {
    const t = new TestJob(openingOn(['2L'], 'g-c-clip', ['seal']));
    t.workTo('2L', 'axle-cover-joint');
    const ending: Command = { kind: 'ended-out-of-service', reason: 'x', leaves: 'stays', told: '' };
    expect(t.try(ending, supervisor)).toMatch(/^The axle of 2L is open: take 2R into the job first/);
    t.workTo('2L');
    expect(codes(t, '2L')).toEqual(['other-side']);
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/take 2R into the job, and look at it/);
    const [joining] = openingOn(['2R'], 'g-c-clip', ['check']).wheelEnds;
    const context = { by: technician, today: '2026-11-25', now: t.now };
    const alone = { ...joining!, position: '1L' };
    expect(decideJoining(t.job, alone, context)).toMatchObject({ ok: false });
    expect(decideJoining(t.job, { ...joining!, position: '2L' }, context)).toMatchObject({ ok: false });
    const decision = decideJoining(t.job, joining!, context);
    if (!decision.ok) throw new Error(decision.refusal.code);
    t.job = t.withEvent(decision.event);
    expect(fold(t.job.events)).toEqual(t.job);
    // Pin and cover were closed for both sides.
    expect(todo(t, '2R')).not.toContain('pin-bolt');
    expect(codes(t, '2R')).not.toContain('layer-not-reached');
    expect(codes(t, '2L')).toEqual([]);
    t.workTo('2R');
    for (const position of ['2L', '2R']) expect(t.try(release(position), supervisor)).toBeNull();
    expect(isClosed(t.job)).toBe(true);
    expect(decideJoining(t.job, joining!, context)).toMatchObject({ ok: false });
  });

  it('a side that joins an axle that is open finds it open', () => {
    const t = new TestJob(openingOn(['2L'], 'g-c-clip', ['seal']));
    t.workTo('2L', 'shaft-out');
    const [wheelEnd] = openingOn(['2R'], 'g-c-clip', ['check']).wheelEnds;
    t.job = t.withEvent({ kind: 'wheel-end-joined', position: '2R', wheelEnd: wheelEnd! });
    expect(layerStates(t.at('2R'))).toMatchObject({ axle: 'off', shaft: 'unfinished' });
    expect(todo(t, '2R')).toContain('pin-bolt');
    expect(
      t.try({ kind: 'ended-out-of-service', reason: 'x', leaves: 'stays', told: '' }, supervisor),
    ).toBeNull();
    expect(whatIsLeft(t.job, t.at('2R'))?.layers.axle?.is).toBe('off');
  });
});
