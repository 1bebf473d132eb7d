import { describe, expect, it } from 'vitest';
import { sideSchema } from '../assembly/index.ts';
import { describeParts, lackedLines, layerStates, whatIsLeft } from './index.ts';
import { answer, openingOn, supervisor, TestJob } from './testing/work.ts';
import { codes } from './testing/ways.ts';

describe('a part not used twice that goes in again until the new one comes', () => {
  const seal = { kind: 'part-received', position: '1L', what: 'part:hub-seal' } as const;
  const waiting = () => {
    const t = new TestJob(openingOn(['1L'], 'a-trailer'));
    const ready = answer(t.at('1L'), t.step('1L')!);
    if (ready.kind !== 'ready') throw new Error('a job begins with what is at hand');
    const lines = ready.lines.map((l) =>
      l.what === seal.what ? { ...l, state: 'ordered' as const, by: '2026-12-05' } : l,
    );
    expect(t.recordStep('1L', { ...ready, lines, note: 'The seal comes on Friday' })).toBeNull();
    t.workTo('1L', 'seal');
    return t;
  };

  it('is no release: the new one has to come, and the hub off again for it', () => {
    const t = waiting();
    expect(t.recordStep('1L')).toMatch(/Hub seal is on order: wait/);
    t.do({ ...seal, as: 'reused' });
    t.workTo('1L');
    expect(codes(t, '1L')).toEqual(['old-part-in']);
    expect(lackedLines(t.at('1L'))).toMatchObject([{ what: seal.what, oldIn: true }]);
    expect(layerStates(t.at('1L'))).toMatchObject({ hub: 'unfinished', nut: 'back', wheel: 'back' });
    const release = { kind: 'wheel-end-released', position: '1L' } as const;
    const overrideReason = 'The old seal looked as good as a new one';
    expect(t.try({ ...release, overrideReason }, supervisor)).toMatch(/1L cannot be released: Hub seal/);
    expect(describeParts(t.at('1L'))).toMatch(
      /^New: hub cap gasket\. \d+ judged and kept\. Went in again, for the yard only: hub seal\.$/,
    );
    t.do({ ...seal, as: 'received' });
    expect(t.step('1L')?.id).toBe('lifted');
    const before = t.job.version;
    t.workTo('1L');
    const since = t.job.events.filter((e) => e.version > before);
    expect(since.map(({ body }) => ('stepId' in body ? body.stepId : ''))).toEqual(
      expect.arrayContaining(['hub-off', 'seal', 'hub-on', 'lock', 'wheel-nuts']),
    );
    expect(describeParts(t.at('1L'))).toMatch(/^New: hub seal, hub cap gasket\. \d+ judged and kept\.$/);
    expect(t.try(release, supervisor)).toBeNull();
  });

  it('stays known to the next job, which begins with taking it out', () => {
    const t = waiting();
    t.do({ ...seal, as: 'reused' });
    t.workTo('1L');
    t.do({ kind: 'ended-out-of-service', reason: 'No seal', leaves: 'stays', told: 'M. Tern' }, supervisor);
    const left = whatIsLeft(t.job, t.at('1L'));
    expect(left?.made['seal']?.old).toBe('hub-seal');
    // A record of an earlier job has no place in the next.
    expect(left?.layers.hub).toMatchObject({ is: 'on', moved: { seq: 0, by: 'Tech' } });
    const next = openingOn(['1L'], 'a-trailer', ['retorque']);
    const began = sideSchema.parse(left);
    const u = new TestJob({ ...next, wheelEnds: next.wheelEnds.map((w) => ({ ...w, began })) });
    u.workTo('1L');
    const done = u.job.events.flatMap(({ body }) => ('stepId' in body ? [body.stepId] : []));
    expect(done).toEqual(expect.arrayContaining(['hub-off', 'seal']));
    expect(codes(u, '1L')).toEqual(['finding']);
  });

  it('is never what is filled in or wetted', () => {
    const t = new TestJob(openingOn(['2L', '2R'], 'g-c-clip'));
    const oil = { kind: 'part-received', position: '2L', what: 'part:axle-oil' } as const;
    expect(t.try({ ...oil, as: 'reused' })).toMatch(/no old one that could go in again/);
    expect(t.try({ ...oil, as: 'received' })).toBeNull();
  });
});
