import { z } from 'zod';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cleanInput } from './clean-input.ts';
import { HttpProblem } from './problem.ts';

const refusal = (value: unknown) => {
  try {
    cleanInput(value);
  } catch (error) {
    if (error instanceof HttpProblem) return { status: error.status, detail: error.message };
    throw error;
  }
  return null;
};

describe('what comes from outside', () => {
  it('has its ids in lower case, as the database gives them back', () => {
    const id = '0B5C2A8E-1D3F-4A6B-8C7D-9E0F1A2B3C4D';
    expect(cleanInput({ id, list: [id], note: `about ${id}` })).toEqual({
      id: id.toLowerCase(),
      list: [id.toLowerCase()],
      note: `about ${id}`,
    });
  });

  it('has its text in one normal form', () => {
    expect(cleanInput({ note: 'Cafe\u0301' })).toEqual({ note: 'Caf\u00e9' });
  });

  it.each([
    [{ command: { note: 'a\0b' } }, 'command.note: holds a NUL'],
    [{ lines: [{ what: 'x' }, { what: '\ud800' }] }, 'lines.1.what: holds half a character'],
    [{ a: { 'b\0': 1 } }, 'a: holds a NUL'],
    ['\udc00 alone', 'holds half a character'],
    // What a check of a text would ask, answered so that it breaks.
    [{ supplier: { length: { toString: 1 } } }, 'supplier.length: is a figure, a word or a quantity'],
  ])('is refused with the field named: %j', (value, words) => {
    expect(refusal(value)).toMatchObject({ status: 422, detail: expect.stringContaining(words) as string });
  });

  it('is refused where it is nested more deeply than any form', () => {
    let deep: unknown = 1;
    for (let i = 0; i < 5_000; i++) deep = i % 2 ? [deep] : { deep };
    expect(refusal(deep)).toMatchObject({
      status: 422,
      detail: expect.stringContaining('too deeply') as string,
    });
  });

  it('is never such that a check of a text or a list breaks; a quantity named length or size comes through', () => {
    const size = { value: 2.625, unit: 'in' };
    expect(cleanInput({ size, length: size })).toEqual({ size, length: size });
    const checks = z.union([z.string().max(3), z.array(z.int()).max(3), z.set(z.int()).max(3)]);
    const keys = fc.constantFrom('toString', 'valueOf', 'value', 'length', '__proto__');
    const { tree } = fc.letrec<{ tree: unknown }>((tie) => ({
      tree: fc.oneof(
        { maxDepth: 3 },
        fc.jsonValue({ maxDepth: 0 }),
        fc.array(tie('tree'), { maxLength: 2 }),
        fc.dictionary(keys, tie('tree'), { maxKeys: 3 }),
      ),
    }));
    fc.assert(
      fc.property(fc.constantFrom('length', 'size'), tree, (key, v) => {
        const sent: unknown = JSON.parse(JSON.stringify({ [key]: v }));
        if (!refusal(sent)) expect(checks.safeParse(cleanInput(sent)).success).toBe(false);
      }),
    );
  });

  it('comes through as it was in every other way, and a second cleaning changes nothing', () => {
    const value = fc.jsonValue({ maxDepth: 6 });
    fc.assert(
      fc.property(value, (v) => {
        if (refusal(v)) return;
        const once = cleanInput(v);
        expect(cleanInput(once)).toEqual(once);
        if (!/[^\x20-\x7e]/.test(JSON.stringify(v)) && !/[0-9a-f]{12}"/i.test(JSON.stringify(v)))
          expect(once).toEqual(v);
      }),
    );
  });
});
