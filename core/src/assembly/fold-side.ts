import { everyAct, isDeflated, isOffLimit, putBackOrder, putsBack, type Act } from '../route/index.ts';
import type { Sheet, StepData } from '../procedure/index.ts';
import type { LayerId, Stack } from '../stack/index.ts';
import { effectOf, isAfterPutOn, mustBeOff, needsLayerOff, seenOnTheNut } from './effects.ts';
import { breakClosures, comeOffBefore, idsOf, moveOut, without, type Built } from './moves.ts';
import { isOn, layerAt, nutMovedBy, type LayerAt, type Mark, type Side } from './side.ts';

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
  /** The part not used twice that goes in again with it. */
  old?: string | undefined;
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
  return data?.kind === 'choose' && isDeflated(data.option) ? breakClosures(side, ['inflated'], mark) : side;
}

/** When what an act makes was broken, ISO. @param order the layer's put-back acts */
function brokenSince(side: Side, act: Act, order: readonly Act[]): string[] {
  const layer = act.layer!;
  // What was done to the nut before it was turned again is undone by that.
  const turned = layer === 'nut' && act.id !== 'brake-again' ? side.nutMovedAt : undefined;
  // What is done with the layer off, later than it was put on, means that it had come off again.
  const stillOff =
    effectOf(act).moves === 'on'
      ? order.filter((a) => a !== act && needsLayerOff(order, a)).map((a) => side.made[a.id]?.last.at)
      : [];
  return [side.broken[act.id]?.at, layerAt(side, layer).moved?.at, turned, ...stillOff].filter(
    (at) => at !== undefined,
  );
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
  // At the very time of what broke it, nobody knows which came first.
  if (late && brokenSince(side, act, order).some((at) => mark.at <= at)) return { why: 'late' };
  if (data?.kind === 'inspect' && !data.ok) return { why: 'no' };
  if (data?.kind === 'linings' && !data.set) return { why: 'no' };
  return data && isOffLimit({ stack: side.stack, sheet }, act, data) ? { why: 'no' } : null;
}

/** Where a nut is after a step of setting it: on its thread, not locked; what was measured, locked and seen is void. */
function nutTurned(side: Side, { sheet }: Built, mark: Mark): Side {
  const at = layerAt(side, 'nut');
  const order = putBackOrder(everyAct(side.stack, sheet)).get('nut')!;
  const isVoid = (a: Act) =>
    a.kind === 'lock' || a.kind === 'measure' || a.kind === 'rolling' || seenOnTheNut.has(a.id);
  const made = without(side.made, idsOf(order.filter(isVoid)));
  const inward = at.is === 'off' ? { onSeq: mark.seq } : {};
  const layers = { ...side.layers, nut: { ...at, is: 'open' as const, moved: at.moved ?? mark, ...inward } };
  return nutMovedBy({ ...side, layers, made }, mark);
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
  const others = without(bare.others, [layer]);
  const on = { ...bare, layers: { ...bare.layers, [layer]: at }, others };
  return layer === 'hub' ? nutMovedBy(on, mark) : on;
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
  const old = heard.old === undefined ? {} : { old: heard.old };
  const made = { ...after.made, [act.id]: { first: anew ? mark.seq : so.first, last: mark, ...old } };
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
