import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { describeEvent, fold, isClosed, upcast, type StoredEvent, type WheelEnd } from './index.ts';
import { REASON, release } from './testing/ways.ts';
import { supervisor, TestJob } from './testing/work.ts';

/** Jobs as the build before the assembly stored them, with what it said of each; written once by it and never edited. */
interface SecondBuildJob {
  events: (Omit<StoredEvent, 'body'> & { body: { kind: string } })[];
  closed: boolean;
  words: string[];
  wheelEnds: {
    position: string;
    released: boolean;
    overridden: NonNullable<WheelEnd['release']>['overridden'] | null;
    followUp: object | null;
  }[];
}
const file = new URL('testing/second-build.json', import.meta.url);
const jobs = JSON.parse(readFileSync(file, 'utf8')) as SecondBuildJob[];
const read = (job: SecondBuildJob): StoredEvent[] => job.events.map((e) => ({ ...e, body: upcast(e.body) }));

describe('records of the build before the assembly', () => {
  it('hold the kinds of event that a bench writes', () => {
    expect(new Set(jobs.flatMap((j) => j.events.map((e) => e.body.kind))).size).toBe(16);
  });

  it.each(jobs.map((j, i) => [i + 1, j] as const))('job %i: what was released stays released', (_, old) => {
    const job = fold(read(old));
    expect(isClosed(job)).toBe(old.closed);
    expect(job.events.map((e) => describeEvent(job, e, null))).toEqual(old.words);
    const now = job.wheelEnds.map(({ position, release: given }) => ({
      position,
      released: given !== null,
      overridden: given?.overridden ?? null,
      followUp: given?.followUp ?? null,
    }));
    const then = old.wheelEnds.map(({ position, released, overridden, followUp }) => ({
      ...{ position, released, overridden, followUp },
    }));
    expect(JSON.parse(JSON.stringify(now))).toEqual(then);
    expect(job.wheelEnds.every((w) => !w.release?.inDoubt)).toBe(true);
  });

  const open = jobs.filter((j) => !j.closed);
  it.each(open.map((j, i) => [i + 1, j] as const))('open job %i is finished after the change', (_, old) => {
    const t = new TestJob();
    t.job = fold(read(old));
    for (const { position } of t.job.wheelEnds) {
      t.workTo(position);
      expect(t.try(release(position, REASON), supervisor)).toBeNull();
    }
    expect(isClosed(t.job)).toBe(true);
  });
});
