import { partTitle } from '../route/index.ts';
import type { WheelEnd } from './job.ts';
import { readinessLines } from './route-progress.ts';

/** A readiness line in words, by what it is recorded by. */
export function linesToSay(w: WheelEnd | undefined, what: string): string {
  if (what.startsWith('part:')) return partTitle(what.slice('part:'.length));
  const line = w && readinessLines(w).find((l) => l.what === what);
  return line?.title ?? what;
}
