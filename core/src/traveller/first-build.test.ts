import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  againstRelease,
  decide,
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
        procedure: w.firstBuild && [w.firstBuild.id, w.firstBuild.version],
        states: stageStates(w),
        verdict: lastVerdict(w),
        verdicts: w.rounds.map((r) => verdictOf(w, r.number)?.verdict ?? null),
        recorded: progressOf(w).map((p) => [p.step.stage, p.step.id, p.record?.eventId ?? null]),
        questions: openQuestions(w),
        followUp: w.release?.followUp ?? null,
        overridden: w.release?.overridden.map((o) => describeObjection(w, o, null)) ?? null,
      }));
      expect(JSON.parse(JSON.stringify(now))).toEqual(
        old.wheelEnds.map((w) => ({ ...w, against: undefined })),
      );
    },
  );

  it('are read only: nobody records or releases, and an open one ends out of service', () => {
    const open = jobs.map((old) => fold(read(old))).find((job) => !isClosed(job) && !job.stopped)!;
    const w = open.wheelEnds.find((end) => !end.release)!;
    const { position } = w;
    expect(againstRelease(w)).toMatchObject([{ code: 'read-only', guard: 'never' }]);
    const by = {
      id: '9d0f0c1e-4ad0-4b43-8c2d-5f6f0a6f8e11',
      name: 'S. Foreman',
      role: 'supervisor',
    } as const;
    const context = { by, today: '2026-10-01', now: '2026-10-01T08:00:00.000Z' };
    const refused = { ok: false, refusal: { code: 'first-build' } };
    expect(decide(open, { kind: 'wheel-end-released', position }, context)).toEqual(refused);
    expect(decide(open, { kind: 'adjust-reopened', position, from: 'start', round: 1 }, context)).toEqual(
      refused,
    );
    const corrects = open.events[1]!.id;
    expect(decide(open, { kind: 'correction', corrects, reason: 'x', replacement: null }, context)).toEqual(
      refused,
    );
    const ending = {
      kind: 'ended-out-of-service',
      reason: 'Taken up by another job',
      leaves: 'on-a-bed',
      told: '',
    } as const;
    expect(decide(open, ending, context).ok).toBe(true);
  });

  it('a body that nothing ever wrote is refused', () => {
    expect(() => upcast({ kind: 'wheel-end-released', position: '2L', overridden: [7] })).toThrow();
  });
});
