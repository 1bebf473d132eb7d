import { components } from '../inspection/index.ts';
import type { Sheet } from '../procedure/index.ts';
import { layerIds, works, type LayerId, type Stack, type Work } from '../stack/index.ts';
import type { Act } from './act.ts';
import { alsoBack, alsoOff } from './also-acts.ts';
import { cagedBefore } from './brake-acts.ts';
import { oilLevelOnly } from './cap-acts.ts';
import { redone, undone } from './layer-acts.ts';
import type { RouteState } from './state.ts';
import { retorqueOnly } from './wheel-acts.ts';

const known = new WeakMap<Stack, WeakMap<Sheet, ReadonlyMap<string, Act>>>();

/** States that between them bring every act of a wheel end about. */
function everyState(stack: Stack, sheet: Sheet): RouteState[] {
  const off = stack.map((l) => l.layer);
  const all: RouteState = {
    stack,
    sheet,
    works: Object.keys(works) as Work[],
    reach: { layers: new Map(off.map((id) => [id, 'off'])), off },
    alreadyOff: [],
    together: false,
    inTheAir: true,
    chosen: { rims: 'core-out', 'axle-cover-joint': 'sealant', oil: 'leak-and-dirt' },
    renewed: new Set([...components.map((c) => c.id), 'wear-sleeve']),
    adjust: { from: 'start', turns: null, wasLocked: false, secured: false, byOthers: false, brakeOn: true },
  };
  const opened = new Map<LayerId, 'open' | 'off'>(all.reach.layers)
    .set('nut', 'open')
    .set('brake-outer', 'open')
    .set('knuckle', 'open');
  const { adjust } = all;
  return [
    all,
    { ...all, reach: { ...all.reach, layers: opened } },
    { ...all, adjust: { ...adjust, byOthers: true } },
    { ...all, adjust: { ...adjust, secured: true } },
    { ...all, adjust: { ...adjust, from: 'setting', turns: 1, wasLocked: true } },
    { ...all, adjust: { ...adjust, from: 'setting', turns: 1, secured: true } },
  ];
}

/**
 * Every act that a wheel end can have, whatever is wanted and was found, by stage and id. An act is looked up here and
 * not in the route at hand, which may not have it any more.
 */
export function everyAct(stack: Stack, sheet: Sheet): ReadonlyMap<string, Act> {
  let bySheet = known.get(stack);
  if (!bySheet) known.set(stack, (bySheet = new WeakMap()));
  let acts = bySheet.get(sheet);
  if (!acts) {
    const found = new Map<string, Act>();
    for (const state of everyState(stack, sheet)) {
      const none = { ...state, reach: { layers: new Map(), off: [] } };
      const of = stack.flatMap((layer) => [
        ...alsoOff(layer, state),
        ...undone(layer, state),
        ...redone(layer, state),
        ...alsoBack(layer),
        ...(layer.layer === 'brake-outer' ? cagedBefore(layer) : []),
      ]);
      for (const act of [...of, ...retorqueOnly(none), ...oilLevelOnly(none)]) {
        const key = `${act.stage}/${act.id}`;
        if (!found.has(key)) found.set(key, act);
      }
    }
    bySheet.set(sheet, (acts = found));
  }
  return acts;
}

const orders = new WeakMap<ReadonlyMap<string, Act>, ReadonlyMap<LayerId, readonly Act[]>>();

/** The put-back acts of each layer, in the order in which they are done. */
export function putBackOrder(acts: ReadonlyMap<string, Act>): ReadonlyMap<LayerId, readonly Act[]> {
  let order = orders.get(acts);
  if (!order) {
    const back = [...acts.values()].filter((a) => a.phase === 'back' || a.phase === 'later');
    order = new Map(layerIds.map((id) => [id, back.filter((a) => a.layer === id)]));
    orders.set(acts, order);
  }
  return order;
}
