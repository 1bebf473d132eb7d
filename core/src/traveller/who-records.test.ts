import { describe, expect, it } from 'vitest';
import { openingOn, supervisor, technician, TestJob } from './testing/work.ts';
import type { Actor, Command } from './index.ts';

const of = (role: Actor['role'], n: number): Actor => ({
  id: `00000000-0000-4000-8000-00000000080${n}`,
  name: role,
  role,
});
const contact = of('owner-contact', 1);
const storekeeper = of('storekeeper', 2);
const trainee = of('trainee', 3);
const held: Command = { kind: 'job-held', reason: 'Waiting' };
const estimate: Command = {
  kind: 'bill-written',
  as: 'estimate',
  bill: {
    currency: 'GBP',
    lines: [{ group: 'labour', what: 'Hub', per: 'wheel', quantity: 1, unitMinor: 9000 }],
    suppliesPercent: 0,
    taxes: [],
  },
};

/** A job with an estimate, and an answer to it. */
function asked() {
  const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal', 'bearings']));
  t.do(estimate, supervisor);
  const answer = (more: object = {}): Command => ({
    kind: 'owner-answered',
    answer: 'do-now',
    name: 'E. Tern',
    estimate: t.job.money.estimate!.eventId,
    ...more,
  });
  return { t, answer };
}

describe('who records what', () => {
  it('a trainee nothing, a storekeeper parts that came, an owner’s contact answers', () => {
    const { t, answer } = asked();
    const part: Command = { kind: 'part-received', position: '2L', what: 'part:seal', as: 'received' };
    expect([held, part, answer()].map((c) => t.try(c, trainee))).toEqual(
      Array(3).fill('A trainee practises and records nothing'),
    );
    expect(t.try(held, storekeeper)).toMatch(/parts that came and nothing else/);
    expect(t.try(part, storekeeper)).toBeNull();
    expect(t.try(held, contact)).toMatch(/answers estimates and records nothing else/);
    expect(t.try({ kind: 'job-voided', reason: 'no' }, contact)).toMatch(/nothing else/);
    expect(t.try(answer(), contact)).toBeNull();
  });

  it('an owner’s contact answers the estimate they saw, by name; the shop may answer for them on the telephone', () => {
    const { t, answer } = asked();
    expect(t.try(answer({ estimate: undefined }), contact)).toBe('Name the estimate that is answered');
    expect(t.try(answer({ estimate: undefined, answer: 'decline' }), technician)).toBeNull();
    const first = answer();
    t.do(estimate, supervisor);
    expect(t.try(first, contact)).toMatch(/has changed: review it/);
    expect(t.try(answer({ answer: 'decline' }), contact)).toBeNull();
  });

  it('what they answered themselves is answered over by nobody but them, until a new estimate asks', () => {
    const { t, answer } = asked();
    t.do(answer({ answer: 'decline' }), contact);
    for (const by of [technician, supervisor])
      expect(t.try(answer(), by)).toMatch(/owner-contact answered for the owner themselves/);
    expect(t.try(answer(), contact)).toBeNull();
    t.do(estimate, supervisor);
    expect(t.try(answer({ answer: 'decline' }), supervisor)).toBeNull();
  });
});
