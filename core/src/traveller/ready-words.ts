import { partTitle } from '../route/index.ts';
import { readyLines } from './findings.ts';
import type { WheelEnd } from './job.ts';
import { readinessLines } from './route-progress.ts';

/** A readiness line in words, by what it is recorded by. */
export function linesToSay(w: WheelEnd | undefined, what: string): string {
  if (what.startsWith('part:')) return partTitle(what.slice('part:'.length));
  const line = w && readinessLines(w).find((l) => l.what === what);
  return line?.title ?? what;
}

/** What is not at hand: ordered or missing when it was looked for last, and not come since. */
export function lackedLines(w: WheelEnd): { what: string; title: string; by: string | null }[] {
  const came = new Set(w.plan.received.map((r) => r.what));
  return [...readyLines(w).values()]
    .filter((l) => (l.state === 'ordered' || l.state === 'missing') && !came.has(l.what))
    .map(({ what, by }) => ({ what, title: linesToSay(w, what), by: by ?? null }));
}
