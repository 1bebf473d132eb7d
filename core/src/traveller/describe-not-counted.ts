import type { NotCounted } from '../assembly/index.ts';
import { layerTitles } from '../stack/index.ts';

/** Why a record does not count, and what would make it count. */
export function describeNotCounted(why: NotCounted): string {
  switch (why.why) {
    case 'covered':
      return `it needs this off first: ${why.layers.map((id) => layerTitles[id]).join(', ')}. Take it off, then do this again.`;
    case 'not-on':
      return 'its layer was not on yet. Put the layer on, then do this again.';
    case 'late':
      return 'it was done before the part was opened again, or for an adjustment that is over. Do it again; a supervisor who knows that it was done after that lets it count.';
    case 'no':
      return 'it was answered with no. Put it right, then record it again.';
  }
}
