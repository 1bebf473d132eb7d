import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  againstRelease,
  fold,
  isClosed,
  lastVerdict,
  openQuestions,
  progressOf,
  describeEvent,
  describeObjection,
  stageStates,
  upcast,
  verdictOf,
  type StoredEvent,
} from './index.ts';

/** Jobs as the first build stored them, with what it said of each; written once by that build and never edited. */
interface FirstBuildJob {
  events: (Omit<StoredEvent, 'body'> & { body: { kind: string; data?: { kind: string } } })[];
  closed: boolean;
  words: string[];
  wheelEnds: Record<string, unknown>[];
}
const file = new URL('testing/first-build.json', import.meta.url);
const jobs = JSON.parse(readFileSync(file, 'utf8')) as FirstBuildJob[];
const read = (job: FirstBuildJob): StoredEvent[] => job.events.map((e) => ({ ...e, body: upcast(e.body) }));

describe('records of the first build', () => {
  it('hold every kind of event and of step that it wrote', () => {
    const bodies = jobs.flatMap((j) => j.events.map((e) => e.body));
    expect(new Set(bodies.map((b) => b.kind)).size).toBe(17);
    expect(new Set(bodies.flatMap((b) => (b.data ? [b.data.kind] : []))).size).toBe(18);
  });

  it.each(jobs.map((j, i) => [i + 1, j] as const))(
    'job %i folds to what the first build made of it',
    (_, old) => {
      const job = fold(read(old));
      expect(isClosed(job)).toBe(old.closed);
      expect(job.events.map((e) => describeEvent(job, e, null))).toEqual(old.words);
      const now = job.wheelEnds.map((w) => ({
        position: w.position,
        procedure: w.plan.by === 'procedure' ? [w.plan.procedure.id, w.plan.procedure.version] : null,
        states: stageStates(w),
        against: againstRelease(w).map((o) => describeObjection(w, o, null)),
        verdict: lastVerdict(w),
        verdicts: w.rounds.map((r) => verdictOf(w, r.number)?.verdict ?? null),
        recorded: progressOf(w).map((p) => [p.step.stage, p.step.id, p.record?.eventId ?? null]),
        questions: openQuestions(w),
        followUp: w.release?.followUp ?? null,
        overridden: w.release?.overridden.map((o) => describeObjection(w, o, null)) ?? null,
      }));
      expect(JSON.parse(JSON.stringify(now))).toEqual(old.wheelEnds);
    },
  );

  it('a body that nothing ever wrote is refused', () => {
    expect(() => upcast({ kind: 'wheel-end-released', position: '2L', overridden: [7] })).toThrow();
  });
});
