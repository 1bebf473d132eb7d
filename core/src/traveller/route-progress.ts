import {
  partsToCompareOf,
  partsToJudgeOf,
  plannedParts,
  putsBack,
  routeOf,
  routeReadiness,
  type Act,
  type RouteState,
} from '../route/index.ts';
import type { ReadyLine } from '../procedure/index.ts';
import { reachOf, type Stack } from '../stack/index.ts';
import { comparedParts, judgedParts, readyLines, renewedParts } from './findings.ts';
import type { RoutePlan, StepRecord, WheelEnd } from './job.ts';

interface Derived {
  state: RouteState;
  acts: readonly Act[];
  judge: readonly string[];
  compare: readonly string[];
  ready: readonly ReadyLine[];
}

/**
 * Derived routes by the stack they are of and by what else they come from: a job asks at every record, and nearly
 * every record leaves the route as it was.
 */
const routesOf = new WeakMap<Stack, Map<string, Derived>>();
const derivedOf = new WeakMap<WheelEnd, Derived>();

function derived(w: WheelEnd, plan: RoutePlan): Derived {
  const known = derivedOf.get(w);
  if (known) return known;
  const { stack, works, alreadyOff, together } = plan;
  const { number, from, turns, wasLocked, brakeOn } = w.rounds[w.rounds.length - 1]!;
  const chosen: Record<string, string> = {};
  for (const { stepId, data } of w.records) if (data?.kind === 'choose') chosen[stepId] = data.option;
  const judged = w.records.some((r) => r.data?.kind === 'judge');
  const renewed = judged ? [...renewedParts(w)] : null;
  const adjust = { from, round: number, turns, wasLocked, brakeOn };
  const key = JSON.stringify([works, alreadyOff, together, chosen, renewed, adjust]);
  let routes = routesOf.get(stack);
  if (!routes) routesOf.set(stack, (routes = new Map()));
  let found = routes.get(key);
  if (!found || found.state.sheet !== w.sheet) {
    const reach = reachOf(stack, works, alreadyOff, together);
    const bare = { stack, sheet: w.sheet, works, reach, alreadyOff, together, chosen, adjust };
    const state: RouteState = { ...bare, renewed: new Set(renewed ?? []) };
    found = derive(renewed ? state : { ...state, renewed: new Set(plannedParts(state)) });
    routes.set(key, found);
  }
  derivedOf.set(w, found);
  return found;
}

function derive(state: RouteState): Derived {
  const acts = routeOf(state).filter((a) => !a.when || state.chosen[a.when.step] === a.when.option);
  return {
    state,
    acts,
    judge: partsToJudgeOf(state),
    compare: partsToCompareOf(state),
    ready: routeReadiness(state, acts),
  };
}

/** What the route of a wheel end is derived from, as it stands. */
export function routeStateOf(w: WheelEnd, plan: RoutePlan): RouteState {
  return derived(w, plan).state;
}

/** The acts of a wheel end in their order, as far as what was found tells. Empty for a job of the first build. */
export function actsOf(w: WheelEnd): readonly Act[] {
  return w.plan.by === 'procedure' ? [] : derived(w, w.plan).acts;
}

/** What the route at hand needs, line by line. Empty for a job of the first build. */
export function readinessLines(w: WheelEnd): readonly ReadyLine[] {
  return w.plan.by === 'procedure' ? [] : derived(w, w.plan).ready;
}

/** What of a list still has no answer: going deeper asks for what is now needed, and for nothing else. */
export function openParts(w: WheelEnd, kind: 'judge' | 'compare' | 'ready'): string[] {
  if (w.plan.by === 'procedure') return [];
  const { judge, compare, ready } = derived(w, w.plan);
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

/** An act with the record that still counts for it. */
interface ActProgress {
  step: Act;
  record: StepRecord | null;
}

/**
 * Every act with its record, and the place of the last act that moved the nut. A record counts only if its layer was
 * not opened since, and a record of the nut only if nothing before it in the route moved the nut after it.
 */
export function routeProgress(w: WheelEnd, plan: RoutePlan): RouteProgress {
  let found = progressKnown.get(w);
  if (!found) {
    found = reckonProgress(w, plan);
    progressKnown.set(w, found);
  }
  return found;
}

interface RouteProgress {
  acts: readonly ActProgress[];
  settledAt: number;
}

const progressKnown = new WeakMap<WheelEnd, RouteProgress>();

function reckonProgress(w: WheelEnd, plan: RoutePlan): RouteProgress {
  let movedAt = 0;
  const byStep = new Map<string, StepRecord[]>();
  for (const record of w.records) {
    const list = byStep.get(record.stepId);
    if (list) list.push(record);
    else byStep.set(record.stepId, [record]);
  }
  const lastAt = new Map<string, number>();
  const acts = actsOf(w).map((step): ActProgress => {
    const records = byStep.get(step.id);
    if (!records) return { step, record: null };
    const nut = step.layer === 'nut' && step.phase === 'back';
    const floor = Math.max(
      sinceOf(step, plan),
      plan.sinceStep[step.id] ?? 0,
      nut ? movedAt : 0,
      step.kind === 'inspect' && step.otherThan ? (lastAt.get(step.otherThan) ?? 0) : 0,
    );
    const last = records.findLast((r) => r.stage === step.stage && r.seq > floor) ?? null;
    const record = last && last.skipped === null && isOpenList(w, step) ? null : last;
    if (record?.data && step.disturbs) movedAt = Math.max(movedAt, record.seq);
    if (record) lastAt.set(step.id, record.seq);
    return { step, record };
  });
  return { acts, settledAt: movedAt };
}

/** A list that the route has outgrown since it was answered. */
function isOpenList(w: WheelEnd, { kind }: Act): boolean {
  return (kind === 'judge' || kind === 'compare' || kind === 'ready') && openParts(w, kind).length > 0;
}

function sinceOf(act: Act, { since }: RoutePlan): number {
  if (!act.layer) return 0;
  return (putsBack(act) ? since.back : since.off)[act.layer] ?? 0;
}
