import { buildDifferently, isOn, layerAt, type Mark, type Side } from '../assembly/index.ts';
import type { Sheet } from '../procedure/index.ts';
import { secures } from '../route/index.ts';
import { layerOf, targetOf, type LayerId, type Stack, type Work } from '../stack/index.ts';
import type { Actor } from '../access/index.ts';
import { roundOf, type Plan, type Round, type WheelEnd } from './job.ts';

type NewRound = Pick<Round, 'from' | 'turns' | 'predictedMm'>;
const fresh: NewRound = { from: 'start', turns: null, predictedMm: null };

/** Another adjustment from here on: what was recorded for the one before does not count for it. */
function nextRound({ rounds, side }: WheelEnd, seq: number, round: NewRound): Round[] {
  const wasLocked = layerAt(side, 'nut').is === 'on';
  const secured = !wasLocked && secures.some((id) => side.made[id]);
  return [...rounds, { ...round, number: rounds.length + 1, seq, wasLocked, secured }];
}

/** Whether anything of the adjustment at hand was done. */
function hasSetting(w: WheelEnd): boolean {
  const { rounds, side, records, readings } = w;
  const { seq, number } = rounds.at(-1)!;
  return (
    readings.some((r) => roundOf(w, r) === number && r.seq > Math.max(seq, 0)) ||
    records.some((r) => r.stage === 'adjust' && r.seq > Math.max(seq, 0) && side.made[r.stepId])
  );
}

/** A new round of adjusting is a wish: it touches no metal, the acts it leads to do. */
export function reopenNut(w: WheelEnd, seq: number, round: NewRound): WheelEnd {
  const rounds = nextRound(w, seq, round);
  const { plan } = w;
  // A nut that is open can be turned as it is.
  return isOn(w.side, 'nut') ? { ...w, rounds, plan: wish(plan, 'nut', 'open', seq) } : { ...w, rounds };
}

const wish = (plan: Plan, layer: LayerId, how: 'open' | 'off', seq: number): Plan => ({
  ...plan,
  wishes: [...plan.wishes, { layer, how, seq }],
});

/** One layer is wanted off once more. */
export function openAgain(w: WheelEnd, seq: number, layer: LayerId): WheelEnd {
  return { ...w, plan: wish(w.plan, layer, 'off', seq) };
}

/** More work; a bearing that is to be adjusted though it was set before in this job is set anew. */
export function addWork(w: WheelEnd, seq: number, work: Work): WheelEnd {
  const { plan } = w;
  const again = targetOf(plan.stack, work)?.nut === 'open' && hasSetting(w);
  const rounds = again
    ? nextRound(w, seq, fresh)
    : w.rounds.map((r, i) => (i === w.rounds.length - 1 && r.seq < 0 ? { ...r, seq: 0 } : r));
  return {
    ...w,
    rounds,
    plan: { ...plan, works: [...plan.works, work], addedAt: { ...plan.addedAt, [work]: seq } },
  };
}

export function withdrawWork(w: WheelEnd, work: Work): WheelEnd {
  const { plan } = w;
  return { ...w, plan: { ...plan, works: plan.works.filter((x) => x !== work) } };
}

/**
 * Work that the owner declined or deferred: off the route, and in sight with its date and risk. The last work stays: what
 * its wheel end is left out with.
 */
export function leaveOut(w: WheelEnd, unwanted: Plan['unwanted'][number]): WheelEnd {
  const less = w.plan.works.length > 1 ? withdrawWork(w, unwanted.work) : w;
  return { ...less, plan: { ...less.plan, unwanted: [...less.plan.unwanted, unwanted] } };
}

/** Works that the owner did not answer no to, or that were added after it. */
export const worksWanted = ({ plan: { works, unwanted, addedAt } }: Pick<WheelEnd, 'plan'>): Work[] =>
  works.filter((work) => !unwanted.some((u) => u.work === work && u.seq > (addedAt[work] ?? 0)));

/** What a nut's setting depends on. */
const nutOf = (sheet: Sheet, stack: Stack) =>
  JSON.stringify([layerOf(stack, 'nut') ?? null, sheet.procedureId, sheet.thread, sheet.lock, sheet.band]);

/** Whether a band reaches beyond twice that of TMC RP 618, which the families go by. */
const isWide = ({ band }: Sheet): boolean => band !== null && band.max.si * 1000 > 2 * USUAL_MOST_MM + 1e-9;
/** The upper limit of end play for manual adjustment, mm: 0.005 in. @source TMC RP 618 */
const USUAL_MOST_MM = 0.127;

/** Layers that a sheet that was put right does not have any more, and what they are in the new one; null: never there. */
type Lost = readonly { layer: LayerId; is: LayerId | null }[];

/** The wheel end is built differently: layers and closures stay by name, the setting falls with what it hangs on. */
export function changeSheet(
  w: WheelEnd,
  { mark, by }: { mark: Mark; by: Actor },
  { sheet, stack, lost }: { sheet: Sheet; stack: Stack; lost: Lost },
): WheelEnd {
  const { plan } = w;
  const nutIsOther = nutOf(w.sheet, plan.stack) !== nutOf(sheet, stack);
  const again = nutIsOther && hasSetting(w);
  const side = buildDifferently(
    w.side,
    { sheet, together: plan.together },
    { stack, nutIsOther, lost, mark },
  );
  const widened = isWide(sheet) && !isWide(w.sheet) ? by : isWide(sheet) ? w.widened : null;
  const changed = { ...w, sheet, side, widened, plan: { ...plan, stack } };
  return again ? { ...changed, rounds: nextRound(w, mark.seq, fresh) } : changed;
}

/** A nut that was opened after it was set is set anew, where nothing was asked for before. */
export function openedNut(w: WheelEnd, before: Side, seq: number): WheelEnd {
  const [now, then] = [layerAt(w.side, 'nut'), layerAt(before, 'nut')];
  const opened =
    (now.outSeq === seq && then.outSeq !== seq) || (w.side.others.nut?.mark.seq === seq && now.onSeq === seq);
  return opened && hasSetting({ ...w, side: before }) ? { ...w, rounds: nextRound(w, seq, fresh) } : w;
}
