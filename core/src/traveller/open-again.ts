import type { Sheet } from '../procedure/index.ts';
import { allNeedsOff, layerOf, reachOf, type LayerId, type Stack, type Work } from '../stack/index.ts';
import type { Round, RoutePlan, Since, WheelEnd } from './job.ts';
import { putsBack } from '../route/index.ts';
import { actsOf } from './route-progress.ts';

/** Layers with a put-back record that still counts: they are on again, wholly or in part. */
function putBack(w: WheelEnd, plan: RoutePlan): Set<LayerId> {
  const layers = new Map(actsOf(w).map((a) => [`${a.stage}/${a.id}`, a]));
  const on = new Set<LayerId>();
  for (const record of w.records) {
    const act = layers.get(`${record.stage}/${record.stepId}`);
    if (!act?.layer || !putsBack(act)) continue;
    if (record.seq > (plan.since.back[act.layer] ?? 0)) on.add(act.layer);
  }
  return on;
}

const from = (since: Since, layers: Iterable<LayerId>, seq: number): Since => ({
  ...since,
  ...Object.fromEntries([...layers].map((id) => [id, seq])),
});

function wasLocked(w: WheelEnd, plan: RoutePlan): boolean {
  return w.records.some(
    (r) => r.stepId === 'lock' && r.data?.kind === 'lock' && r.seq > (plan.since.off.nut ?? 0),
  );
}

type NewRound = Pick<Round, 'from' | 'turns' | 'predictedMm'>;

function nextRound(w: WheelEnd, round: NewRound, rest: Pick<Round, 'wasLocked' | 'brakeOn'>): Round[] {
  return [...w.rounds, { ...round, ...rest, number: w.rounds.length + 1 }];
}

/** A new round of adjusting: the nut's put-back counts from here on, and that of what closes it. */
export function reopenNut(w: WheelEnd, seq: number, round: NewRound): WheelEnd {
  const { plan } = w;
  if (plan.by === 'procedure')
    return { ...w, rounds: nextRound(w, round, { wasLocked: false, brakeOn: false }) };
  const on = putBack(w, plan);
  const closed = [...allNeedsOff(plan.stack, 'nut')].filter((id) => on.has(id));
  const since = {
    off: from(plan.since.off, closed, seq),
    back: from(plan.since.back, ['nut', ...closed], seq),
  };
  const rest = { wasLocked: wasLocked(w, plan), brakeOn: on.has('brake-outer') || on.has('brake-inner') };
  return { ...w, plan: { ...plan, since }, rounds: nextRound(w, round, rest) };
}

const fresh: NewRound = { from: 'start', turns: null, predictedMm: null };

/** Layers that come off again, from here on: their take-off and put-back count anew. */
function comeOff(w: WheelEnd, plan: RoutePlan, seq: number, layers: readonly LayerId[]): WheelEnd {
  const since = { off: from(plan.since.off, layers, seq), back: from(plan.since.back, layers, seq) };
  const rounds = layers.includes('nut')
    ? nextRound(w, fresh, { wasLocked: false, brakeOn: false })
    : w.rounds;
  return { ...w, plan: { ...plan, since }, rounds };
}

/** One layer and, of those that must be off before it, the ones that are on again. */
export function openAgain(w: WheelEnd, seq: number, layer: LayerId): WheelEnd {
  const { plan } = w;
  if (plan.by === 'procedure') return w;
  const on = putBack(w, plan);
  const outer = [...allNeedsOff(plan.stack, layer, plan.together)].filter((id) => on.has(id));
  return comeOff(w, plan, seq, [...outer, layer]);
}

/** The layers that a further work reaches and that are on again come off anew; everything else stays recorded. */
export function addWork(w: WheelEnd, seq: number, work: Work): WheelEnd {
  const { plan } = w;
  if (plan.by === 'procedure') return w;
  const works = [...plan.works, work];
  const on = putBack(w, plan);
  const before = reachOf(plan.stack, plan.works, plan.alreadyOff, plan.together);
  const only = reachOf(plan.stack, [work], [], plan.together);
  const deeper = [...only.layers].filter(
    ([id, how]) => before.layers.get(id) !== how && before.layers.get(id) !== 'off',
  );
  const needed = new Set(deeper.flatMap(([id]) => [id, ...allNeedsOff(plan.stack, id, plan.together)]));
  const again = [...needed].filter((id) => on.has(id));
  return comeOff({ ...w, plan: { ...plan, works } }, { ...plan, works }, seq, again);
}

export function withdrawWork(w: WheelEnd, work: Work): WheelEnd {
  const { plan } = w;
  return plan.by === 'procedure'
    ? w
    : { ...w, plan: { ...plan, works: plan.works.filter((x) => x !== work) } };
}

/** Work that the owner declined or deferred: off the route, and in sight with its date and risk. */
export function leaveOut(w: WheelEnd, unwanted: RoutePlan['unwanted'][number]): WheelEnd {
  const less = withdrawWork(w, unwanted.work);
  if (less.plan.by === 'procedure') return less;
  return { ...less, plan: { ...less.plan, unwanted: [...less.plan.unwanted, unwanted] } };
}

/** What a nut's setting depends on. */
const nutOf = (sheet: Sheet, stack: Stack) =>
  JSON.stringify([layerOf(stack, 'nut') ?? null, sheet.procedureId, sheet.thread, sheet.lock, sheet.band]);

/**
 * The wheel end is built differently. A record stays where layer, kind, step and figure are equal; settings and
 * readings never survive a change of nut, thread, lock or spacer.
 */
export function changeSheet(w: WheelEnd, seq: number, sheet: Sheet, stack: Stack): WheelEnd {
  const { plan } = w;
  if (plan.by === 'procedure') return w;
  const kindOf = (s: Stack, id: LayerId) => JSON.stringify(s.find((l) => l.layer === id) ?? null);
  const otherwise = stack.map((l) => l.layer).filter((id) => kindOf(plan.stack, id) !== kindOf(stack, id));
  const figures = actsOf(w).flatMap((a) =>
    a.kind === 'torque' && JSON.stringify(w.sheet[a.figure]) !== JSON.stringify(sheet[a.figure])
      ? [a.id]
      : [],
  );
  const nut = nutOf(w.sheet, plan.stack) !== nutOf(sheet, stack);
  const back = new Set<LayerId>([...otherwise, ...(nut ? (['nut'] as const) : [])]);
  const since = { off: plan.since.off, back: from(plan.since.back, back, seq) };
  const sinceStep = { ...plan.sinceStep, ...Object.fromEntries(figures.map((id) => [id, seq])) };
  const rounds = back.has('nut') ? nextRound(w, fresh, { wasLocked: false, brakeOn: false }) : w.rounds;
  return { ...w, sheet, plan: { ...plan, stack, since, sinceStep }, rounds };
}
