import type { LayerId } from './layer-id.ts';
import { layerOf, needsOffFor, takeOffOrder, type Stack } from './stack.ts';
import { works, type Work } from './works.ts';

/** What a work asks of a layer: open for a setting, or off. */
export type Reached = 'open' | 'off';

/** The outermost layers that bare the target of a work; null where this wheel end has no such part. */
export function targetOf(stack: Stack, work: Work): Partial<Record<LayerId, Reached>> | null {
  const off = (...ids: LayerId[]) =>
    ids.every((id) => layerOf(stack, id)) ? Object.fromEntries(ids.map((id) => [id, 'off' as const])) : null;
  const first = (...ids: LayerId[]) => off(...ids.filter((id) => layerOf(stack, id)).slice(0, 1));
  const hub = () => {
    const found = first('hub', 'unit-hub', 'seal-hub', 'shaft');
    return found && Object.keys(found).length > 0 ? found : null;
  };
  switch (work) {
    case 'check':
      return {};
    case 'wheel-off':
    case 'retorque': {
      const wheel = layerOf(stack, 'wheel');
      if (!wheel) return null;
      return work === 'retorque' ? (wheel.kind === 'sprocket' ? null : {}) : { wheel: 'off' };
    }
    case 'oil-level':
      return layerOf(stack, 'hub')?.fill === 'oil' ? {} : null;
    case 'adjust':
      switch (layerOf(stack, 'nut')?.kind) {
        // A spacer is not adjusted; what turns on a preload is set with nothing hanging on it.
        case undefined:
        case 'C':
          return null;
        case 'N':
          return { wheel: 'off', nut: 'open' };
        default:
          return { nut: 'open' };
      }
    case 'brakes':
    case 'linings':
      return off('brake-inner') ?? off('brake-outer');
    case 'seal':
      return hub();
    case 'bearings':
    case 'repack':
      return work === 'repack' ? off('hub') : (off('hub') ?? off('unit-hub') ?? off('shaft'));
    case 'sleeve':
      return layerOf(stack, 'hub')?.seal === 'lip' ? off('hub') : null;
    case 'studs':
      return off('hub') ?? off('unit-hub');
    case 'hub':
      return off('hub') ?? off('seal-hub');
    case 'unit-hub':
      return off('unit-hub');
    case 'shaft':
      return off('shaft');
    case 'spindle-bearing':
      return layerOf(stack, 'spindle')?.kind === 'bolted' ? off('spindle') : null;
    case 'spindle':
      return off('spindle');
    case 'swivels':
      return off('knuckle');
    case 'knuckle-seal': {
      const knuckle = layerOf(stack, 'knuckle');
      // A split seal comes out without the caps: its ring is opened.
      return knuckle ? { knuckle: knuckle.splitSeal ? 'open' : 'off' } : null;
    }
    case 'kingpin':
      return layerOf(stack, 'spindle')?.kind === 'stub' ? off('spindle') : null;
  }
}

/** The works this wheel end can have, in the order they are offered. */
export function worksOf(stack: Stack): Work[] {
  return (Object.keys(works) as Work[]).filter((work) => targetOf(stack, work) !== null);
}

/** Which layers are opened or taken off, and in what order they come off. */
export interface Reach {
  layers: ReadonlyMap<LayerId, Reached>;
  /** Outermost first; only those that come off. */
  off: readonly LayerId[];
}

/**
 * How far the works go into a stack: the layers that bare their targets, with all that those need off.
 * @param alreadyOff layers that were off when the unit came in; they are reached as well
 * @param together wheel, drum and hub on a dolly in one
 * @throws RangeError for a work that this stack cannot have
 */
export function reachOf(
  stack: Stack,
  wanted: readonly Work[],
  alreadyOff: readonly LayerId[] = [],
  together = false,
): Reach {
  const layers = new Map<LayerId, Reached>();
  const take = (id: LayerId, how: Reached) => {
    if (layers.get(id) !== 'off') layers.set(id, how);
    for (const outer of needsOffFor(stack, id, how, together)) layers.set(outer, 'off');
  };
  for (const work of wanted) {
    const target = targetOf(stack, work);
    if (!target) throw new RangeError(`This wheel end cannot have “${works[work]}”`);
    for (const [id, how] of Object.entries(target) as [LayerId, Reached][]) take(id, how);
  }
  for (const id of alreadyOff) if (layerOf(stack, id)) take(id, 'off');
  const taken = new Set([...layers].filter(([, how]) => how === 'off').map(([id]) => id));
  return { layers, off: takeOffOrder(stack, taken, together) };
}

/**
 * Whether works leave the oil level of a wheel end unlooked at: an oil hub whose cap stays on. It is looked at on every
 * visit of the unit.
 * @source common practice, no source
 */
export const missesOilLevel = (stack: Stack, wanted: readonly Work[]): boolean =>
  targetOf(stack, 'oil-level') !== null &&
  !wanted.includes('oil-level') &&
  !reachOf(stack, wanted).layers.has('cap');
