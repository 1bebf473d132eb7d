import { env } from 'node:process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { History } from './testing/histories.ts';

/** How many histories are lived through; `npm run histories -- --count N --seed N` lives through more. */
const COUNT = Number(env['HISTORIES'] ?? 500);
/** The same ones every time, so that a red run is of the change at hand; more are looked for on purpose. */
const seed = env['SEED'] === 'any' ? {} : { seed: Number(env['SEED'] ?? 22) };
const choices = fc.array(fc.nat(1_000_000), { minLength: 5, maxLength: 90 });

/** Steps that any history needs at the most to be finished. */
const MOST_STEPS = 400;

describe('histories of one wheel end, as hands had it and as it was written', () => {
  it('a release means that the metal is whole, and every history can be finished', () => {
    fc.assert(
      fc.property(fc.nat(1_000), choices, (kind, list) => {
        const h = new History(kind);
        for (const choice of list) {
          h.next(choice);
          if (h.released) {
            expect(h.metal.wrong(), h.said.join('\n')).toEqual([]);
            return;
          }
        }
        for (let i = 0; i < MOST_STEPS && h.follow(); i++);
        expect(h.todo(), h.said.join('\n')).toEqual([]);
        const why = h.release();
        expect(why, h.said.join('\n')).toBeNull();
        expect(h.metal.wrong(), h.said.join('\n')).toEqual([]);
      }),
      { numRuns: COUNT, ...seed },
    );
  }, 600_000);
});
