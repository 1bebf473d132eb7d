import { everyAct, putBackOrder, putsBack, settingSteps, type Act } from '../route/index.ts';
import type { Sheet, StepData } from '../procedure/index.ts';
import { layerOf, needsOffFor, type LayerId, type Stack } from '../stack/index.ts';
import { effectOf, isAfterPutOn, mustBeOff, seenOnTheNut } from './effects.ts';
import {
  isOn,
  layerAt,
  type ByOthers,
  type LayerAt,
  type LayerPlace,
  type Mark,
  type Side,
  type StoredSide,
} from './side.ts';

/** Why a record does not count, though it stands. */
export type NotCounted = { why: 'covered'; layers: readonly LayerId[] } | { why: 'late' | 'not-on' | 'no' };

/** A step done or left out, as the assembly hears of it. */
export interface StepHeard {
  stage: string;
  stepId: string;
  data: StepData | null;
  mark: Mark;
  /** Sent long after it was done: its own time is held against what broke its closure. */
  late: boolean;
  /** Of an adjustment that is over. */
  ofEarlierRound: boolean;
}

interface Built {
  sheet: Sheet;
  together: boolean;
}

const without = <T>(record: Readonly<Record<string, T>>, ids: readonly string[]): Record<string, T> =>
  ids.some((id) => id in record)
    ? Object.fromEntries(Object.entries(record).filter(([id]) => !ids.includes(id)))
    : record;

const idsOf = (acts: readonly Act[] | undefined) => (acts ?? []).map((a) => a.id);

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

function moveOut(
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
  return {
    ...side,
    layers: { ...side.layers, [layer]: at },
    others: without(side.others, [layer]),
    made: without(side.made, fallen),
    skipped: without(side.skipped, fallen),
    nutMoved: layer === 'nut' || layer === 'hub' ? Math.max(side.nutMoved, mark.seq) : side.nutMoved,
  };
}

/** Whatever stands outside a layer that was moved had come off, whether somebody recorded it or not. */
function comeOffBefore(
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

/** Closures that something broke: to be made anew. */
export function breakClosures(side: Side, ids: readonly string[], mark: Mark): Side {
  if (ids.length === 0) return side;
  const broken = { ...side.broken, ...Object.fromEntries(ids.map((id) => [id, mark])) };
  return { ...side, broken, made: without(side.made, ids), skipped: without(side.skipped, ids) };
}

/** A take-off, done or left out: believed either way. */
function undoes(side: Side, built: Built, act: Act, { data, mark }: StepHeard): Side {
  const layer = act.layer!;
  const { moves, breaks = [] } = effectOf(act);
  if (act.id === 'rims') return rimsSeen(side, data, mark);
  if (act.id === 'caging' && data?.kind === 'choose' && data.option === 'none') return side;
  const loosened = breakOwnClosures(side, built, breaks, mark);
  if (moves !== 'open' && moves !== 'off') return loosened;
  // What is off is not opened by being opened further.
  if (moves === 'open' && layerAt(side, layer).is === 'off') return loosened;
  const bare = comeOffBefore(loosened, built, layer, mark, moves);
  return moveOut(bare, built, layer, { to: moves, mark, own: true });
}

/** Breaks those of some closures that this wheel end has. */
function breakOwnClosures(side: Side, { sheet }: Built, ids: readonly string[], mark: Mark): Side {
  return breakClosures(
    side,
    ids.filter((id) => hasClosure(side.stack, sheet, id)),
    mark,
  );
}

const hasClosure = (stack: Stack, sheet: Sheet, id: string) =>
  [...putBackOrder(everyAct(stack, sheet)).values()].some((acts) => acts.some((a) => a.id === id));

/** Closures that rest on one that was done anew, on layers that nothing moved: these do not fall by themselves. */
function restingUntouched(side: Side, sheet: Sheet, id: string): string[] {
  const resting = restingOn(everyAct(side.stack, sheet)).get(id) ?? [];
  return resting
    .filter((a) => !layerAt(side, a.layer!).moved)
    .flatMap((a) => [a.id, ...restingUntouched(side, sheet, a.id)]);
}

const resters = new WeakMap<ReadonlyMap<string, Act>, ReadonlyMap<string, readonly Act[]>>();

/** Put-back acts by the closure that they rest on. */
function restingOn(acts: ReadonlyMap<string, Act>): ReadonlyMap<string, readonly Act[]> {
  let found = resters.get(acts);
  if (!found) {
    const by = new Map<string, Act[]>();
    for (const act of [...putBackOrder(acts).values()].flat())
      for (const id of effectOf(act).restsOn ?? []) by.set(id, [...(by.get(id) ?? []), act]);
    found = by;
    resters.set(acts, found);
  }
  return found;
}

function rimsSeen(side: Side, data: StepData | null, mark: Mark): Side {
  return data?.kind === 'choose' && data.option === 'deflated'
    ? breakClosures(side, ['inflated'], mark)
    : side;
}

function whyNotCounted(
  side: Side,
  { sheet, together }: Built,
  act: Act,
  heard: StepHeard,
): NotCounted | null {
  const { data, late, mark } = heard;
  const layer = act.layer!;
  if (layer === 'nut' && heard.ofEarlierRound) return { why: 'late' };
  const covered = mustBeOff(side.stack, act, together).filter((id) => isOn(side, id));
  if (covered.length > 0) return { why: 'covered', layers: covered };
  const order = putBackOrder(everyAct(side.stack, sheet)).get(layer)!;
  const known = layerAt(side, layer);
  if (layer !== 'nut' && known.moved) {
    const after = isAfterPutOn(order, act);
    if (after && known.is === 'off') return { why: 'not-on' };
    if (!after && effectOf(act).moves !== 'on' && known.is === 'on')
      return { why: 'covered', layers: [layer] };
  }
  const brokenAt = [side.broken[act.id], known.moved]
    .flatMap((m) => (m ? [m.at] : []))
    .sort()
    .at(-1);
  if (late && brokenAt !== undefined && mark.at < brokenAt) return { why: 'late' };
  if (data?.kind === 'inspect' && !data.ok) return { why: 'no' };
  if (data?.kind === 'linings' && !data.set) return { why: 'no' };
  return null;
}

/** Where a nut is after a step of setting it: on its thread, not locked; what was measured, locked and seen is void. */
function nutTurned(side: Side, { sheet }: Built, mark: Mark): Side {
  const at = layerAt(side, 'nut');
  const order = putBackOrder(everyAct(side.stack, sheet)).get('nut')!;
  const isVoid = (a: Act) => a.kind === 'lock' || a.kind === 'measure' || seenOnTheNut.has(a.id);
  const made = without(side.made, idsOf(order.filter(isVoid)));
  const inward = at.is === 'off' ? { onSeq: mark.seq } : {};
  const layers = { ...side.layers, nut: { ...at, is: 'open' as const, moved: at.moved ?? mark, ...inward } };
  return { ...side, layers, made, nutMoved: Math.max(side.nutMoved, mark.seq) };
}

function putOn(side: Side, built: Built, act: Act, { mark }: StepHeard): Side {
  const layer = act.layer!;
  const before = layerAt(side, layer);
  // A torque that is proved again moves nothing; what is put on anew had come off, with all that stands outside it.
  const again = before.is === 'on' && act.kind !== 'torque' && layer !== 'nut';
  const wasOff = again || before.is === 'off' || (before.is === 'open' && !built.together && layer !== 'nut');
  const order = putBackOrder(everyAct(side.stack, built.sheet)).get(layer)!;
  const fallen = before.is === 'off' ? [] : idsOf(order.filter((a) => isAfterPutOn(order, a)));
  const uncovered = wasOff && layer !== 'nut' ? comeOffBefore(side, built, layer, mark) : side;
  const bare = wasOff ? { ...uncovered, made: without(uncovered.made, fallen) } : uncovered;
  const at: LayerAt = { ...layerAt(bare, layer), is: 'on', moved: before.moved ?? mark, onSeq: mark.seq };
  const nutMoved = layer === 'hub' ? Math.max(bare.nutMoved, mark.seq) : bare.nutMoved;
  const others = without(bare.others, [layer]);
  return { ...bare, layers: { ...bare.layers, [layer]: at }, others, nutMoved };
}

function makes(side: Side, built: Built, act: Act, heard: StepHeard): Heard {
  const { mark, data } = heard;
  if (!data) {
    const skipped = { ...side.skipped, [act.id]: mark };
    return { side: { ...side, skipped }, notCounted: null };
  }
  const { moves, shifts, closes, breaks = [] } = effectOf(act);
  const saidNo = data.kind === 'inspect' && !data.ok;
  const why = whyNotCounted(side, built, act, heard);
  let after = side;
  // A layer that is put on is on, right or wrong; one that was answered with no is not.
  if (
    moves === 'on' &&
    !saidNo &&
    why?.why !== 'late' &&
    (layerAt(side, act.layer!).moved || act.kind !== 'torque')
  )
    if (act.layer !== 'nut' || !why) after = putOn(side, built, act, heard);
  if (act.layer === 'nut' && act.disturbs && why?.why !== 'covered' && why?.why !== 'late')
    after = nutTurned(after, built, mark);
  if (why && !(moves === 'on' && why.why === 'covered' && act.layer !== 'nut')) {
    // What was answered with no is not made, whatever was said before; a supervisor may let it stand where one may.
    if (why.why === 'no') {
      const left = act.guard === 'never' ? {} : { skipped: { ...after.skipped, [act.id]: mark } };
      after = { ...after, made: without(after.made, [act.id]), ...left };
    }
    return { side: after, notCounted: why };
  }
  const at = layerAt(after, act.layer!);
  if (closes && at.is === 'open')
    after = { ...after, layers: { ...after.layers, [act.layer!]: { ...at, is: 'on', onSeq: mark.seq } } };
  after = breakClosures(after, breaks, mark);
  if (shifts) after = breakClosures(after, restingUntouched(after, built.sheet, act.id), mark);
  const so = after.made[act.id];
  const anew = shifts || (moves === 'on' && act.kind !== 'torque') || !so;
  const made = { ...after.made, [act.id]: { first: anew ? mark.seq : so.first, last: mark } };
  return { side: { ...after, made, skipped: without(after.skipped, [act.id]) }, notCounted: null };
}

interface Heard {
  side: Side;
  notCounted: NotCounted | null;
}

/**
 * A side of an axle after one more step was done or left out on it. Taking off is believed, recorded or left out, and
 * takes off what stands outside; a closure is made only where what must be off is off; whatever is put on is on.
 * @returns the side, and why the record does not count where it does not
 */
export function hearStep(side: Side, built: Built, heard: StepHeard): Heard {
  const act = everyAct(side.stack, built.sheet).get(`${heard.stage}/${heard.stepId}`);
  if (!act?.layer) return { side, notCounted: null };
  if (putsBack(act)) return makes(side, built, act, heard);
  return { side: undoes(side, built, act, heard), notCounted: null };
}

/**
 * A take-off that was struck out: its layer was never moved by it, and what it would have broken is to be checked anew,
 * as far as that can be got at from outside.
 */
export function strikeStep(
  side: Side,
  built: Built,
  { stage, stepId, mark }: Pick<StepHeard, 'stage' | 'stepId' | 'mark'>,
): Side {
  const acts = everyAct(side.stack, built.sheet);
  const act = acts.get(`${stage}/${stepId}`);
  if (!act?.layer || putsBack(act)) return side;
  const { moves, breaks = [] } = effectOf(act);
  const order = putBackOrder(acts).get(act.layer) ?? [];
  const outside = order.filter((a) =>
    act.layer === 'nut' ? a.kind === 'lock' || a.stage === 'verify' : isAfterPutOn(order, a),
  );
  const never = outside.filter(
    (a) => a.guard === 'never' && a.id !== 'inflated' && a.id !== 'axle-cover-cured',
  );
  const ids = moves === 'off' || moves === 'open' ? idsOf(never) : breaks;
  return breakOwnClosures(side, built, ids, mark);
}

/** Layers that were off or open as a unit came: they and what stands outside them. */
export function asItCame(side: Side, built: Built, off: readonly LayerId[], mark: Mark): Side {
  return off
    .filter((id) => layerOf(side.stack, id))
    .reduce((s, id) => {
      const bare = comeOffBefore(s, built, id, mark);
      return moveOut(bare, built, id, { to: 'off', mark, own: false });
    }, side);
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
  const outward = layers.reduce((s, { layer, is }) => {
    if (is === 'on') return s;
    return moveOut(comeOffBefore(s, built, layer, mark, is), built, layer, { to: is, mark, own: false });
  }, side);
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

/** A side that was released: everything it was moved for is settled. */
export function releaseSide(side: Side): Side {
  const layers = Object.fromEntries(
    Object.entries(side.layers).map(([id, at]) => [id, at.is === 'on' ? { ...at, moved: null } : at]),
  );
  return { ...side, layers, broken: {}, skipped: {}, others: {}, left: null };
}

/**
 * What the next job on this axle begins from; null where nothing is left to say.
 * @param counts which closures are made, with what they rest on
 */
export function carrySide(side: Side, counts: (id: string) => boolean): StoredSide | null {
  const layers = Object.fromEntries(
    Object.entries(side.layers).flatMap(([id, at]) => {
      if (at.is === 'on' && !at.moved) return [];
      const outSeq = at.is === 'on' ? -1 : 0;
      const moved = at.moved && { ...at.moved, seq: 0 };
      return [[id, { ...at, moved, outSeq, onSeq: -1, own: false }]];
    }),
  );
  const seqs = (mark: Mark): Mark => ({ ...mark, seq: 0 });
  const broken = Object.entries(side.broken).filter(([id]) => !counts(id));
  if (Object.keys(layers).length === 0 && broken.length === 0 && !side.left) return null;
  return {
    stack: [...side.stack],
    layers,
    // Before and after of what is made stands among itself: it counts for the next job as it counted.
    made: Object.fromEntries(
      Object.entries(side.made)
        .filter(([id]) => counts(id))
        .map(([id, { last }]) => [id, { first: 0, last: seqs(last) }]),
    ),
    broken: Object.fromEntries(broken.map(([id, mark]) => [id, seqs(mark)])),
    skipped: {},
    nutMoved: 0,
    others: Object.fromEntries(
      Object.entries(side.others).map(([id, by]) => [id, { ...by, mark: seqs(by.mark) }]),
    ),
    left: side.left && { ...side.left, mark: seqs(side.left.mark) },
  };
}
