import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import { againstRelease, meterKm, describeEvent } from './index.ts';
import { supervisor, TestJob } from './testing/work.ts';

const strike = (t: TestJob, kind: string) =>
  ({
    kind: 'correction',
    corrects: t.job.events.findLast((e) => e.body.kind === kind)!.id,
    reason: 'Wrong side',
    replacement: null,
  }) as const;

function released(): TestJob {
  const t = new TestJob();
  t.workTo('2L');
  t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
  return t;
}

describe('striking out', () => {
  it('a release opens the wheel end again, once nothing stands on it', () => {
    const t = released();
    const release = strike(t, 'wheel-end-released');
    t.do({ kind: 'retorque-recorded', position: '2L', torque: quantity(450, 'lbf-ft'), tool: 'TW-05' });
    expect(t.try(release)).toMatch(/supervisor/);
    expect(t.try(release, supervisor)).toMatch(/First strike out/);
    t.do(strike(t, 'retorque-recorded'), supervisor);
    expect(t.at('2L').retorque).toBeNull();
    t.do(release, supervisor);
    expect(t.at('2L').release).toBeNull();
    expect(againstRelease(t.at('2L'))).toEqual([]);
    t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    expect(t.at('2L').release).not.toBeNull();
  });
});

describe('the intake', () => {
  const right = {
    kind: 'intake',
    complaint: 'Seal weep, left',
    reportedBy: 'night driver',
    symptoms: ['oil-inside'],
    meter: { distance: quantity(611_420, 'km') },
  } as const;

  it('is put right with a reason, never struck out', () => {
    const t = new TestJob();
    const corrects = t.job.events[0]!.id;
    expect(t.try({ kind: 'correction', corrects, reason: 'x', replacement: null })).toMatch(/not struck out/);
    t.do({
      kind: 'correction',
      corrects,
      reason: 'Two digits turned',
      replacement: { ...right, symptoms: [] },
    });
    expect(t.job).toMatchObject({ complaint: 'Seal weep, left', reportedBy: 'night driver' });
    expect(meterKm(t.job.meter)).toBe(611_420);
    expect(describeEvent(t.job, t.job.events.at(-1)!, null)).toBe('put the intake right: Two digits turned');
  });

  it('of a job is no answer to any other record', () => {
    const t = new TestJob();
    t.workTo('2L', 'rotate');
    const corrects = t.job.events.at(-1)!.id;
    const refused = t.try({
      kind: 'correction',
      corrects,
      reason: 'x',
      replacement: { ...right, symptoms: [] },
    });
    expect(refused).toMatch(/stays with its wheel end/);
  });
});

it('a shared step is put right by the same rules as it was recorded', () => {
  const t = new TestJob();
  t.workTo('2L', 'drum-on');
  const event = t.job.events.findLast((e) => e.body.kind === 'step-recorded')!;
  if (event.body.kind !== 'step-recorded') throw new Error('no step');
  const thin = quantity(2, 'mm');
  const data = { kind: 'linings', brake: 'air-drum', inner: thin, outer: thin, set: true } as const;
  const correction = { kind: 'correction', corrects: event.id, reason: 'Read again' } as const;
  expect(t.try({ ...correction, replacement: { ...event.body, data } })).toMatch(/say what is done about it/);
  t.do({ ...correction, replacement: { ...event.body, data: { ...data, note: 'Shoes ordered' } } });
  expect(againstRelease(t.at('2L'))).toContainEqual(expect.objectContaining({ code: 'lining-thin' }));
});
