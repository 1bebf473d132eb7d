import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { describeCalculation, listCalculations, reckon } from './index.ts';

const odd: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(0, -0, 1, -1, 1e-300, 1e300, -1e300, NaN, Infinity, -Infinity, 0.5, 3, 100, 10_000, 1e9),
  fc.double(),
  fc.integer({ min: -1000, max: 1000 }),
  fc.constantFrom(null, true, '', 'x', '2026-02-30', [], {}, undefined),
);

/** Every place in a value that holds something, as a path of keys. */
function pathsOf(value: unknown, at: string[] = []): string[][] {
  if (value === null || typeof value !== 'object') return [at];
  return [at, ...Object.entries(value).flatMap(([k, v]) => pathsOf(v, [...at, k]))];
}

function replaced(value: unknown, [key, ...rest]: string[], by: unknown): unknown {
  if (key === undefined) return by;
  if (Array.isArray(value)) return value.map((v, i) => (String(i) === key ? replaced(v, rest, by) : v));
  const object = value as Record<string, unknown>;
  return { ...object, [key]: replaced(object[key], rest, by) };
}

function onlyFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  return value === null || typeof value !== 'object' || Object.values(value).every(onlyFinite);
}

describe('no input breaks a calculation', () => {
  it.each(listCalculations().map((c) => c.name))(
    '%s answers with finite numbers or says what is wrong',
    (name) => {
      const example = describeCalculation(name)!.example;
      const paths = pathsOf(example);
      const change = fc.tuple(fc.constantFrom(...paths), odd);
      fc.assert(
        fc.property(fc.array(change, { minLength: 1, maxLength: 3 }), (changes) => {
          const input = changes.reduce<unknown>((value, [path, by]) => {
            try {
              return replaced(value, path, by);
            } catch (error) {
              // An earlier change took away what this one is about.
              if (error instanceof TypeError) return value;
              throw error;
            }
          }, example);
          const answer = reckon(name, input);
          if (answer.ok) expect(onlyFinite(answer.result)).toBe(true);
          else expect(answer.error.issues.length).toBeGreaterThan(0);
        }),
        { numRuns: 200 },
      );
    },
  );

  it.each(listCalculations().map((c) => c.name))('%s refuses lists that are absurdly long', (name) => {
    const example = describeCalculation(name)!.example;
    const lists = pathsOf(example).filter((p) => {
      const at = p.reduce<unknown>((v, k) => (v as Record<string, unknown>)[k], example);
      return Array.isArray(at) && at.length > 0;
    });
    for (const path of lists) {
      const list = path.reduce<unknown>((v, k) => (v as Record<string, unknown>)[k], example) as unknown[];
      const long = Array.from({ length: 10_001 }, (_, i) => list[i % list.length]);
      expect(reckon(name, replaced(example, path, long))).toMatchObject({ ok: false, reason: 'bad-input' });
    }
  });
});
