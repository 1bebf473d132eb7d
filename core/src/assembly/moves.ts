import { everyAct, putBackOrder, settingSteps, type Act } from '../route/index.ts';
import type { Sheet } from '../procedure/index.ts';
import { layerOf, needsOffFor, type LayerId } from '../stack/index.ts';
import { isOn, layerAt, nutMovedBy, type LayerAt, type LayerPlace, type Mark, type Side } from './side.ts';

/** What the acts of a side come from, beside its stack. */
export interface Built {
  sheet: Sheet;
  together: boolean;
}

export const without = <T>(record: Readonly<Record<string, T>>, ids: readonly string[]): Record<string, T> =>
  ids.some((id) => id in record) ? left(record, ids) : record;

/** A loop, since the lists of what is made are copied with every record of a job. */
function left<T>(record: Readonly<Record<string, T>>, ids: readonly string[]): Record<string, T> {
  const rest: Record<string, T> = {};
  for (const id in record) if (!ids.includes(id)) rest[id] = record[id]!;
  return rest;
}

export const idsOf = (acts: readonly Act[] | undefined) => (acts ?? []).map((a) => a.id);

/** Closures of a knuckle that its caps hold, and not its seal ring. */
const underTheRing = [
  'races-dry',
  'axle-seal',
  'two-greases',
  'cap-bolts',
  'swivel-preload',
  'links',
  'joint-pins',
];

/** Closures that fall when a layer comes off or is opened; an opened nut stays as it was set. */
function fallsWith(side: Side, sheet: Sheet, layer: LayerId, to: LayerPlace): string[] {
  const own = idsOf(putBackOrder(everyAct(side.stack, sheet)).get(layer));
  if (to !== 'open') return own;
  if (layer === 'knuckle') return own.filter((id) => !underTheRing.includes(id));
  if (layer !== 'nut') return own;
  const set = new Set(settingSteps(layerOf(side.stack, 'nut')!, sheet));
  return own.filter((id) => !set.has(id));
}

export function moveOut(
  side: Side,
  { sheet }: Built,
  layer: LayerId,
  { to, mark, own }: { to: 'open' | 'off'; mark: Mark; own: boolean },
): Side {
  const fallen = fallsWith(side, sheet, layer, to);
  const at: LayerAt = {
    ...layerAt(side, layer),
    is: to,
    moved: mark,
    outSeq: mark.seq,
    outTo: to,
    own,
  };
  const before = layer === 'nut' || layer === 'hub' ? nutMovedBy(side, mark) : side;
  return {
    ...before,
    layers: { ...side.layers, [layer]: at },
    others: without(side.others, [layer]),
    made: without(side.made, fallen),
    skipped: without(side.skipped, fallen),
  };
}

/** Whatever stands outside a layer that was moved had come off, whether somebody recorded it or not. */
export function comeOffBefore(
  side: Side,
  built: Built,
  layer: LayerId,
  mark: Mark,
  how: 'open' | 'off' = 'off',
): Side {
  const outside = [...needsOffFor(side.stack, layer, how, built.together)].filter((id) =>
    id === 'nut' ? layerAt(side, id).is !== 'off' : isOn(side, id),
  );
  // In one with wheel and hub, the drum came off its shoes, whose adjuster was backed off.
  const withHub =
    built.together && layer === 'hub' && isOn(side, 'brake-outer') && layerOf(side.stack, 'brake-outer');
  const begun = withHub ? moveOut(side, built, 'brake-outer', { to: 'open', mark, own: false }) : side;
  return outside.reduce((s, id) => moveOut(s, built, id, { to: 'off', mark, own: false }), begun);
}

/** A layer that nobody here took off or opened, with all that stands outside it. */
export function cameOut(side: Side, built: Built, layer: LayerId, to: 'open' | 'off', mark: Mark): Side {
  return moveOut(comeOffBefore(side, built, layer, mark, to), built, layer, { to, mark, own: false });
}

/** Closures that something broke: to be made anew. */
export function breakClosures(side: Side, ids: readonly string[], mark: Mark): Side {
  if (ids.length === 0) return side;
  const broken = { ...side.broken, ...Object.fromEntries(ids.map((id) => [id, mark])) };
  return { ...side, broken, made: without(side.made, ids), skipped: without(side.skipped, ids) };
}
