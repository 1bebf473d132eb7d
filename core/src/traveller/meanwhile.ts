import { effectOf, isAfterPutOn, isOn, layerAt, mustBeOff } from '../assembly/index.ts';
import { everyAct, putBackOrder, putsBack, type Act } from '../route/index.ts';
import type { Step } from '../procedure/index.ts';
import { needsOffFor } from '../stack/index.ts';
import type { Job, WheelEnd } from './job.ts';
import { progressOf, stepAtHand } from './progress.ts';
import type { Refusal } from './refusal.ts';
import { closuresOf } from './route-progress.ts';
import { waitsFor } from './waits-for.ts';

/** A step that is at hand and has to wait, with what for. */
export interface Waiting {
  position: string;
  step: Step;
  why: Refusal;
}

/** What waits for what in a job: of every wheel end that is open the step at hand, where it cannot be done yet. */
export function whatWaits(job: Job): Waiting[] {
  return job.wheelEnds.flatMap((w) => {
    const step = w.release || w.firstBuild ? null : stepAtHand(w);
    const why = step && waitsFor(job, w, step);
    return why ? [{ position: w.position, step, why }] : [];
  });
}

/**
 * What can be done on a wheel end while its step at hand waits: open steps that wait for nothing themselves, whose layer
 * can be got at, and that rest on nothing which is not made. Empty where nothing waits.
 */
export function meanwhile(job: Job, w: WheelEnd): Step[] {
  const step = w.release || w.firstBuild ? null : stepAtHand(w);
  if (!step || !waitsFor(job, w, step)) return [];
  return progressOf(w).flatMap((p) =>
    p.record === null && p.step !== step && canBeMadeNow(w, p.step as Act) && !waitsFor(job, w, p.step)
      ? [p.step]
      : [],
  );
}

/** Whether hands can make a closure now, and it would count. */
function canBeMadeNow(w: WheelEnd, act: Act): boolean {
  const { side, plan, sheet } = w;
  const { layer } = act;
  if (!layer || !putsBack(act) || act.wait) return false;
  if (mustBeOff(side.stack, act, plan.together).some((id) => isOn(side, id))) return false;
  const order = putBackOrder(everyAct(side.stack, sheet)).get(layer)!;
  const isOff = layerAt(side, layer).is === 'off';
  if (layer !== 'nut' && isAfterPutOn(order, act) === isOff) return false;
  // What is put on over an open layer comes off again for it.
  const covers = side.stack.some(
    (l) =>
      layerAt(side, l.layer).is !== 'on' && needsOffFor(side.stack, l.layer, 'off', plan.together).has(layer),
  );
  if (effectOf(act).moves === 'on' && covers) return false;
  return closuresOf(w).canRest(act);
}
