import { describe, expect, it } from 'vitest';
import { describeCalculation, listCalculations, onlyKnown, reckon } from './index.ts';

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

/** The same value with a field that nobody asked for in every object of it. */
function withJunk(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withJunk);
  if (typeof value !== 'object' || value === null) return value;
  const fields = Object.entries(value).map(([key, inner]): [string, unknown] => [key, withJunk(inner)]);
  return Object.fromEntries([...fields, ['nobodyAskedFor', 'x'.repeat(100)]]);
}

describe('input without what its calculation does not know', () => {
  it.each(listCalculations().map((c) => c.name))(
    '%s: is the example, however much is put beside it',
    (name) => {
      const { example } = describeCalculation(name)!;
      expect(onlyKnown(name, example)).toEqual(example);
      const littered = withJunk(example);
      // Some take no unknown field at all: then there is nothing to take out.
      const answer = reckon(name, littered);
      if (!answer.ok) return expect(answer.reason).toBe('bad-input');
      expect(answer.result).toEqual((reckon(name, example) as { result: unknown }).result);
      expect(onlyKnown(name, littered)).toEqual(example);
    },
  );
});
