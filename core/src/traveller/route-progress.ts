import {
  effectOf,
  isOn,
  layerAt,
  mustBeOff,
  needsLayerOff,
  standingOf,
  type Side,
  type Standing,
} from '../assembly/index.ts';
import type { ReadyLine } from '../procedure/index.ts';
import {
  everyAct,
  judgedSince,
  oilTells,
  partsToCompareOf,
  partsToJudgeOf,
  plannedParts,
  putBackOrder,
  putsBack,
  routeOf,
  routeReadiness,
  LUBRICATE,
  settingSteps,
  type Act,
  type RouteState,
} from '../route/index.ts';
import { RULES } from './rules.ts';
import { layerOf, needsOffFor, takeOffOrder, targetOf, type LayerId, type Reached } from '../stack/index.ts';
import type { Stack } from '../stack/index.ts';
import {
  comparedParts,
  isToBeSleeved,
  judgedParts,
  partsAgain,
  readyLines,
  renewedParts,
} from './findings.ts';
import type { Plan, StepRecord, WheelEnd } from './job.ts';
import { signsOfOil } from './oil-found.ts';

interface Derived {
  state: RouteState;
  /** Layers that still have to be opened or come off. */
  out: ReadonlyMap<LayerId, Reached>;
  standing: Standing;
  acts: readonly Act[];
  judge: readonly string[];
  compare: readonly string[];
  ready: readonly ReadyLine[];
}

/** What follows from how a wheel end is built, what is wanted and how far its layers are, and from no single record. */
type FromState = Pick<Derived, 'state' | 'acts' | 'judge' | 'compare' | 'ready'>;

/**
 * Derived routes by the stack they are of and by what else they come from: a job asks at every record, and nearly
 * every record leaves the route as it was.
 */
const routesOf = new WeakMap<Stack, Map<string, FromState>>();
const derivedOf = new WeakMap<WheelEnd, Derived>();

/** Whether a layer was opened or taken off since it was wanted, or is. */
function isReached(side: Side, id: LayerId, how: Reached, since: number): boolean {
  const { is, outSeq, outTo } = layerAt(side, id);
  const inTime = outSeq >= 0 && outSeq >= since;
  return how === 'off' ? is === 'off' || (inTime && outTo === 'off') : is !== 'on' || inTime;
}

type Out = Map<LayerId, Reached>;

/** Adds a layer that has to be opened or come off, with everything that stands outside it. */
function take(out: Out, { stack, together }: Plan, side: Side, id: LayerId, how: Reached): void {
  const there = layerAt(side, id).is;
  if (there !== 'off' && (how === 'off' || there === 'on') && out.get(id) !== 'off') out.set(id, how);
  for (const outer of needsOffFor(stack, id, how, together))
    if (layerAt(side, outer).is !== 'off') out.set(outer, 'off');
}

/** Layers that the works and wishes want opened or off and that were not since. */
function wantedOut({ side }: WheelEnd, plan: Plan): Out {
  const out: Out = new Map();
  const want = (id: LayerId, how: Reached, since: number) => {
    if (!isReached(side, id, how, since)) take(out, plan, side, id, how);
  };
  for (const work of plan.works) {
    const target = targetOf(plan.stack, work) ?? {};
    for (const [id, how] of Object.entries(target) as [LayerId, Reached][])
      want(id, how, plan.addedAt[work] ?? 0);
  }
  for (const { layer, how, seq } of plan.wishes) if (layerOf(plan.stack, layer)) want(layer, how, seq);
  // A drum that comes off in one with wheel and hub has its shoes backed off first.
  if (plan.together && out.has('hub') && layerOf(plan.stack, 'brake-outer')?.kind === 'drum')
    take(out, plan, side, 'brake-outer', 'open');
  return out;
}

/** What has to come off so that the closures that do not count can be made. */
function mendingOut(w: WheelEnd, plan: Plan, { required, counts }: Standing): Out {
  const { side } = w;
  const out: Out = new Map();
  const again = new Set(partsAgain(plan));
  const round = w.rounds.at(-1)!.seq || -1;
  for (const act of required) {
    const layer = act.layer!;
    const old = side.made[act.id]?.old;
    // An old part stays in until the new one has come; the next job begins with it.
    const mends = old !== undefined && !again.has(old);
    // What an earlier setting made does not count for the one at hand, which began with its round.
    const isOfEarlier =
      layer === 'nut' && act.id !== LUBRICATE && (side.made[act.id]?.last.seq ?? Infinity) <= round;
    if (!mends && !isOfEarlier && (act.guard !== 'never' || counts(act.id) || side.skipped[act.id])) continue;
    for (const outer of mustBeOff(plan.stack, act, plan.together))
      if (isOn(side, outer)) take(out, plan, side, outer, 'off');
    const order = putBackOrder(everyAct(plan.stack, w.sheet)).get(layer) ?? [];
    if (layer !== 'nut' && isOn(side, layer) && needsLayerOff(order, act))
      take(out, plan, side, layer, 'off');
  }
  return out;
}

/** Layers that the route is about: moved or to be moved, with closures to make, or handled in this job. */
function layersInRoute(
  { side, sheet }: WheelEnd,
  { stack, together }: Plan,
  out: Out,
): Map<LayerId, Reached> {
  const layers = new Map<LayerId, Reached>();
  const order = putBackOrder(everyAct(stack, sheet));
  const hubIsOff = layerAt(side, 'hub').is === 'off';
  const isBroken = (id: LayerId) => order.get(id)?.some((a) => side.broken[a.id] && !side.made[a.id]);
  for (const { layer: id } of stack) {
    const at = layerAt(side, id);
    const handled = at.moved !== null || at.is !== 'on' || at.outSeq > 0 || at.onSeq > 0;
    const isOut = out.get(id) === 'off' || at.is === 'off' || at.outTo === 'off';
    // Without its hub a nut is set after the hub is on, however far it was opened.
    const opened = isOut || (id === 'nut' && hubIsOff) ? 'off' : 'open';
    const how = id === 'nut' || id === 'knuckle' || (id === 'brake-outer' && together) ? opened : 'off';
    if (out.has(id) || handled || isBroken(id)) layers.set(id, how);
  }
  return layers;
}

function stateOf(w: WheelEnd, plan: Plan, out: Out, layers: ReadonlyMap<LayerId, Reached>): FromState {
  const { stack, works, together } = plan;
  const { side } = w;
  const { from, turns, wasLocked, secured } = w.rounds[w.rounds.length - 1]!;
  const chosen: Record<string, string> = {};
  for (const { stepId, data } of w.records) if (data?.kind === 'choose') chosen[stepId] = data.option;
  if (side.broken['inflated']) chosen['rims'] = 'core-out';
  const oil = oilTells([...signsOfOil(w).keys()]);
  if (oil) chosen['oil'] = oil;
  const judged = w.records.some((r) => r.data?.kind === 'judge');
  const renewed = judged ? [...renewedParts(w), ...(isToBeSleeved(w) ? ['wear-sleeve'] : [])] : null;
  const alreadyOff = [...layers.keys()].filter((id) => {
    const { own, outSeq } = layerAt(side, id);
    return !out.has(id) && (outSeq < 0 || !own);
  });
  const byOthers = side.others.nut !== undefined;
  const adjust = { from, turns, wasLocked, secured, byOthers, brakeOn: brakeIsOn(w, out) };
  const inTheAir = isInTheAir(side, out);
  const rules = w.rules ?? RULES;
  const key = JSON.stringify([
    rules,
    inTheAir,
    works,
    [...layers],
    alreadyOff,
    together,
    chosen,
    renewed,
    adjust,
  ]);
  let routes = routesOf.get(stack);
  if (!routes) routesOf.set(stack, (routes = new Map()));
  let found = routes.get(key);
  if (!found || found.state.sheet !== w.sheet) {
    const off = takeOffOrder(
      stack,
      new Set([...layers].flatMap(([id, how]) => (how === 'off' ? [id] : []))),
      together,
    );
    const reach = { layers, off };
    const bare = { stack, sheet: w.sheet, works, reach, alreadyOff, together, inTheAir, chosen, adjust };
    const state: RouteState = { ...bare, renewed: new Set(renewed ?? []) };
    found = derive(renewed ? state : { ...state, renewed: new Set(plannedParts(state)) }, rules);
    routes.set(key, found);
  }
  return found;
}

/** Whether the wheel end is, was or will be lifted in this job: for anything but its cap and the axle's cover. */
function isInTheAir(side: Side, out: Out): boolean {
  const lifted = (id: LayerId) => {
    const { is, outSeq, onSeq } = layerAt(side, id);
    return out.has(id) || is !== 'on' || outSeq > 0 || onSeq > 0;
  };
  return side.stack.some(({ layer }) => layer !== 'cap' && layer !== 'axle' && lifted(layer));
}

/** Whether the brake is on where the setting is measured: then it is freed for that, and works again after it. */
function brakeIsOn({ side }: WheelEnd, out: Out): boolean {
  const brake = layerOf(side.stack, 'brake-outer') ?? layerOf(side.stack, 'brake-inner');
  if (!brake || out.has(brake.layer) || !isOn(side, brake.layer)) return false;
  const freed = ['brake-freed', 'brake-again'].some((id) => side.made[id] ?? side.broken[id]);
  return freed || !(side.made['end-play'] ?? side.made['drag']);
}

function derived(w: WheelEnd): Derived {
  const { plan } = w;
  const known = derivedOf.get(w);
  if (known) return known;
  const wanted = wantedOut(w, plan);
  let out = wanted;
  let found = stateOf(w, plan, out, layersInRoute(w, plan, out));
  let standing = standingNow(w, plan, found);
  const mending = mendingOut(w, plan, standing);
  if (mending.size > 0) {
    out = new Map(wanted);
    for (const [id, how] of mending) if (out.get(id) !== 'off') out.set(id, how);
    found = stateOf(w, plan, out, layersInRoute(w, plan, out));
    standing = standingNow(w, plan, found);
  }
  const all: Derived = { ...found, out, standing };
  derivedOf.set(w, all);
  return all;
}

/** How the closures stand, by every put-back act that the wheel end can have as it was found. */
function standingNow(w: WheelEnd, plan: Plan, { acts, state }: FromState): Standing {
  const nut = layerOf(plan.stack, 'nut');
  const set = nut && state.adjust.from === 'setting' ? settingSteps(nut, w.sheet) : [];
  const every = everyAct(plan.stack, w.sheet);
  const before = set.filter((id) => {
    const act = every.get(`adjust/${id}`);
    // With the hub on nothing was lubricated, and nothing waits for it.
    if (id === LUBRICATE) return false;
    return act && act.guard !== 'optional' && (!act.when || state.chosen[act.when.step] === act.when.option);
  });
  return standingOf(w.side, acts, before);
}

function derive(state: RouteState, rules: number): FromState {
  const acts = routeOf(state).filter(
    (a) => (a.since ?? 0) <= rules && (!a.when || state.chosen[a.when.step] === a.when.option),
  );
  return {
    state,
    acts,
    judge: partsToJudgeOf(state).filter((id) => (judgedSince[id] ?? 0) <= rules),
    compare: partsToCompareOf(state),
    ready: routeReadiness(state, acts),
  };
}

/** What the route of a wheel end is derived from, as it stands. */
export const routeStateOf = (w: WheelEnd): RouteState => derived(w).state;

/** The acts of a wheel end in their order, as far as what was found tells. */
export const actsOf = (w: WheelEnd): readonly Act[] => derived(w).acts;

/** What the route at hand needs, line by line. */
export const readinessLines = (w: WheelEnd): readonly ReadyLine[] => derived(w).ready;

/** What of a list still has no answer: going deeper asks for what is now needed, and for nothing else. */
export function openParts(w: WheelEnd, kind: 'judge' | 'compare' | 'ready'): string[] {
  const { judge, compare, ready } = derived(w);
  switch (kind) {
    case 'judge': {
      const judged = judgedParts(w);
      return judge.filter((id) => !judged.has(id));
    }
    case 'compare': {
      const compared = comparedParts(w);
      return compare.filter((id) => !compared.has(id));
    }
    case 'ready': {
      const lines = readyLines(w);
      return ready.flatMap((l) => (lines.has(l.what) ? [] : [l.what]));
    }
  }
}

/** An act with the record that counts for it. */
interface ActProgress {
  step: Act;
  record: StepRecord | null;
}

/**
 * Every act of the route with the record that counts for it: of a closure the one that made it, as long as it and what
 * it rests on is made; of a take-off the last one since the layer was on; of anything else the last one.
 */
export function routeProgress(w: WheelEnd): readonly ActProgress[] {
  let found = progressKnown.get(w);
  if (!found) {
    found = reckonProgress(w);
    progressKnown.set(w, found);
  }
  return found;
}

/** Layers that still have to be opened or come off, before what is broken or wanted can be put right. */
export const layersToOpen = (w: WheelEnd): ReadonlyMap<LayerId, Reached> => derived(w).out;

/** Which closures of a wheel end have to be made, and which are. */
export const closuresOf = (w: WheelEnd): Standing => derived(w).standing;

const progressKnown = new WeakMap<WheelEnd, readonly ActProgress[]>();

function reckonProgress(w: WheelEnd): ActProgress[] {
  const { acts, out, state, standing } = derived(w);
  const { side } = w;
  const byStep = new Map<string, StepRecord[]>();
  const byEvent = new Map<string, StepRecord>();
  for (const record of w.records) {
    byEvent.set(record.eventId, record);
    const list = byStep.get(record.stepId);
    if (list) list.push(record);
    else byStep.set(record.stepId, [record]);
  }
  const lastOf = (step: Act, floor: number) =>
    byStep.get(step.id)?.findLast((r) => r.stage === step.stage && r.seq > floor) ?? null;
  const round = w.rounds.at(-1)!;
  const required = new Set(standing.required.map((a) => a.id));
  const floors = stanceFloors(w, out, standing, (id) => byStep.get(id)?.at(-1)?.seq ?? 0);

  return acts.flatMap((step): ActProgress[] => {
    const { layer } = step;
    if (layer && putsBack(step)) {
      if (!out.has(layer) && standing.isAssumed(step)) return [];
      const made = side.made[step.id];
      const inRoute = state.reach.layers.has(layer);
      const isWanted = required.has(step.id) || out.has(layer) || !inRoute;
      const counts = made !== undefined && standing.counts(step.id);
      // What an earlier job made, and nothing moves in this one, is nothing to do; but a nut that is set, is set anew.
      const isKept = layer !== 'nut' || round.seq < 0;
      if (inRoute && counts && made.last.seq === 0 && isKept && !out.has(layer)) return [];
      // What was lubricated with the hub off stays so until the hub comes off again.
      const floor = layer === 'nut' && step.id !== LUBRICATE ? Math.max(round.seq, 0) : 0;
      if (counts && made.last.seq > floor && !out.has(layer))
        return [{ step, record: byEvent.get(made.last.eventId) ?? null }];
      const skipped = side.skipped[step.id];
      const left = skipped && skipped.seq > floor ? (byEvent.get(skipped.eventId) ?? null) : null;
      if (!isWanted && !left && !(step.guard === 'optional' && layerAt(side, layer).moved)) return [];
      return [{ step, record: left }];
    }
    if (layer) {
      const record = lastOf(step, out.has(layer) ? layerAt(side, layer).onSeq : 0);
      return out.has(layer) || record || isNextOff(side, acts, step) ? [{ step, record }] : [];
    }
    const last = lastOf(step, floors[step.id] ?? 0);
    return [{ step, record: last && last.skipped === null && isOpenList(w, step) ? null : last }];
  });
}

/** Whether an act takes further apart what was taken off by a record of its own: a swage cut, a needle bearing driven out. */
function isNextOff(side: Side, acts: readonly Act[], step: Act): boolean {
  const { is, own, outSeq } = layerAt(side, step.layer!);
  if (is !== 'off' || !own || outSeq <= 0) return false;
  const off = acts.filter((a) => a.layer === step.layer && a.phase === 'off');
  const taken = off.findIndex((a) => effectOf(a).moves === 'off');
  return taken >= 0 && off.indexOf(step) > taken;
}

/** From where on lifting, letting down and the last look count: what was opened since asks for them anew. */
function stanceFloors(
  { side }: WheelEnd,
  out: ReadonlyMap<LayerId, Reached>,
  { required }: Standing,
  lastSeq: (stepId: string) => number,
): Record<string, number> {
  const [lifted, down] = [lastSeq('lifted'), lastSeq('down')];
  const inTheAir = [...out.keys()].some((id) => id !== 'cap' && id !== 'axle');
  const moved = Object.values(side.layers).map((at) => Math.max(at.outSeq, 0));
  const made = required
    .filter((a) => a.guard === 'never' && a.wait !== 'road')
    .map((a) => side.made[a.id]?.first ?? 0);
  const broken = Object.values(side.broken).map((m) => m.seq);
  const road = Math.max(0, side.nutMoved, ...moved, ...made, ...broken);
  return {
    lifted: inTheAir && down > lifted ? down : 0,
    down: lifted,
    'hub-heat': road,
    'final-look': road,
  };
}

/** A list that the route has outgrown since it was answered. */
function isOpenList(w: WheelEnd, { kind }: Act): boolean {
  return (kind === 'judge' || kind === 'compare' || kind === 'ready') && openParts(w, kind).length > 0;
}
