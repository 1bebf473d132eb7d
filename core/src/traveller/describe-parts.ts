import { closedWith, partTitle, singleUseOf } from '../route/index.ts';
import { judgedParts, oldParts, renewedParts } from './findings.ts';
import type { WheelEnd } from './job.ts';
import { routeStateOf } from './route-progress.ts';

/** Parts not used twice that went in new in this job. Ids. */
function fittedOnce(w: WheelEnd): string[] {
  const isNew = (id: string) => {
    const made = w.side.made[id];
    return made !== undefined && made.last.seq > 0 && made.old === undefined;
  };
  return singleUseOf(routeStateOf(w)).filter((id) => closedWith(id).some(isNew));
}

/**
 * What went in new, what was judged and kept, and what went in again though it is not used twice, as sentences; null
 * where nothing was bare.
 */
export function describeParts(w: WheelEnd): string | null {
  const [judged, renewed, old] = [judgedParts(w), renewedParts(w), oldParts(w)];
  const fresh = [...new Set([...renewed, ...fittedOnce(w)])].filter((id) => id !== 'lubricant');
  const kept = judged.size - renewed.size;
  const titles = (ids: readonly string[]) => ids.map((id) => partTitle(id).toLowerCase()).join(', ');
  const said = [
    ...(fresh.length > 0 ? [`New: ${titles(fresh)}.`] : []),
    ...(kept > 0 ? [`${kept} judged and kept.`] : []),
    ...(old.length > 0 ? [`Went in again, for the yard only: ${titles(old)}.`] : []),
  ];
  return said.length === 0 ? null : said.join(' ');
}
