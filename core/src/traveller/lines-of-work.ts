import type { PlacedAxle } from '../axle-plan/index.ts';
import { stackOfSheet, type ReadyLine } from '../procedure/index.ts';
import { worksOf, type Work } from '../stack/index.ts';
import { readyLines } from './findings.ts';
import { fold } from './fold.ts';
import type { WheelEnd } from './job.ts';
import { readinessLines } from './route-progress.ts';

const nobody = { id: '00000000-0000-4000-8000-000000000000', name: '-', role: 'supervisor' } as const;

/**
 * What works on a wheel end would need, were they begun now. Works that it cannot have are left out.
 * @returns none where nobody has said how it is built
 */
export function linesOfWork(axle: PlacedAxle, works: readonly Work[]): readonly ReadyLine[] {
  const stack = stackOfSheet(axle.sheet, axle);
  const can = stack ? works.filter((w) => worksOf(stack).includes(w)) : [];
  if (!stack || can.length === 0) return [];
  const position = `${axle.number}L`;
  const route = { rules: 1 as const, stack: [...stack], works: can, alreadyOff: [], together: false };
  const opened = {
    ...{ id: nobody.id, jobId: nobody.id, version: 1, at: '2000-01-01T00:00:00.000Z', by: nobody },
    body: {
      ...{
        kind: 'job-opened' as const,
        unitId: nobody.id,
        title: '-',
        complaint: '',
        reportedBy: '',
        symptoms: [],
      },
      ...{ meter: {}, wheelEnds: [{ position, axleId: axle.id, sheet: axle.sheet, axle: axle.role, route }] },
    },
  };
  return fold([opened]).wheelEnds.flatMap((w) => readinessLines(w));
}

/** Lines of a wheel end that parts are kept for: what its route needs, but for what the owner brings. */
export function partsToKeep(w: WheelEnd): readonly ReadyLine[] {
  if (w.release) return [];
  const told = readyLines(w);
  return readinessLines(w).filter((l) => l.group === 'part' && told.get(l.what)?.state !== 'owner');
}

/** Parts that a wheel end's route needs of the shop, each with the works of it that need it: all of them, where that is not told. */
export function partsByWork(w: WheelEnd): { line: ReadyLine; works: readonly Work[] }[] {
  const { works } = w.plan;
  const needs = works.map((work) => {
    const alone = readinessLines({ ...w, plan: { ...w.plan, works: [work] } });
    return { work, lines: new Set(alone.map((l) => l.what)) };
  });
  return partsToKeep(w).map((line) => {
    const of = needs.filter((n) => n.lines.has(line.what)).map((n) => n.work);
    return { line, works: of.length > 0 ? of : works };
  });
}

/** Lines of a wheel end that a part is still wanted for: what was not told to be here, or to come from the owner. */
export function partsWanted(w: WheelEnd): readonly ReadyLine[] {
  const told = readyLines(w);
  return partsToKeep(w).filter((l) => told.get(l.what)?.state !== 'have');
}
