import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agreementOf, greaseChange, thickenerIds, thickenerIn, thickeners } from './index.ts';

describe('what thickens a grease', () => {
  // Names as they stand on labels; common practice, no source.
  it.each([
    ['Lithium complex NLGI 2, GC-LB', 'lithium-complex'],
    ['LITHIUM 12 NLGI 2', 'lithium'],
    ['Calcium sulphonate complex, marine', 'calcium-sulfonate'],
    ['Calcium complex', 'calcium-complex'],
    ['Anhydrous calcium', 'calcium-hydroxystearate'],
    ['Shear-stable polyurea', 'polyurea-stable'],
    ['Polyurea NLGI 2', 'polyurea'],
    ['Aluminum complex', 'aluminium-complex'],
    ['Blue grease', null],
    ['', null],
  ])('is read from “%s”', (name, thickener) => expect(thickenerIn(name)).toBe(thickener));

  it('is read from what it is called here', () => {
    for (const id of thickenerIds) expect(thickenerIn(thickeners[id])).toBe(id);
  });
});

describe('two thickeners', () => {
  // Value from memory: the places of the chart on which those that are printed agree.
  it.each([
    ['lithium', 'lithium-complex', 'agree'],
    ['lithium', 'polyurea', 'disagree'],
    ['lithium-complex', 'polyurea', 'disagree'],
    ['lithium-complex', 'calcium-sulfonate', 'agree'],
    ['clay', 'lithium', 'disagree'],
    ['clay', 'polyurea', 'disagree'],
    ['aluminium-complex', 'lithium', 'disagree'],
    ['polyurea', 'polyurea-stable', 'agree'],
  ] as const)('%s and %s: %s', (a, b, agreement) => expect(agreementOf(a, b)).toBe(agreement));

  it('take each other the same way round, and each takes itself', () => {
    const one = fc.constantFrom(...thickenerIds);
    fc.assert(
      fc.property(one, one, (a, b) => {
        expect(agreementOf(a, b)).toBe(agreementOf(b, a));
        expect(agreementOf(a, b) === 'same').toBe(a === b);
        expect(['same', 'agree', 'doubtful', 'disagree']).toContain(agreementOf(a, b));
      }),
    );
  });
});

describe('a change of grease', () => {
  it('is none where the name is the same', () => {
    expect(greaseChange({ name: ' lithium complex ' }, { name: 'Lithium Complex' })).toBeNull();
  });

  it('says how bad a rest of the old one would be, and always that it comes out', () => {
    const change = (a: string, b: string) => greaseChange({ name: a }, { name: b })!;
    expect(change('Lithium complex NLGI 2', 'Polyurea NLGI 2')).toMatchObject({
      agreement: 'disagree',
      finding: expect.stringMatching(/^Lithium complex and polyurea do not take each other/),
    });
    for (const [a, b] of [
      ['Lithium one', 'Lithium two'],
      ['Lithium', 'Lithium complex'],
      ['Calcium', 'Lithium complex'],
      ['Clay', 'Lithium'],
      ['Clay', 'Red stuff'],
    ] as const)
      expect(change(a, b).advice).toMatch(/comes out/);
  });

  it('takes what it does not know for the worst, unless the store knows it', () => {
    expect(greaseChange({ name: 'Blue 2' }, { name: 'Lithium' })).toMatchObject({
      agreement: 'unknown',
      finding: 'What thickens Blue 2 is not known here.',
    });
    expect(greaseChange({ name: 'Blue 2', thickener: 'lithium' }, { name: 'Lithium' })!.agreement).toBe(
      'same',
    );
  });
});
