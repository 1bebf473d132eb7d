import { layerAt } from '../assembly/index.ts';
import { layerTitles, type LayerId } from '../stack/index.ts';
import type { WheelEnd } from './job.ts';
import { layerStates, type LayerState } from './layer-states.ts';

/** How a layer stands, in words. */
export const layerStateWords: Readonly<Record<LayerState, string>> = {
  untouched: 'stays as it is',
  ahead: 'comes off',
  open: 'opened',
  off: 'off',
  unfinished: 'on, not finished',
  back: 'back',
};

/** What a layer that is not whole is, at the head of a list. */
const headWords = { off: 'Off', open: 'Opened', unfinished: 'On, not finished' } as const;

/**
 * How the layers of a wheel end stand now, as sentences: what is off, open or not finished with who moved it last, when
 * and whether in an earlier job; what is back; and of how many nothing is known.
 */
export function describeLayers(w: WheelEnd): {
  notWhole: string | null;
  back: string | null;
  unknown: string | null;
} {
  const states = Object.entries(layerStates(w)) as [LayerId, LayerState][];
  const inState = (state: LayerState) => states.filter(([, s]) => s === state).map(([id]) => id);
  const loose = (Object.keys(headWords) as (keyof typeof headWords)[]).flatMap((state) =>
    byMover(w, inState(state)).map(([moved, ids]) => `${headWords[state]}: ${titles(ids)}${moved}.`),
  );
  const back = inState('back');
  const unknown = inState('untouched').length + inState('ahead').length;
  return {
    notWhole: loose.length === 0 ? null : loose.join(' '),
    back: back.length === 0 ? null : `Back: ${titles(back)}.`,
    unknown: unknown === 0 ? null : `Not moved, so not known: ${unknown} of ${states.length} layers.`,
  };
}

const titles = (ids: readonly LayerId[]) => ids.map((id) => layerTitles[id]).join('; ');

/** Layers by who moved them last, when, and whether in this job: what stands in brackets behind their names. */
function byMover({ side }: WheelEnd, ids: readonly LayerId[]): [moved: string, LayerId[]][] {
  const groups = new Map<string, LayerId[]>();
  for (const id of ids) {
    const { moved } = layerAt(side, id);
    // A record of an earlier job has no place in this one.
    const job = moved?.seq === 0 ? ', in an earlier job' : '';
    const words = moved ? ` (${moved.by}, ${moved.at.slice(0, 10)}${job})` : '';
    groups.set(words, [...(groups.get(words) ?? []), id]);
  }
  return [...groups];
}
