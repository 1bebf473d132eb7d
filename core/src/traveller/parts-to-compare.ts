import { components } from '../inspection/index.ts';
import type { WheelEnd } from './job.ts';

const renewed: ReadonlySet<string> = new Set(['replace', 'replace-set', 'replace-pair']);

/**
 * The new parts of a wheel end that are held against the old ones before they go in: what the judging and
 * the supervisor replace, and what is not used twice.
 */
export function partsToCompare({ records, decisions, procedure }: WheelEnd): string[] {
  const judged = records.filter((r) => r.data?.kind === 'judge').at(-1)?.data;
  const findings = judged?.kind === 'judge' ? judged.findings : [];
  const decided = new Map(decisions.map((d) => [d.component, d.decision as string]));
  const replaced = findings
    .filter((f) => renewed.has(decided.get(f.component) ?? f.disposition))
    .map((f) => components.find((c) => c.id === f.component)?.title ?? f.component);
  return [...replaced, ...procedure.singleUse];
}
