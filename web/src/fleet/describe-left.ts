import type { LeftLayer } from '@lanternwright/contract/fleet';
import { layerIds, layerTitles } from '@lanternwright/core/stack';
import { formatDate } from '../shell/words.ts';

const stateWords = { on: 'on, not finished', open: 'open', off: 'off' } as const;

/** What a job left of a wheel end, outside to inside, with who left it last, when and in which job. One or two sentences. */
export function describeLeft(left: readonly LeftLayer[]): string {
  const layers = [...left].sort((a, b) => layerIds.indexOf(a.layer) - layerIds.indexOf(b.layer));
  if (layers.length === 0) return 'Something on it is not finished.';
  const states = layers.map(({ layer, is }) => `${layerTitles[layer]}: ${stateWords[is]}`).join('; ');
  const last = [...left].sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? 1 : -1))[0]!;
  const who = last.by && last.at ? ` ${last.by}, ${formatDate(last.at.slice(0, 10))}` : '';
  const job = last.job === null ? '' : `, job ${last.job}`;
  return `${states}.${who}${job}${who || job ? '.' : ''}`;
}
