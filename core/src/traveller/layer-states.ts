import { reachOf, works, type LayerId } from '../stack/index.ts';
import type { WheelEnd } from './job.ts';
import { routeProgress } from './route-progress.ts';

/** How a layer of a wheel end stands in this job. */
export type LayerState = 'untouched' | 'ahead' | 'open' | 'off' | 'back';

/**
 * How each layer stands: untouched where the works do not reach it, ahead until it is taken off, then off (or open),
 * and back when every one of its put-back steps counts. Empty for a job of the first build.
 */
export function layerStates(w: WheelEnd): Partial<Record<LayerId, LayerState>> {
  const { plan } = w;
  if (plan.by !== 'route') return {};
  const { acts } = routeProgress(w, plan);
  const { layers } = reachOf(plan.stack, plan.works, plan.alreadyOff, plan.together);
  const states: Partial<Record<LayerId, LayerState>> = {};
  for (const { layer } of plan.stack) {
    const of = (phase: 'off' | 'back') =>
      acts.filter((a) => a.step.layer === layer && a.step.phase === phase);
    const how = layers.get(layer);
    if (!how) states[layer] = 'untouched';
    else if (of('back').length > 0 && of('back').every((a) => a.record)) states[layer] = 'back';
    else if (of('off').every((a) => a.record)) states[layer] = how;
    else states[layer] = 'ahead';
  }
  return states;
}

/** The innermost layer of each work, with the work in words: where the work is. */
export function plannedLayers({ plan }: WheelEnd): ReadonlyMap<LayerId, string> {
  const targets = new Map<LayerId, string>();
  if (plan.by !== 'route') return targets;
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
