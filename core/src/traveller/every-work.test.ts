import { describe, expect, it } from 'vitest';
import { everyStack, splitSealed } from '../stack/testing/stacks.ts';
import { layerOf, worksOf, type LayerId, type Stack, type Work } from '../stack/index.ts';
import { componentOf } from '../inspection/index.ts';
import { comparableOf, partsToCompareOf, partTitle } from '../route/index.ts';
import {
  layerStates,
  linesToAnswer,
  partsPlanned,
  partsToJudge,
  progressOf,
  renewedParts,
  upcast,
} from './index.ts';
import { routeStateOf } from './route-progress.ts';
import { codes, release } from './testing/ways.ts';
import { openingOn, supervisor, TestJob, withOtherSide } from './testing/work.ts';

/** What goes in new by a work, and the layer that bares it: written from the trade and not from the code. */
function wanted(stack: Stack, work: Work): { part: string; layer: LayerId } | null {
  const is = (id: LayerId) => layerOf(stack, id) !== undefined;
  const shaft = layerOf(stack, 'shaft')?.kind;
  switch (work) {
    case 'seal':
      if (layerOf(stack, 'hub')?.seal === 'face') return { part: 'face-seal', layer: 'hub' };
      if (is('hub')) return { part: 'hub-seal', layer: 'hub' };
      if (is('unit-hub')) return { part: 'unit-hub-bearing', layer: 'unit-hub' };
      return { part: 'shaft-seal', layer: is('seal-hub') ? 'seal-hub' : 'shaft' };
    case 'sleeve':
      return { part: 'wear-sleeve', layer: 'hub' };
    case 'bearings':
      if (is('hub')) return { part: 'cups-and-rollers', layer: 'hub' };
      if (is('unit-hub')) return { part: 'unit-hub-bearing', layer: 'unit-hub' };
      return { part: 'shaft-bearing', layer: 'shaft' };
    case 'linings':
      return { part: 'lining', layer: is('brake-inner') ? 'brake-inner' : 'brake-outer' };
    case 'studs':
      return { part: 'studs', layer: is('hub') ? 'hub' : 'unit-hub' };
    case 'hub':
      return is('hub') ? { part: 'hub-bore', layer: 'hub' } : { part: 'seal-hub', layer: 'seal-hub' };
    case 'unit-hub':
      return { part: 'unit-hub-bearing', layer: 'unit-hub' };
    case 'shaft':
      return { part: shaft === 'c-clip' ? 'shaft-journal' : 'axle-joint', layer: 'shaft' };
    case 'spindle-bearing':
      return { part: 'needle-bearing', layer: 'spindle' };
    case 'spindle':
      return { part: 'cone-and-journal', layer: 'spindle' };
    case 'swivels':
      return { part: 'swivel-bearings', layer: 'knuckle' };
    case 'knuckle-seal':
      return { part: 'knuckle-seal', layer: 'knuckle' };
    case 'kingpin':
      return { part: 'kingpin-and-bushes', layer: 'spindle' };
    default:
      return null;
  }
}

function jobOn({ sheetId, stack }: (typeof everyStack)[number], work: Work): TestJob {
  const opening = openingOn(['1L'], sheetId, [work]);
  const [w] = opening.wheelEnds;
  return new TestJob(
    withOtherSide({ ...opening, wheelEnds: [{ ...w!, route: { ...w!.route!, stack: [...stack] } }] }),
  );
}

const partLines = (t: TestJob) =>
  linesToAnswer(t.at('1L')).flatMap((l) => (l.what.startsWith('part:') ? [l.what.slice(5)] : []));

const cases = [...everyStack, splitSealed].flatMap((built) =>
  worksOf(built.stack).map((work) => [built.name, work, built] as const),
);

describe('every work of every stack', () => {
  it.each(cases)(
    '%s, %s: bares its target, has its part on every list, and is released',
    (_name, work, built) => {
      const t = jobOn(built, work);
      const expected = wanted(built.stack, work);
      const steps = progressOf(t.at('1L')).map((p) => p.step.id);
      expect(new Set(steps).size).toBe(steps.length);
      expect(steps.length).toBeGreaterThan(1);
      if (expected) {
        const { part, layer } = expected;
        expect(layerStates(t.at('1L'))[layer]).toBe('ahead');
        expect(partLines(t)).toContain(part);
        expect(partTitle(part)).not.toBe(part);
        if (componentOf(part)) {
          expect(partsToJudge(t.at('1L'))).toContain(part);
          expect(partsPlanned(t.at('1L'))).toContain(part);
        }
      }
      // Every part that is planned is judged, and no line asks for one part twice.
      for (const part of partsPlanned(t.at('1L'))) expect(partsToJudge(t.at('1L'))).toContain(part);
      const titles = partLines(t).map(partTitle);
      expect(new Set(titles).size).toBe(titles.length);
      t.workTo('1L', 'compare');
      if (expected && comparableOf(expected.part).length > 0)
        expect(partsToCompareOf(routeStateOf(t.at('1L')))).toContain(expected.part);
      t.workTo('1L');
      expect(codes(t, '1L').filter((c) => c !== 'other-side')).toEqual([]);
      if (expected) {
        expect(layerStates(t.at('1L'))[expected.layer]).toBe('back');
        if (componentOf(expected.part)) expect(renewedParts(t.at('1L'))).toContain(expected.part);
      }
      expect(t.try(release('1L'), supervisor)).toBeNull();
      // What was recorded is read back as the record holds it.
      for (const { body } of t.job.events) expect(() => upcast(body), body.kind).not.toThrow();
    },
  );
});
