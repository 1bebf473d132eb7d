import { partOfLine, partTitle } from '../route/index.ts';
import { oldParts, readyLines } from './findings.ts';
import type { WheelEnd } from './job.ts';
import { readinessLines } from './route-progress.ts';

/** A readiness line in words, by what it is recorded by. */
export function linesToSay(w: WheelEnd | undefined, what: string): string {
  const part = partOfLine(what);
  if (part) return partTitle(part);
  const line = w && readinessLines(w).find((l) => l.what === what);
  return line?.title ?? what;
}

/**
 * What is not at hand: ordered or missing when it was looked for last, and not come since. `oldIn`: the old one is in
 * meanwhile, and a new one has to come before a release.
 */
export function lackedLines(
  w: WheelEnd,
): { what: string; title: string; by: string | null; oldIn: boolean }[] {
  const came = new Map(w.plan.received.map((r) => [r.what, r.as]));
  const old = new Set(oldParts(w).map((id) => `part:${id}`));
  return [...readyLines(w).values()]
    .filter(
      ({ what, state }) =>
        (state === 'ordered' || state === 'missing') &&
        (!came.has(what) || (came.get(what) === 'reused' && old.has(what))),
    )
    .map(({ what, by }) => ({ what, title: linesToSay(w, what), by: by ?? null, oldIn: old.has(what) }));
}
