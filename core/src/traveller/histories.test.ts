import { env } from 'node:process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { History } from './testing/histories.ts';

/** How many histories are lived through; `npm run histories -- --count N --seed N` lives through more. */
const COUNT = Number(env['HISTORIES'] ?? 1_000);
/** The same ones every time, so that a red run is of the change at hand; more are looked for on purpose. */
const seed = env['SEED'] === 'any' ? {} : { seed: Number(env['SEED'] ?? 22) };
/** Milliseconds that one may take on a machine with much else to do. */
const MOST_TIME = 600;
const choices = fc.array(fc.nat(1_000_000), { minLength: 5, maxLength: 60, size: '+1' });

/** Steps that any history needs at the most to be finished. */
const MOST_STEPS = 400;

/** Both sides, one after the other. */
const SIDES = ['1L', '1R'] as const;

/** A side that was released is whole, or its release is in doubt once what was written wrong is put right. */
function expectWhole(h: History, side: (typeof SIDES)[number]): void {
  const wrong = h.metal[side].wrong();
  if (wrong.length === 0) return;
  const { release } = h.t.at(side);
  expect(release?.inDoubt ?? null, `${wrong.join(', ')}\n${h.said.join('\n')}`).not.toBeNull();
}

/** Whatever is left to do is done, and the side is released. @param slips where something is written that nobody did */
function finish(h: History, slips: readonly number[] = []): void {
  const { side } = h;
  const isSlip = (i: number) => slips.length > 0 && slips[i % slips.length]! % 16 === 0;
  // The other side has its wheel on before this one is lowered.
  for (const one of [side, side === '1L' ? '1R' : '1L', side] as const) {
    h.side = one;
    if (h.isReleased(one)) continue;
    for (let i = 0; i < MOST_STEPS; i++) if (!(isSlip(i) && h.slip()) && !h.follow()) break;
  }
  expect(h.todo(), h.said.join('\n')).toEqual([]);
  h.answerFindings();
  expect(h.release(), h.said.join('\n')).toBeNull();
}

describe('histories of an axle, as hands had it and as it was written', () => {
  it(
    'a release means that the metal is whole, and every history can be finished',
    () => {
      fc.assert(
        fc.property(fc.nat(1_000), choices, (kind, list) => {
          const h = new History(kind);
          for (const choice of list) {
            const before = SIDES.filter((side) => h.isReleased(side));
            h.next(choice);
            const released = SIDES.find((side) => h.isReleased(side) && !before.includes(side));
            if (released && h.putRowsRight()) return expectWhole(h, released);
            if (released) expect(h.metal[released].wrong(), h.said.join('\n')).toEqual([]);
          }
          for (const side of SIDES) {
            h.side = side;
            if (!h.isReleased(side)) finish(h, list);
            if (h.putRowsRight()) expectWhole(h, side);
            else expect(h.metal[side].wrong(), h.said.join('\n')).toEqual([]);
          }
          // A release in doubt is settled by the job after it, which begins from what is not whole.
          if (!SIDES.some((side) => h.metal[side].wrong().length > 0)) return;
          h.nextJob(kind);
          for (const side of SIDES) {
            h.side = side;
            finish(h);
            expect(h.metal[side].wrong(), h.said.join('\n')).toEqual([]);
          }
        }),
        { numRuns: COUNT, endOnFailure: env['SHRINK'] === 'no', ...seed },
      );
    },
    COUNT * MOST_TIME,
  );
});
