import { describe, expect, it } from 'vitest';
import { quantity } from '../quantity/index.ts';
import type { Symptom } from '../inspection/index.ts';
import { againstRelease, openFindings, partsToJudge, plannedLayers, type WheelEnd } from './index.ts';
import { codes, release, REASON } from './testing/ways.ts';
import { openingOn, soundParts, supervisor, TestJob } from './testing/work.ts';

/** What answers a symptom: closures made, parts judged, steps recorded. Written from the trade and not from the code. */
const answers: Record<Symptom, string[]> = {
  pulls: ['step:rock'],
  shimmy: ['step:rock'],
  noise: ['step:rock'],
  movement: ['step:rock'],
  lamp: ['made:sensor', 'made:sensor-lead', 'judged:tone-ring', 'step:final-look'],
  smoke: [
    'judged:cups-and-rollers',
    'judged:unit-hub-bearing',
    'judged:shaft-bearing',
    'judged:shaft-journal',
  ],
  'hub-warmer': [
    'judged:cups-and-rollers',
    'judged:unit-hub-bearing',
    'judged:shaft-bearing',
    'judged:shaft-journal',
    'step:hub-heat',
  ],
  'oil-on-tyre': [
    'made:seal',
    'made:shaft-seal-in',
    'made:seal-home',
    'made:oil-level',
    'made:axle-level',
    'made:cap-square',
  ],
  'dry-stain': [
    'made:seal',
    'made:shaft-seal-in',
    'made:seal-home',
    'made:oil-level',
    'made:axle-level',
    'step:final-look',
  ],
  'weep-at-cap': ['made:fill', 'step:final-look'],
  'oil-on-lining': ['made:brakes-back', 'judged:lining'],
  'cap-missing': ['made:fill', 'made:oil-level'],
  'grease-cap-missing': ['made:fill'],
  'oil-hub-open': ['made:fill', 'made:oil-level'],
  'metal-in-cap': ['judged:cups-and-rollers'],
  cracked: [],
  'nuts-missing': ['made:wheel-nuts'],
};
const everyAnswer = [...new Set(Object.values(answers).flat())];

const trace = {
  ...{
    seq: 5,
    eventId: '00000000-0000-4000-8000-000000000009',
    jobId: '00000000-0000-4000-8000-000000000008',
  },
  ...{ at: '2026-11-26T07:00:00.000Z', doneAt: '2026-11-26T07:00:00.000Z' },
  by: { id: '00000000-0000-4000-8000-000000000007', name: 'D. Achterberg', role: 'technician' as const },
};

/** A wheel end with a symptom, on which one thing was done. */
function after(symptom: Symptom, done: string, ok = true): WheelEnd {
  const w = { ...new TestJob(openingOn(['2L'])).at('2L'), symptoms: [symptom] };
  const [what, id] = done.split(':') as [string, string];
  if (what === 'made') {
    const last = { ...trace, by: trace.by.name };
    return { ...w, side: { ...w.side, made: { [id]: { first: 5, last } } } };
  }
  const findings = [{ component: id, seen: 'sound', disposition: 'reuse' as const }];
  const data =
    what === 'judged'
      ? { kind: 'judge' as const, hardWorked: false, findings }
      : { kind: 'inspect' as const, ok, ...(ok ? {} : { note: 'Still there' }) };
  const stepId = what === 'judged' ? 'judge-parts' : id;
  return { ...w, records: [{ ...trace, stage: 'inspect', stepId, round: 1, data, skipped: null }] };
}

describe('a symptom', () => {
  it.each(Object.keys(answers) as Symptom[])(
    '%s is answered by what bears on it, and by nothing else',
    (symptom) => {
      for (const done of everyAnswer) {
        const open = openFindings(after(symptom, done)).map((f) => f.id);
        expect(open.includes(`symptom:${symptom}`), done).toBe(!answers[symptom].includes(done));
      }
    },
  );

  it('is not answered by a look that said no', () => {
    expect(openFindings(after('lamp', 'step:final-look', false)).map((f) => f.id)).toEqual(['symptom:lamp']);
  });
});

describe('the wheel was rocked, and it moved', () => {
  const mm = (value: number) => quantity(value, 'mm');
  const rocked = (more: object) => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['wheel-off']));
    t.workTo('2L', 'rock');
    expect(t.recordStep('2L', { kind: 'joint', felt: 'both', note: 'Moves', ...more })).toBeNull();
    return openFindings(t.at('2L')).map((f) => [f.id, f.guard]);
  };

  it('what was not measured is open, for a supervisor', () => {
    expect(rocked({})).toEqual([['rock', 'supervisor']]);
  });

  it('over the limit at the bearing, nobody releases it; within, it is answered', () => {
    const bearingLimit = mm(0.127);
    expect(rocked({ knuckleToHub: mm(0.2), bearingLimit })).toEqual([['rock', 'never']]);
    expect(rocked({ knuckleToHub: mm(0.127), bearingLimit })).toEqual([]);
    expect(rocked({ knuckleToHub: mm(0.1), bearingLimit })).toEqual([]);
  });

  it.each([
    [{ knuckleToHub: mm(0.2), bearingLimit: mm(0.127) }, 'end-play', 'stub-on'],
    [{ axleToKnuckle: mm(0.5), kingpinLimit: mm(0.25), knuckleToHub: mm(0) }, 'stub-on', 'end-play'],
    [{ axleToKnuckle: mm(0.5), kingpinLimit: mm(0.25), knuckleToHub: mm(0) }, 'swivel-preload', 'drag'],
  ])('%j is answered by %s made after it, and not by %s', (more, answered, not) => {
    const t = new TestJob(openingOn(['2L'], 'a-steer-double', ['wheel-off']));
    t.workTo('2L', 'rock');
    expect(t.recordStep('2L', { kind: 'joint', felt: 'both', note: 'Moves', ...more })).toBeNull();
    const w = t.at('2L');
    const { seq } = w.records.at(-1)!;
    const openAfter = (id: string, at: number) => {
      const mark = { seq: at, eventId: '', jobId: '', at: '', by: '' };
      const made = { ...w.side.made, [id]: { first: at, last: mark } };
      return openFindings({ ...w, side: { ...w.side, made } }).map((f) => f.id);
    };
    expect(openAfter(answered, seq + 1)).toEqual([]);
    expect(openAfter(answered, seq - 1)).toEqual(['rock']);
    expect(openAfter(not, seq + 1)).toEqual(['rock']);
  });
});

describe('what nobody releases in spite of', () => {
  it('is a part that the supervisor has not decided on', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['seal']));
    t.workTo('2L', 'judge-parts');
    const sound = soundParts(partsToJudge(t.at('2L')));
    const findings = sound.findings.map((f) =>
      f.component === 'spindle-shoulder' ? { ...f, seen: 'small-step', disposition: 'ask' as const } : f,
    );
    expect(t.recordStep('2L', { ...sound, findings })).toBeNull();
    const undecided = againstRelease(t.at('2L')).filter((o) => o.code === 'undecided');
    expect(undecided).toEqual([
      { code: 'undecided', guard: 'never', params: { component: 'spindle-shoulder' } },
    ]);
  });

  it('is a setting that nothing measured', () => {
    const t = new TestJob(openingOn(['2L'], 'a-drive-tang', ['adjust']));
    t.workTo('2L', 'end-play');
    expect(againstRelease(t.at('2L'))).toContainEqual({ code: 'not-measured', guard: 'never', params: {} });
    expect(t.try(release('2L', REASON), supervisor)).toMatch(/End play is not measured/);
    expect(codes(t, '2L')).toContain('missing');
  });
});

it('shows each work on the layer where it is done', () => {
  const at = (works: Parameters<typeof openingOn>[2]) => [
    ...plannedLayers(new TestJob(openingOn(['2L'], 'a-drive-tang', works)).at('2L')),
  ];
  expect(at(['adjust'])).toEqual([['nut', 'adjust the bearings']]);
  expect(at(['seal'])).toEqual([['hub', 'seal']]);
  expect(at(['seal', 'bearings'])).toEqual([['hub', 'seal, bearings']]);
  expect(at(['brakes', 'wheel-off'])).toEqual([
    ['brake-outer', 'brakes'],
    ['wheel', 'wheel off'],
  ]);
});

describe('a part that is to be replaced', () => {
  type State = 'have' | 'owner' | 'ordered' | 'missing';
  interface Known {
    line?: State;
    came?: 'received' | 'reused';
    compared?: 'before' | 'after';
    fitted?: 'before' | 'after';
  }
  const part = 'studs';
  const seqs = { before: 3, after: 7 };
  /** Whether it stands against the release: studs judged for replacement at 5, with what else is known. */
  function isStillIn({ line, came, compared, fitted }: Known): boolean {
    const w = new TestJob(openingOn(['2L'])).at('2L');
    const at = (seq: number, stepId: string, data: object) => ({
      ...{ ...trace, seq, stage: 'inspect' as const, stepId, round: 1, data, skipped: null },
    });
    const records = [
      ...(line
        ? [at(2, 'readiness', { kind: 'ready', lines: [{ what: `part:${part}`, state: line }] })]
        : []),
      ...(compared
        ? [at(seqs[compared], 'compare', { kind: 'compare', parts: [{ part, differs: [] }] })]
        : []),
      at(5, 'judge-parts', {
        ...{ kind: 'judge', hardWorked: false },
        findings: [{ component: part, seen: 'one-damaged', disposition: 'replace' }],
      }),
    ] as unknown as WheelEnd['records'];
    const last = (seq: number) => ({ ...trace, seq, by: trace.by.name });
    const made: WheelEnd['side']['made'] = fitted
      ? { 'studs-home': { first: seqs[fitted], last: last(seqs[fitted]) } }
      : {};
    const received = came ? [{ ...trace, what: `part:${part}`, as: came }] : [];
    const known = {
      ...{ ...w, records, side: { ...w.side, made } },
      plan: { ...w.plan, received: received as unknown as WheelEnd['plan']['received'] },
    };
    return againstRelease(known).some((o) => o.code === 'part-still-in' && o.guard === 'never');
  }

  it('that one of several closures would fit is in once that one is made', () => {
    const w = new TestJob(openingOn(['2L'])).at('2L');
    const findings = [{ component: 'lubricant', seen: 'water', disposition: 'replace' as const }];
    const data = { kind: 'judge' as const, hardWorked: false, findings };
    const judged = {
      ...trace,
      stage: 'inspect' as const,
      stepId: 'judge-parts',
      round: 1,
      data,
      skipped: null,
    };
    const stillIn = (id: string) => {
      const made = { [id]: { first: 7, last: { ...trace, seq: 7, by: trace.by.name } } };
      return againstRelease({ ...w, records: [judged], side: { ...w.side, made } }).some(
        (o) => o.code === 'part-still-in',
      );
    };
    expect(['pack', 'fill', 'axle-oil', 'seal'].map(stillIn)).toEqual([false, false, false, true]);
  });

  it.each<[Known, boolean]>([
    [{}, true],
    [{ line: 'have' }, false],
    [{ line: 'owner' }, false],
    [{ line: 'ordered' }, true],
    [{ line: 'missing' }, true],
    [{ line: 'ordered', came: 'received' }, false],
    [{ line: 'missing', came: 'received' }, false],
    [{ came: 'received' }, false],
    [{ came: 'reused' }, true],
    [{ line: 'have', came: 'reused' }, true],
    [{ compared: 'after' }, false],
    [{ compared: 'before' }, true],
    [{ compared: 'after', line: 'ordered' }, true],
    [{ fitted: 'after' }, false],
    [{ fitted: 'before' }, true],
    [{ fitted: 'after', line: 'missing' }, true],
    [{ fitted: 'after', line: 'missing', came: 'received' }, false],
    [{ fitted: 'after', came: 'reused' }, true],
  ])('with %o, it stands against the release: %s', (known, still) => {
    expect(isStillIn(known)).toBe(still);
  });
});
