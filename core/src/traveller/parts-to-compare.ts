import { componentOf, type Disposition } from '../inspection/index.ts';
import { renewing } from './findings.ts';
import type { WheelEnd } from './job.ts';
import { openParts } from './route-progress.ts';

/**
 * The new parts of a wheel end that are still to be held against the old ones before they go in: what the judging and
 * the supervisor replace, and what is not used twice. Ids; titles in jobs of the first build.
 */
export function partsToCompare(w: WheelEnd): string[] {
  if (w.plan.by === 'route') return openParts(w, 'compare');
  const { records, decisions } = w;
  const judged = records.filter((r) => r.data?.kind === 'judge').at(-1)?.data;
  const findings = judged?.kind === 'judge' ? judged.findings : [];
  const decided = new Map<string, Disposition>(decisions.map((d) => [d.component, d.decision]));
  const replaced = findings
    .filter((f) => renewing.has(decided.get(f.component) ?? f.disposition))
    .map((f) => componentOf(f.component)?.title ?? f.component);
  return [...replaced, ...w.plan.procedure.singleUse];
}
