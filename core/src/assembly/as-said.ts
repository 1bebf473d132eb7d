import { everyAct, putBackOrder } from '../route/index.ts';
import { layerOf, needsOffFor, type LayerId, type Stack } from '../stack/index.ts';
import { cameOut, comeOffBefore, idsOf, moveOut, without, type Built } from './moves.ts';
import { isOn, layerAt, type ByOthers, type LayerAt, type LayerPlace, type Mark, type Side } from './side.ts';

/** Layers that were off or open as a unit came: they and what stands outside them. */
export function asItCame(side: Side, built: Built, off: readonly LayerId[], mark: Mark): Side {
  return off
    .filter((id) => layerOf(side.stack, id))
    .reduce((s, id) => cameOut(s, built, id, 'off', mark), side);
}

/** How a layer stands by somebody's word. */
export interface Stands {
  layer: LayerId;
  is: LayerPlace;
}

/**
 * A side as somebody says that it stands, for what this record cannot know: what is off or open came off with all that
 * stands outside it; what is on was put on by others, and so was what stands outside it. It makes no closure.
 */
export function asItStands(
  side: Side,
  built: Built,
  { layers, who, mark }: { layers: readonly Stands[]; who: string; mark: Mark },
): Side {
  const outward = layers.reduce(
    (s, { layer, is }) => (is === 'on' ? s : cameOut(s, built, layer, is, mark)),
    side,
  );
  const said = new Set(layers.filter((l) => l.is === 'on').map((l) => l.layer));
  const outside = [...said].flatMap((id) => [...needsOffFor(side.stack, id, 'off', false)]);
  const on = new Set([...said, ...outside.filter((id) => isOn(outward, id))]);
  return [...on].reduce((s, id) => putOnByOthers(s, built, id, { who, mark }), outward);
}

function putOnByOthers(side: Side, built: Built, layer: LayerId, by: ByOthers): Side {
  const { mark } = by;
  const off = moveOut(side, built, layer, { to: 'off', mark, own: false });
  const at: LayerAt = { ...layerAt(off, layer), is: 'on', outSeq: -1, onSeq: mark.seq };
  return { ...off, layers: { ...off.layers, [layer]: at }, others: { ...off.others, [layer]: by } };
}

/** A layer that is on though what it covers is off: nobody can have left it so. Null where all fits. */
export function whatCannotStand(side: Side): { on: LayerId; off: LayerId } | null {
  for (const { layer } of side.stack) {
    if (layerAt(side, layer).is !== 'off') continue;
    const on = [...needsOffFor(side.stack, layer, 'off', false)].find((id) => isOn(side, id));
    if (on) return { on, off: layer };
  }
  return null;
}

/**
 * A side that turned out to be built differently. Layers and closures stay as they are, by name; a new layer that must
 * be off for one that is off, is off; the setting of the nut falls where what it hangs on is another.
 * @param lost layers of the old stack that are off or open and are called otherwise in the new one, or never were
 */
export function buildDifferently(
  side: Side,
  built: Built,
  {
    stack,
    nutIsOther,
    lost,
    mark,
  }: {
    stack: Stack;
    nutIsOther: boolean;
    lost: readonly { layer: LayerId; is: LayerId | null }[];
    mark: Mark;
  },
): Side {
  const has = (id: LayerId) => stack.some((l) => l.layer === id);
  const layers = Object.fromEntries(Object.entries(side.layers).filter(([id]) => has(id as LayerId)));
  let after: Side = { ...side, stack, layers };
  const off = stack.map((l) => l.layer).filter((id) => layerAt(after, id).is === 'off');
  for (const id of off) after = comeOffBefore(after, built, id, mark);
  for (const { layer, is } of lost) {
    if (!is || !has(is)) continue;
    const where = layerAt(side, layer).is;
    if (where !== 'on') {
      after = comeOffBefore(after, built, is, mark);
      after = moveOut(after, built, is, { to: where, mark, own: false });
    }
  }
  const nut = layerOf(stack, 'nut');
  if (!nut || !nutIsOther || !layerAt(after, 'nut').moved) return after;
  const chain = idsOf(putBackOrder(everyAct(stack, built.sheet)).get('nut'));
  const at = layerAt(after, 'nut');
  const opened = at.is === 'on' ? { ...at, is: 'open' as const, moved: at.moved ?? mark } : at;
  return {
    ...after,
    layers: { ...after.layers, nut: opened },
    made: without(after.made, chain),
    skipped: without(after.skipped, chain),
    nutMoved: mark.seq,
  };
}
