import { describe, expect, it } from 'vitest';
import { entryOf, toStoredEvent } from '../record/index.ts';
import { recordedBy, type Actor } from './index.ts';
import { openingOn, supervisor, technician, TestJob } from './testing/work.ts';

const second = { id: '00000000-0000-4000-8000-000000000955', name: 'Other', role: 'technician' } as const;
const sent = (by: Actor): Actor => ({ ...by, sentBy: { id: supervisor.id, name: supervisor.name } });

describe('what another person sends on', () => {
  it('stays a record of who made it, and says who sent it; also as an entry of the record', () => {
    const t = new TestJob(openingOn(['2L']));
    const step = t.step('2L')!;
    t.recordStep('2L', undefined, sent(technician));
    const event = t.job.events.at(-1)!;
    expect(t.at('2L').records.at(-1)).toMatchObject({ stepId: step.id, by: { id: technician.id } });
    expect(recordedBy(event.by)).toBe(`${technician.name}, sent by ${supervisor.name}`);
    expect(toStoredEvent(entryOf(event))).toEqual(event);
    expect(recordedBy(technician)).toBe(technician.name);
  });

  it('is never what somebody signs: a release, or the look of a second person', () => {
    const t = new TestJob(openingOn(['2L']));
    const signs = `${second.name} signs that in person`;
    t.workTo('2L', 'lock-looked-at');
    const look = {
      kind: 'step-recorded',
      position: '2L',
      stage: 'lock-and-fill',
      stepId: 'lock-looked-at',
      round: 1,
      data: { kind: 'inspect', ok: true },
    } as const;
    expect(t.try(look, sent(second))).toContain(signs);
    expect(t.try(look, second)).toBeNull();
    t.workTo('2L');
    const release = { kind: 'wheel-end-released', position: '2L' } as const;
    expect(t.try(release, sent({ ...second, role: 'supervisor' }))).toContain(signs);
    expect(t.try(release, supervisor)).toBeNull();
  });
});
