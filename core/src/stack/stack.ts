import { z } from 'zod';
import { isMade } from '../brake/index.ts';
import { layerIds, type LayerId } from './layer-id.ts';
import { layerSchema, type Layer, type LayerOf } from './layer.ts';

/** The layers of one wheel end, from the outside in. */
export const stackSchema = z
  .array(layerSchema)
  .min(1)
  .max(layerIds.length)
  .superRefine((stack, context) => {
    const ids = stack.map((l) => l.layer);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice) context.addIssue({ code: 'custom', message: `has the ${twice} twice` });
    const why = whyNoStack(stack);
    if (why) context.addIssue({ code: 'custom', message: why });
  });
export type Stack = readonly Layer[];

/** The layer of a stack, or undefined where it has none of this name. */
export function layerOf<K extends LayerId>(stack: Stack, id: K): LayerOf<K> | undefined {
  return stack.find((l): l is LayerOf<K> => l.layer === id);
}

/** Layers without which another cannot be there. */
const rests: Partial<Record<LayerId, LayerId>> = { nut: 'hub', hub: 'nut', shaft: 'wheel' };

/** Why layers cannot make a wheel end, or null. */
function whyNoStack(stack: Stack): string | null {
  for (const { layer } of stack) {
    const rest = rests[layer];
    if (rest && !layerOf(stack, rest)) return `has a ${layer} and no ${rest}`;
  }
  if (layerOf(stack, 'shaft')?.kind === 'c-clip' && !layerOf(stack, 'axle'))
    return 'has a shaft held by a C-clip and no axle that opens';
  if (layerOf(stack, 'shaft')?.kind === 'driven' && !layerOf(stack, 'spindle'))
    return 'has a driven shaft and no spindle';
  const { by, chamberSize, chamberStroke } = layerOf(stack, 'brake-outer') ?? {};
  if (by !== 'air' && (chamberSize ?? chamberStroke)) return 'has a chamber and no air brake';
  if (chamberSize && chamberStroke && !isMade(chamberSize, chamberStroke))
    return `has a chamber ${chamberSize} with a stroke that none has`;
  return null;
}

/**
 * What must be off before a layer: the few rules of the trade from which every order of work follows.
 * Only layers that the stack has are named, and only the next ones; what those need off follows from them.
 * @param together wheel, drum and hub come off in one on a dolly, wheel nuts untouched
 * @source geometry of each construction
 */
export function needsOff(stack: Stack, id: LayerId, together = false): LayerId[] {
  const has = (layer: LayerId) => stack.some((l) => l.layer === layer);
  const wanted: Record<LayerId, LayerId[]> = {
    wheel: [],
    cap: [],
    'brake-outer': ['wheel'],
    nut: ['cap'],
    hub: together ? ['nut'] : ['nut', 'brake-outer', 'wheel'],
    'unit-hub': ['wheel', 'cap', 'brake-outer'],
    'seal-hub': ['wheel'],
    'brake-inner': has('hub') ? ['hub'] : has('unit-hub') ? ['unit-hub'] : ['brake-outer'],
    spindle: ['hub'],
    shaft: layerOf(stack, 'shaft')?.kind === 'driven' ? ['spindle'] : ['wheel', 'brake-outer', 'axle'],
    axle: [],
    knuckle: has('spindle') ? ['spindle', 'shaft'] : ['hub'],
  };
  return wanted[id].filter(has);
}

/** Everything that must be off before a layer, near and far. */
export function allNeedsOff(stack: Stack, id: LayerId, together = false): Set<LayerId> {
  const found = new Set<LayerId>();
  const visit = (layer: LayerId) => {
    for (const next of needsOff(stack, layer, together)) {
      if (found.has(next)) continue;
      found.add(next);
      visit(next);
    }
  };
  visit(id);
  return found;
}

/**
 * Everything that must be off before a layer is opened or taken off: a knuckle's seal ring is
 * opened with the wheel off, a drum brake backed off with it on.
 */
export function needsOffFor(
  stack: Stack,
  id: LayerId,
  how: 'open' | 'off',
  together = false,
): ReadonlySet<LayerId> {
  if (id === 'knuckle' && how === 'open') return new Set(layerOf(stack, 'wheel') ? ['wheel'] : []);
  if (id === 'brake-outer' && how === 'open') return new Set();
  return allNeedsOff(stack, id, together);
}

/**
 * The order in which layers come off: every one after what it needs off, the outermost first where two are free.
 * They go back in the opposite order.
 */
export function takeOffOrder(stack: Stack, layers: ReadonlySet<LayerId>, together = false): LayerId[] {
  const left = stack.map((l) => l.layer).filter((id) => layers.has(id));
  const order: LayerId[] = [];
  while (left.length > 0) {
    const free = left.findIndex((id) => needsOff(stack, id, together).every((n) => !left.includes(n)));
    if (free < 0) throw new RangeError(`Nothing of ${left.join(', ')} can come off first`);
    order.push(...left.splice(free, 1));
  }
  return order;
}
