import { describe, expect, it } from 'vitest';
import { describeCalculation, listCalculations, reckon, describeBadJson } from './index.ts';

describe('the registry', () => {
  it.each(listCalculations().map((c) => c.name))(
    '%s answers its own example and describes itself',
    (name) => {
      const description = describeCalculation(name)!;
      expect(reckon(name, description.example)).toMatchObject({ ok: true });
      expect(description.inputSchema).toMatchObject({ type: 'object' });
      expect(description.sources.length).toBeGreaterThan(0);
    },
  );

  it('names the field that is wrong by its path', () => {
    const answer = reckon('end-play', { cycles: [{ pushMm: 0 }], band: { minMm: 0, maxMm: 1 } });
    expect(answer).toMatchObject({
      ok: false,
      reason: 'bad-input',
      error: { issues: [{ path: 'cycles.0.pullMm' }] },
    });
  });

  it('names the field within a choice of shapes', () => {
    const answer = reckon('nut-travel', { thread: { threadsPerInch: -3 }, turns: 1 });
    expect(answer).toMatchObject({ error: { issues: [{ path: 'thread.threadsPerInch' }] } });
  });

  it.each([
    ['convert', { value: 1, from: 'Nm', to: 'mm' }, 'to'],
    ['convert', { value: -300, from: 'degC', to: 'degF' }, 'value'],
    ['convert', { value: Infinity, from: 'mm', to: 'in' }, 'value'],
    ['end-play', { cycles: [], band: { minMm: 0, maxMm: 1 } }, 'cycles'],
    ['end-play', { cycles: [{ pushMm: 0, pullMm: 1 }], band: { minMm: 2, maxMm: 1 } }, 'band.maxMm'],
    [
      'nut-setting',
      { thread: { pitchMm: 1 }, lock: { kind: 'stepless' }, measuredMm: -1, band: { minMm: 0, maxMm: 1 } },
      'measuredMm',
    ],
  ])('%s refuses %o at %s', (name, input, path) => {
    expect(reckon(name, input)).toMatchObject({
      ok: false,
      reason: 'bad-input',
      error: { issues: [{ path }] },
    });
  });

  it('knows what it does not know', () => {
    expect(reckon('astrology', {})).toMatchObject({ ok: false, reason: 'unknown' });
    expect(describeCalculation('astrology')).toBeUndefined();
  });
});

it('tells how far a long sum is, and comes to the same as without telling', () => {
  const example = describeCalculation('shop-plan')!.example as { jobs: { id: string }[] };
  const jobs = Array.from({ length: 12 }, (_, i) => ({ ...example.jobs[i % 3]!, id: `job ${i}` }));
  const input = { ...example, jobs, tries: 2000 };
  const told: number[] = [];
  expect(reckon('shop-plan', input, ({ done }) => told.push(done))).toEqual(reckon('shop-plan', input));
  expect(told.length).toBeGreaterThan(1);
  expect([...told].sort((a, b) => a - b)).toEqual(told);
});

const refusedAs = (name: string, change: object) => {
  const answer = reckon(name, { ...(describeCalculation(name)!.example as object), ...change });
  return answer.ok ? 'taken' : answer.error.issues.map((i) => `${i.path}: ${i.message}`);
};

/** The same value with a field that nobody asked for in every object of it. */
function withJunk(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withJunk);
  if (typeof value !== 'object' || value === null) return value;
  const fields = Object.entries(value).map(([key, inner]): [string, unknown] => [key, withJunk(inner)]);
  return Object.fromEntries([...fields, ['nobodyAskedFor', 1]]);
}
const objectsIn = (value: unknown): number =>
  typeof value !== 'object' || value === null
    ? 0
    : Number(!Array.isArray(value)) + Object.values(value).reduce((sum: number, v) => sum + objectsIn(v), 0);

describe('fields that a calculation does not know', () => {
  it.each(listCalculations().map((c) => c.name))(
    '%s: are refused at any depth, none in the example',
    (name) => {
      const { example } = describeCalculation(name)!;
      expect(reckon(name, example).ok).toBe(true);
      const answer = reckon(name, withJunk(example));
      const named = answer.ok
        ? []
        : answer.error.issues.filter((i) => i.message.includes('"nobodyAskedFor"'));
      expect(named).toHaveLength(Math.min(20, objectsIn(example)));
    },
  );

  it('are named with the nearest there is, of the kind that was chosen', () => {
    expect(refusedAs('nut-setting', { measurdMm: 0.1 })).toEqual([
      'measurdMm: there is no field "measurdMm" here; the nearest is "measuredMm"',
    ]);
    expect(refusedAs('nut-setting', { thread: { threadPerInch: 12 } })).toContain(
      'thread.threadPerInch: there is no field "threadPerInch" here; the nearest is "threadsPerInch"',
    );
    expect(
      refusedAs('nut-setting', {
        lock: { kind: 'castellated', slots: 6, holeAxesDeg: [0], reversible: true },
      }),
    ).toEqual([expect.stringMatching(/^lock\.reversible: there is no field/)]);
    expect(refusedAs('nut-setting', JSON.parse('{"__proto__":{"slots":1}}') as object)).toEqual([
      expect.stringMatching(/^__proto__: there is no field/),
    ]);
    expect(reckon('nut-setting', JSON.parse('{"constructor":1}')).ok).toBe(false);
  });
});

describe('input that is nearly right', () => {
  it('a thread given twice is taken where both agree', () => {
    expect(refusedAs('nut-travel', { thread: { threadsPerInch: 12, pitchMm: 2.117 } })).toBe('taken');
    expect(refusedAs('nut-travel', { thread: { threadsPerInch: 12, pitchMm: 2.1166667 } })).toBe('taken');
    expect(refusedAs('nut-travel', { thread: { threadsPerInch: 12, pitchMm: 1.5 } })).toEqual([
      'thread.pitchMm: is not the pitch of the threads per inch beside it: give one of them',
    ]);
  });

  it('a number as text says so, and that a decimal comma is a point', () => {
    expect(refusedAs('nut-setting', { measuredMm: '0.1' })).toEqual([
      'measuredMm: "0.1" is text: a number stands without quotation marks',
    ]);
    expect(refusedAs('end-play', { cycles: [{ pushMm: '0,1', pullMm: 0.2 }] })).toEqual([
      'cycles.0.pushMm: "0,1" is text: a number stands without quotation marks; a decimal comma is a point here',
    ]);
  });

  it('choices are listed where a value is none of them', () => {
    expect(refusedAs('end-play', { rule: 'lax' })).toEqual([expect.stringMatching(/"simple"\|"guarded"/)]);
    expect(refusedAs('nut-setting', { lock: { kind: 'glued' } })).toEqual([
      expect.stringMatching(/^lock\.kind: .*castellated.*indexed.*stepless/),
    ]);
    expect(refusedAs('convert', { from: 'furlong' })).toEqual([expect.stringMatching(/^from: .*"mm"/)]);
  });

  it('a decimal comma in JSON is seen in a field, not in a list nor in words', () => {
    const comma = /A decimal comma is a point here/;
    expect(describeBadJson('{"turns": 0,125}', new Error('x'))).toMatch(comma);
    expect(describeBadJson('{"values": [1,2,}', new Error('x'))).not.toMatch(comma);
    expect(describeBadJson('{"note": "at: 1,2"', new Error('x'))).not.toMatch(comma);
  });
});
