import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { componentOf } from '../inspection/index.ts';
import { familySheet } from '../procedure/index.ts';
import { quantity } from '../quantity/index.ts';
import type { Act } from '../route/index.ts';
import { everyStack } from '../stack/testing/stacks.ts';
import { allNeedsOff, alsoUndoneIds, reachOf, worksOf, type Work } from '../stack/index.ts';
import { againstRelease, fold, append, partsToJudge, progressOf, type StoredEvent } from './index.ts';
import { answer, openingOn, supervisor, TestJob, withOtherSide } from './testing/work.ts';

/** A job on one wheel end of a kind, with some of the works it can have. */
function jobOn({ sheetId, stack }: (typeof everyStack)[number], works: Work[]): TestJob {
  const opening = openingOn(['1L'], sheetId, works);
  const [w] = opening.wheelEnds;
  const wheelEnds = [{ ...w!, sheet: familySheet(sheetId)!, route: { ...w!.route!, stack: [...stack] } }];
  return new TestJob(withOtherSide({ ...opening, wheelEnds }));
}

/** Any kind, with any of the small things that are undone with a layer. */
const kind = fc
  .tuple(
    fc.constantFrom(...everyStack),
    fc.array(fc.subarray([...alsoUndoneIds]), { minLength: 12, maxLength: 12 }),
  )
  .map(([built, also]) => ({
    ...built,
    stack: built.stack.map((layer, i) => ({ ...layer, alsoUndone: also[i]! })),
  }));
const picks = fc.array(fc.nat(40), { minLength: 1, maxLength: 3 });
const pick = (stack: (typeof everyStack)[number]['stack'], wanted: number[]): Work[] => [
  ...new Set(wanted.map((i) => worksOf(stack)[i % worksOf(stack).length]!)),
];

/** Works to the end, judging at random, going deeper now and then; gives up never. */
function workThrough(t: TestJob, seed: readonly number[]): void {
  let turn = 0;
  const next = () => seed[turn++ % seed.length]!;
  for (let guard = 0; guard < 400; guard++) {
    const step = t.step('1L');
    if (!step) return;
    const w = t.at('1L');
    const { plan } = w;
    if (next() % 17 === 0) {
      const more = worksOf(plan.stack).filter((x) => !plan.works.includes(x));
      const work = more[next() % Math.max(1, more.length)];
      if (work) {
        t.do({ kind: 'work-added', position: '1L', work, reason: 'Seen on the way' });
        continue;
      }
    }
    if (step.kind === 'judge' && next() % 2 === 0) {
      const findings = partsToJudge(w).map((component) => {
        const { conditions } = componentOf(component)!;
        const { id, disposition } = conditions[next() % conditions.length]!;
        return { component, seen: id, disposition };
      });
      expect(t.recordStep('1L', { kind: 'judge', hardWorked: false, findings })).toBeNull();
      for (const { component } of findings.filter((f) => f.disposition === 'ask'))
        t.do(
          { kind: 'decision-made', position: '1L', component, decision: 'replace', reason: 'Not worth it' },
          supervisor,
        );
      continue;
    }
    const data = answer(w, step);
    if (data.kind === 'measure' && data.by === 'dial') t.readings('1L', 0.003, 0.003, 0.003);
    expect(t.recordStep('1L', data), `${step.id} of ${w.sheet.sheetId}`).toBeNull();
  }
  throw new Error(`it does not end: ${t.step('1L')?.id}`);
}

describe('a route, whatever the wheel end, the works and the findings', () => {
  it('ends, and whatever was taken off is put back before anybody can release it', () => {
    fc.assert(
      fc.property(
        kind,
        picks,
        fc.array(fc.nat(1000), { minLength: 5, maxLength: 40 }),
        (built, wanted, seed) => {
          const t = jobOn(built, pick(built.stack, wanted));
          // Along the way nobody releases while anything of the never-list is open.
          const early = t.try(
            {
              kind: 'wheel-end-released',
              position: '1L',
              overrideReason: 'It is wanted back on the road this evening',
            },
            supervisor,
          );
          expect(early).toMatch(/cannot be released/);
          workThrough(t, seed);
          const w = t.at('1L');
          const acts = progressOf(w).map((p) => p.step as Act);
          const undone = new Set(acts.filter((a) => a.phase === 'off' && a.layer).map((a) => a.layer));
          for (const layer of undone)
            expect(acts.some((a) => a.layer === layer && a.phase === 'back' && a.guard === 'never')).toBe(
              true,
            );
          for (const { layer, alsoUndone } of built.stack)
            for (const id of undone.has(layer) ? alsoUndone : [])
              expect(acts.findIndex((a) => a.id === `${layer}-${id}-back`)).toBeGreaterThan(
                acts.findIndex((a) => a.id === `${layer}-${id}-off`),
              );
          expect(againstRelease(w).filter((o) => o.code === 'missing')).toEqual([]);
          t.do({ kind: 'wheel-end-released', position: '1L' }, supervisor);
        },
      ),
      { numRuns: 100 },
    );
  }, 60_000);

  it('puts back in the opposite order of taking off, an inner layer finished before the next outer one', () => {
    fc.assert(
      fc.property(kind, picks, (built, wanted) => {
        const t = jobOn(built, pick(built.stack, wanted));
        const acts = progressOf(t.at('1L')).map((p) => p.step as Act);
        const order = (phase: string) => [
          ...new Set(acts.filter((a) => a.phase === phase && a.layer).map((a) => a.layer!)),
        ];
        const back = order('back');
        for (const [i, inner] of back.entries()) {
          for (const outer of allNeedsOff(built.stack, inner)) {
            if (back.includes(outer)) expect(back.indexOf(outer)).toBeGreaterThan(i);
          }
        }
        const layers = acts.filter((a) => a.phase === 'back').map((a) => a.layer);
        const runs = layers.filter((l, i) => l !== layers[i - 1]);
        expect(runs).toEqual([...new Set(runs)]);
      }),
    );
  });

  it('opens nothing that the works did not need', () => {
    fc.assert(
      fc.property(kind, picks, (built, wanted) => {
        const works = pick(built.stack, wanted);
        const t = jobOn(built, works);
        const { layers } = reachOf(built.stack, works);
        for (const { step } of progressOf(t.at('1L'))) {
          const { layer, phase } = step as Act;
          if (layer && (phase === 'off' || phase === 'ground')) expect(layers.has(layer)).toBe(true);
        }
      }),
    );
  });

  it('folds to the same job event by event', () => {
    fc.assert(
      fc.property(
        kind,
        picks,
        fc.array(fc.nat(1000), { minLength: 5, maxLength: 40 }),
        (built, wanted, seed) => {
          const t = jobOn(built, pick(built.stack, wanted));
          workThrough(t, seed);
          const { events } = t.job;
          const again = (events as StoredEvent[]).slice(1).reduce(append, fold(events.slice(0, 1)));
          expect(again).toEqual(fold(events));
        },
      ),
      { numRuns: 25 },
    );
  }, 60_000);

  it('a reading from before the nut was moved counts for nothing, wherever in the round it was moved', () => {
    const t = jobOn(everyStack[0]!, ['seal']);
    t.workTo('1L', 'lock');
    expect(
      t.redo('1L', 'jam-nut', { kind: 'torque', torque: quantity(240, 'lbf-ft'), tool: 'TW-03', rounds: 1 }),
    ).toBeNull();
    expect(t.step('1L')?.id).toBe('end-play');
    expect(againstRelease(t.at('1L')).map((o) => o.code)).toContain('not-measured');
  });
});
