import { describe, expect, it } from 'vitest';
import { meanwhile, whatWaits } from './index.ts';
import { codes } from './testing/ways.ts';
import { answer, openingOn, soundParts, supervisor, TestJob } from './testing/work.ts';
import { partsToJudge } from './index.ts';

/** A job of a trailer's bearings, with one line of its readiness on order. */
function awaiting(what: string, works: ('bearings' | 'seal')[] = ['bearings']): TestJob {
  const t = new TestJob(openingOn(['1L', '1R'], 'a-trailer', works));
  const ready = answer(t.at('1L'), t.step('1L')!);
  if (ready.kind !== 'ready') throw new Error('a job begins with what is at hand');
  const lines = ready.lines.map((l) =>
    l.what === what ? { ...l, state: 'ordered' as const, by: '2026-12-05' } : l,
  );
  expect(t.recordStep('1L', { ...ready, lines, note: 'It comes on Friday' })).toBeNull();
  return t;
}
const now = (t: TestJob, position = '1L') => meanwhile(t.job, t.at(position)).map((s) => s.id);
const waiting = (t: TestJob) => whatWaits(t.job).map((w) => `${w.position} ${w.step.id}: ${w.why.code}`);

describe('while a part is on order', () => {
  it('only what fits it waits; what else can be done on the wheel end is offered', () => {
    const t = awaiting('part:hub-seal');
    expect(now(t)).toEqual([]);
    expect(waiting(t)).toEqual([]);
    t.workTo('1L', 'seal');
    expect(waiting(t)).toEqual(['1L seal: waits-for-part']);
    expect(now(t)).toEqual(['brakes-back', 'wheel-faces']);
    // Done meanwhile, it counts, and the step that waits is at hand again.
    const step = meanwhile(t.job, t.at('1L'))[0]!;
    const at = {
      kind: 'step-recorded',
      position: '1L',
      stage: step.stage,
      stepId: step.id,
      round: 1,
    } as const;
    t.do({ ...at, data: answer(t.at('1L'), step) });
    expect(t.at('1L').notCounted).toEqual({});
    expect(t.step('1L')?.id).toBe('seal');
    expect(now(t)).toEqual(['wheel-faces']);
    t.do({ kind: 'part-received', position: '1L', what: 'part:hub-seal', as: 'received' });
    expect(waiting(t)).toEqual([]);
    t.workTo('1L');
    t.workTo('1R');
    expect(codes(t, '1L')).toEqual([]);
  });

  it('a wheel end that is released, or of the first build, waits for nothing and is offered nothing', () => {
    const t = awaiting('part:hub-seal');
    t.workTo('1L', 'seal');
    const w = t.at('1L');
    const job = (over: typeof w) => ({ ...t.job, wheelEnds: [over] });
    const other = new TestJob(openingOn(['1L'], 'a-trailer', ['oil-level']));
    other.workTo('1L');
    other.do({ kind: 'wheel-end-released', position: '1L' }, supervisor);
    const released = { ...w, release: other.at('1L').release };
    for (const over of [released, { ...w, firstBuild: {} as NonNullable<typeof w.firstBuild> }]) {
      expect(meanwhile(job(over), over)).toEqual([]);
      expect(whatWaits(job(over))).toEqual([]);
    }
    expect(meanwhile(job(w), w)).not.toEqual([]);
  });

  it('bearings hold up the cups, and what goes on over them', () => {
    const t = awaiting('part:cups-and-rollers');
    t.workTo('1L', 'cup-home');
    expect(waiting(t)).toEqual(['1L cup-home: waits-for-part']);
    expect(now(t)).toEqual(['brakes-back', 'wheel-faces']);
    expect(
      t.try({
        kind: 'step-recorded',
        position: '1L',
        stage: 'assemble',
        stepId: 'hub-on',
        round: 1,
        data: { kind: 'instruct' },
      }),
    ).toMatch(/come/);
  });

  it('a part that no single step fits holds up everything on its layer', () => {
    const t = awaiting('part:lock-washer', ['seal']);
    t.workTo('1L', 'pack');
    expect(waiting(t)).toEqual(['1L pack: waits-for-part']);
    expect(now(t)).toEqual(['brakes-back', 'wheel-faces']);
  });
});

it('a question to the supervisor holds up what is put back, and the other side goes on', () => {
  const t = new TestJob(openingOn(['1L', '1R'], 'a-trailer', ['seal']));
  t.workTo('1L', 'judge-parts');
  const { findings } = soundParts(partsToJudge(t.at('1L')));
  const asked = findings.map((f) =>
    f.component === 'seal-seat' ? { ...f, seen: 'groove', disposition: 'ask' as const } : f,
  );
  expect(t.recordStep('1L', { kind: 'judge', hardWorked: false, findings: asked })).toBeNull();
  t.workTo('1L', 'pack');
  expect(waiting(t)).toEqual(['1L pack: waits-for-decision']);
  expect(now(t)).toEqual([]);
  t.workTo('1R', 'hub-off');
  expect(waiting(t)).toEqual(['1L pack: waits-for-decision']);
  const decision = {
    kind: 'decision-made',
    position: '1L',
    component: 'seal-seat',
    decision: 'reuse',
  } as const;
  t.do({ ...decision, reason: 'The lip runs beside it' }, supervisor);
  expect(waiting(t)).toEqual([]);
});
