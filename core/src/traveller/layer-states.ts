import { layerAt } from '../assembly/index.ts';
import { reachOf, works, type LayerId } from '../stack/index.ts';
import type { WheelEnd } from './job.ts';
import { closuresOf, layersToOpen } from './route-progress.ts';

/** How a layer of a wheel end stands: `unfinished` is on, with closures that are not made. */
export type LayerState = 'untouched' | 'ahead' | 'open' | 'off' | 'unfinished' | 'back';

/**
 * How each layer stands: untouched where nothing moved it and nothing wants it, ahead until it is taken off, then off
 * (or open), and back when every one of its closures is made. Empty for a job of the first build.
 */
export function layerStates(w: WheelEnd): Partial<Record<LayerId, LayerState>> {
  const { plan, side } = w;
  const out = layersToOpen(w);
  const { required, counts } = closuresOf(w);
  const isDone = (id: string) => counts(id) && side.made[id]?.old === undefined;
  const states: Partial<Record<LayerId, LayerState>> = {};
  for (const { layer } of plan.stack) {
    const { is, moved, outSeq, onSeq } = layerAt(side, layer);
    const own = required.filter((a) => a.layer === layer && a.phase === 'back');
    if (is === 'off' || (is === 'open' && !own.every((a) => isDone(a.id)))) states[layer] = is;
    else if (out.has(layer)) states[layer] = 'ahead';
    else if (!own.every((a) => isDone(a.id))) states[layer] = 'unfinished';
    else states[layer] = moved || outSeq > 0 || onSeq > 0 ? 'back' : 'untouched';
  }
  return states;
}

/** The innermost layer of each work, with the work in words: where the work is. */
export function plannedLayers({ plan }: WheelEnd): ReadonlyMap<LayerId, string> {
  const targets = new Map<LayerId, string>();
  for (const work of plan.works) {
    const { off, layers } = reachOf(plan.stack, [work], [], plan.together);
    const target = layers.get('nut') === 'open' ? 'nut' : off.at(-1);
    if (!target) continue;
    const words = works[work].split(',')[0]!.toLowerCase();
    const so = targets.get(target);
    targets.set(target, so ? `${so}, ${words}` : words);
  }
  return targets;
}
