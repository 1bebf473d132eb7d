import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { decide, type Command, type DecideContext } from './index.ts';
import { leaveLoose, openingOn, supervisor, TestJob } from './testing/work.ts';

const reason = 'It has to be back on the road this evening';
const done = (more: object = {}): Command => ({
  kind: 'follow-up-done',
  position: '2L',
  followUp: 'temporary',
  nth: 0,
  ...more,
});
const by = (t: TestJob, command: Command, lastReading?: DecideContext['lastReading']) => {
  const read = lastReading === undefined ? {} : { lastReading };
  const decision = decide(t.job, command, {
    by: supervisor,
    today: '2026-11-26',
    now: '2026-11-26T12:00:00.000Z',
    ...read,
  });
  return decision.ok || decision.refusal.code;
};

describe('what a release in spite of a reading asks for', () => {
  const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['check']));
  leaveLoose(t, '2L', reason);
  const releasedAt = t.at('2L').release!.at;
  const later = new Date(Date.parse(releasedAt) + 86_400_000).toISOString();
  const earlier = new Date(Date.parse(releasedAt) - 86_400_000).toISOString();

  it('is looked after by a reading in band that was taken since, and by nothing else', () => {
    expect(t.at('2L').release).toMatchObject({
      overridden: [{ code: 'found-out' }],
      alsoDue: [{ kind: 'temporary' }],
    });
    expect(by(t, done({ note: 'Looked at it in the yard, it is as it was' }), null)).toBe('measure-before');
    expect(by(t, done(), { verdict: 'loose', at: later })).toBe('measure-before');
    expect(by(t, done(), { verdict: 'in-band', at: earlier })).toBe('measure-before');
    expect(by(t, done(), { verdict: 'in-band', at: later })).toBe(true);
  });

  it('is left to whoever knows the readings where none are at hand', () => {
    expect(by(t, done())).toBe(true);
  });
});

it('what a release in spite of anything else asks for is looked after by saying what was seen', () => {
  const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['brakes']));
  t.workTo('2L', 'brakes-back');
  const mm = quantity(6, 'mm');
  t.recordStep('2L', { kind: 'linings', brake: 'air-drum', inner: mm, outer: mm, set: true, note: 'Worn' });
  t.workTo('2L');
  t.do({ kind: 'wheel-end-released', position: '2L', overrideReason: reason }, supervisor);
  expect(by(t, done(), null)).toBe('say-what-was-seen');
  expect(by(t, done({ note: ' ok ' }), null)).toBe('say-what-was-seen');
  expect(by(t, done({ note: 'New linings went in at the next shop' }), null)).toBe(true);
});
