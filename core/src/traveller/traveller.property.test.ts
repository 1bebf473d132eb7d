import fc from 'fast-check';
import { expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import {
  append,
  currentRound,
  eventBodySchema,
  fold,
  progressOf,
  stageStates,
  type Command,
  type Job,
} from './index.ts';
import { answer, openingOn, supervisor, technician, TestJob } from './testing/work.ts';

const positions = ['1L', '1R'] as const;

type Move = { position: '1L' | '1R'; what: number; play: number; who: boolean };

const move: fc.Arbitrary<Move> = fc.record({
  position: fc.constantFrom(...positions),
  what: fc.integer({ min: 0, max: 99 }),
  play: fc.integer({ min: 0, max: 120 }),
  who: fc.boolean(),
});

/** Turns a random move into a command that is sometimes right and sometimes not. */
function commandOf(t: TestJob, { position, what, play }: Move): Command {
  const w = t.at(position);
  const step = t.step(position);
  const round = currentRound(w).number;
  const at = step ? { stage: step.stage, stepId: step.id } : { stage: 'adjust' as const, stepId: 'seat' };
  const pull = quantity(play / 10_000, 'in');
  if (step?.kind === 'measure' && what < 60)
    return {
      kind: 'reading-taken',
      position,
      round: step.stage === 'diagnose' ? 0 : round,
      push: quantity(0, 'in'),
      pull,
      source: 'typed',
    };
  if (what < 84 && step) return { kind: 'step-recorded', position, ...at, round, data: answer(w, step) };
  if (what < 87) return { kind: 'step-skipped', position, ...at, round, reason: 'for the test' };
  if (what < 91)
    return { kind: 'adjust-reopened', position, round, from: what % 2 ? 'start' : 'setting', turns: 1 / 16 };
  if (what < 95)
    return { kind: 'wheel-end-released', position, ...(what % 2 ? { overrideReason: 'for the test' } : {}) };
  const events = t.job.events;
  return {
    kind: 'correction',
    corrects: events[play % events.length]!.id,
    reason: 'for the test',
    replacement: null,
  };
}

/** What must hold of any job, however it came about. */
function checkJob(job: Job): void {
  for (const w of job.wheelEnds) {
    expect(w.rounds.map((r) => r.number)).toEqual(w.rounds.map((_, i) => i + 1));
    for (const reading of w.readings) expect(reading.round).toBeLessThanOrEqual(w.rounds.length);
    const progress = progressOf(w);
    expect(progress.length).toBeGreaterThan(10);
    if (w.release) expect(w.release.by.role).toBe('supervisor');
    if (w.release?.overridden.length) expect(w.release.overrideReason).not.toBeNull();
    expect(Object.values(stageStates(w)).filter((s) => s === 'now').length).toBeLessThanOrEqual(1);
  }
}

it('the fold of any accepted event list is a valid job, and folding step by step gives the same', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('a-drive-tang', 'd-towed', 'd-steer-12'),
      fc.array(move, { minLength: 20, maxLength: 140 }),
      (sheetId, moves) => {
        const t = new TestJob(openingOn([...positions], sheetId));
        for (const m of moves) t.try(commandOf(t, m), m.who ? supervisor : technician);
        const { events } = t.job;
        for (const event of events) expect(eventBodySchema.parse(event.body)).toEqual(event.body);
        checkJob(t.job);
        const whole = fold(events);
        expect(whole).toEqual(t.job);
        expect(events.slice(1).reduce(append, fold(events.slice(0, 1)))).toEqual(whole);
      },
    ),
    { numRuns: 60 },
  );
});
