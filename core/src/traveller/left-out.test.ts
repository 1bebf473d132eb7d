import { describe, expect, it } from 'vitest';
import { jobAggregate } from '../record/index.ts';
import { decide, decideJoining, fold, isClosed, type Command } from './index.ts';
import { REASON, did, release, step, yes as ok } from './testing/ways.ts';
import { openingOn, supervisor, TestJob } from './testing/work.ts';

const BOTH = ['2L', '2R'];
const out = (position: string): Command => ({ kind: 'wheel-end-left-out', position, reason: 'Another day' });
const ends = (t: TestJob) => t.job.wheelEnds.map((w) => w.position);

/** A job on both sides with an estimate that waits for its answer. */
function estimated(works: NonNullable<Parameters<typeof openingOn>[2]>, more: object = {}): TestJob {
  const t = new TestJob({ ...openingOn(BOTH, 'a-drive-tang', works), ...more });
  const lines = [
    { group: 'labour' as const, what: 'Seals', per: 'wheel' as const, quantity: 2, unitMinor: 100 },
  ];
  t.do(
    { kind: 'bill-written', as: 'estimate', bill: { currency: 'USD', lines, suppliesPercent: 0, taxes: [] } },
    supervisor,
  );
  return t;
}
const yes = { kind: 'owner-answered', answer: 'do-now', name: 'Q. Fenmoor' } as const;
const no = (position: string, work: 'seal' | 'studs' = 'seal') =>
  ({ position, work, answer: 'decline' }) as const;

describe('a wheel end that is left out of a job', () => {
  it('goes as it was, and the job is closed by what is left in it', () => {
    const t = new TestJob(openingOn(BOTH));
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    expect(isClosed(t.job)).toBe(false);
    expect(t.try(out('2R'))).toBe('A supervisor leaves a wheel end out of a job');
    t.do(out('2R'), supervisor);
    expect(ends(t)).toEqual(['2L']);
    expect(isClosed(t.job)).toBe(true);
    expect(fold(t.job.events)).toEqual(t.job);
    const { job } = jobAggregate.project(t.job);
    expect(job.closedAt).toBe(t.job.leftOut[0]!.leftOut!.at);
    expect(Object.keys(job.leaves!)).toEqual(['2L']);
  });

  it('is not the last one, not one that was opened, and not one with a finding that nobody answered', () => {
    const one = new TestJob(openingOn(['2L']));
    expect(one.try(out('2L'), supervisor)).toMatch(/2L is the last wheel end of this job/);
    const t = new TestJob({ ...openingOn(BOTH), symptoms: ['noise'] });
    expect(t.try(out('2R'), supervisor)).toMatch(/2R is not left out of the job before this is answered/);
    const answer = {
      finding: 'symptom:noise',
      how: 'not-so',
      reason: 'The other side alone makes it',
    } as const;
    t.do({ kind: 'finding-answered', position: '2R', ...answer }, supervisor);
    t.workTo('2R', 'hub-off');
    expect(t.try(out('2R'), supervisor)).toMatch(/2R is not as it was/);
    t.workTo('2R');
    t.do(release('2R', REASON), supervisor);
    expect(t.try(out('2R'), supervisor)).toBe('2R is released');
    expect(t.try(out('9L'), supervisor)).toBe('9L is not in this job');
  });

  it('keeps what was read on it, and is not worked on', () => {
    const t = new TestJob(openingOn(BOTH, 'a-drive-tang', ['check']));
    while (t.step('2R')!.kind !== 'measure') t.recordStep('2R');
    t.readings('2R', 0.0093, 0.0092, 0.0094);
    t.recordStep('2R');
    t.do(out('2R'), supervisor);
    const rows = jobAggregate.project(t.job).readings;
    expect(rows).toMatchObject([{ position: '2R', verdict: 'loose', final: true }]);
    expect(t.try(release('2R', REASON), supervisor)).toBe('2R was left out of this job by Sup');
    expect(t.try(out('2R'), supervisor)).toBe('2R was left out of this job by Sup');
    expect(t.try({ kind: 'work-added', position: '2R', work: 'seal', reason: 'It weeps' })).toMatch(
      /left out/,
    );
    const reading = t.job.events.find((e) => e.body.kind === 'reading-taken')!;
    const strike = {
      kind: 'correction',
      corrects: reading.id,
      reason: 'Another wheel end',
      replacement: null,
    };
    expect(t.try(strike as Command, supervisor)).toBeNull();
    expect(t.job.leftOut[0]!.readings).toHaveLength(2);
  });

  it('is in the job again once its metal was moved: a record that waited on a tablet', () => {
    const t = new TestJob(openingOn(BOTH));
    const late = step(t, '2R', 'tear-down', 'wheel-off', did);
    const look = step(t, '2R', 'intake', 'lift-safely', ok);
    t.do(out('2R'), supervisor);
    t.try(look);
    expect(ends(t)).toEqual(['2L']);
    t.do(late);
    expect(ends(t)).toEqual(BOTH);
    expect(t.job.leftOut).toEqual([]);
    expect(t.job.wheelEnds[1]).toMatchObject({ leftOut: null, withOther: true, plan: { works: ['seal'] } });
    expect(t.job.wheelEnds[0]!.withOther).toBe(true);
    // Struck out, what it would have broken is looked at before it may be left out again.
    const strike = { kind: 'correction', corrects: t.job.events.at(-1)!.id, reason: 'Wrong side' } as const;
    t.do({ ...strike, replacement: null }, supervisor);
    expect(ends(t)).toEqual(BOTH);
    expect(t.try(out('2R'), supervisor)).toMatch(/2R is not as it was/);
    expect(fold(t.job.events)).toEqual(t.job);
  });

  it('is taken into the job again as its axle has it, with what was read before', () => {
    const t = new TestJob(openingOn(BOTH));
    t.do({
      kind: 'photo-added',
      position: '2R',
      stage: 'intake',
      photoId: crypto.randomUUID(),
      sha256: 'a'.repeat(64),
      caption: '',
    });
    t.do(out('2R'), supervisor);
    const [wheelEnd] = openingOn(['2R'], 'a-drive-tang', ['check']).wheelEnds;
    t.join(wheelEnd!);
    expect(ends(t)).toEqual(BOTH);
    expect(t.at('2R')).toMatchObject({ leftOut: null, plan: { works: ['check'] } });
    expect(t.at('2R').photos).toHaveLength(1);
    expect(t.job.leftOut).toEqual([]);
    expect(fold(t.job.events)).toEqual(t.job);
  });

  it('is not taken back where another job has worked on it since, nor by a record that comes late', () => {
    const t = new TestJob(openingOn(BOTH));
    t.do(out('2R'), supervisor);
    const [wheelEnd] = openingOn(['2R']).wheelEnds;
    const context = { by: supervisor, today: '2026-11-25', now: t.now, inLaterJob: true };
    const refused = { ok: false, refusal: { code: 'left-out-and-changed' } };
    expect(decideJoining(t.job, wheelEnd!, context)).toMatchObject(refused);
    const late = step(t, '2L', 'tear-down', 'wheel-off', did);
    expect(decide(t.job, { ...late, position: '2R' } as Command, context)).toMatchObject(refused);
    expect(decide(t.job, late, context).ok).toBe(true);
  });
});

describe('an owner who wants one side only', () => {
  it('has the other left out, and the record says what they declined', () => {
    const t = estimated(['seal']);
    t.do({ ...yes, works: [no('2R')] });
    expect(ends(t)).toEqual(['2L']);
    expect(t.job.leftOut[0]).toMatchObject({ position: '2R', leftOut: { reason: null } });
    expect(t.job.leftOut[0]!.plan).toMatchObject({ works: ['seal'], unwanted: [{ work: 'seal' }] });
    t.workTo('2L');
    t.do(release('2L'), supervisor);
    expect(isClosed(t.job)).toBe(true);
    expect(jobAggregate.project(t.job).services.map((s) => s.position)).toEqual(['2L']);
  });

  it('of two works of a side declines both at once, or one after the other', () => {
    const t = estimated(['seal', 'studs']);
    t.do({ ...yes, works: [no('2R'), no('2R', 'studs')] });
    expect(ends(t)).toEqual(['2L']);
    const u = estimated(['seal', 'studs']);
    u.do({ ...yes, works: [no('2R')] });
    expect(ends(u)).toEqual(BOTH);
    u.do({ ...yes, works: [no('2R', 'studs')] });
    expect(ends(u)).toEqual(['2L']);
  });

  it('says yes to all of it: no wheel end goes, and nothing else is reckoned anew for that', () => {
    const t = estimated(['seal']);
    const { leftOut } = t.job;
    t.do(yes, supervisor);
    expect(t.job.leftOut).toBe(leftOut);
    expect(ends(t)).toEqual(BOTH);
  });

  it('cannot decline everything line by line, nor what is opened or too grave to stay as it is', () => {
    const t = estimated(['seal']);
    expect(t.try({ ...yes, works: [no('2L'), no('2R')] })).toMatch(/give this answer for the whole estimate/);
    expect(t.try({ ...yes, works: [no('2R'), no('2R')] })).toBeNull();
    const open = new TestJob(openingOn(BOTH));
    open.workTo('2R', 'hub-off');
    const lines = [
      { group: 'labour' as const, what: 'Seals', per: 'wheel' as const, quantity: 2, unitMinor: 100 },
    ];
    open.do(
      {
        kind: 'bill-written',
        as: 'estimate',
        bill: { currency: 'USD', lines, suppliesPercent: 0, taxes: [] },
      },
      supervisor,
    );
    expect(open.try({ ...yes, works: [no('2R')] })).toMatch(/2R is not as it was/);
    const drive = { verdict: 'do-not-move', done: 'recovered' };
    const grave = estimated(['seal'], { symptoms: ['nuts-missing'], drive });
    expect(grave.try({ ...yes, works: [no('2R')] })).toMatch(/2R is not left out of the job before/);
    const noisy = estimated(['seal'], { symptoms: ['noise'] });
    expect(noisy.try({ ...yes, works: [no('2R')] })).toBeNull();
  });

  it('has a work that was added after their answer done all the same', () => {
    const t = estimated(['seal', 'studs']);
    t.do({ ...yes, works: [no('2R')] });
    t.do({ kind: 'work-added', position: '2R', work: 'seal', reason: 'It runs by now' });
    t.do({ ...yes, works: [no('2R', 'studs')] });
    expect(ends(t)).toEqual(BOTH);
    expect(t.at('2R').plan.works).toEqual(['seal']);
  });
});
