import { layerAt } from '../assembly/index.ts';
import { oppositeOf } from '../axle-plan/index.ts';
import type { Step } from '../procedure/index.ts';
import {
  closedWith,
  everyAct,
  fittedBy,
  partOfLine,
  putBackOrder,
  putsBack,
  type Act,
} from '../route/index.ts';
import { layerOf, type LayerId } from '../stack/index.ts';
import { readyLines } from './findings.ts';
import { wheelEndAt, type Job, type WheelEnd } from './job.ts';
import { openQuestions, progressOf } from './progress.ts';
import { refusal, type Refusal } from './refusal.ts';

/** Why a step has to wait for somebody or something else, or null: the other side, the owner, the supervisor, a part. */
export function waitsFor(job: Job, w: WheelEnd, step: Step): Refusal | null {
  const waiting =
    waitsForOtherSide(job, w, step) ?? waitsForOtherWheel(job, w, step) ?? waitsForOwner(job, step);
  if (waiting) return waiting;
  const [question] = openQuestions(w);
  if (question && putsBack(step)) return refusal('waits-for-decision', { component: question.component });
  const awaited = awaitedPart(w, step);
  return awaited ? refusal('waits-for-part', { position: w.position, what: awaited }) : null;
}

/** The axle is closed when neither side needs it. */
function waitsForOtherSide(job: Job, w: WheelEnd, step: Step): Refusal | null {
  const { layer, phase } = step as Act;
  if (layer !== 'axle' || phase !== 'back') return null;
  const other = wheelEndAt(job, oppositeOf(w.position));
  if (!other || other.release) return null;
  const open = progressOf(other).find((p) => {
    const act = p.step as Act;
    return act.layer === 'shaft' && act.phase === 'back' && p.record === null;
  });
  return open ? refusal('waits-for-shaft', { position: other.position }) : null;
}

/** Both sides of an axle are lowered together: none onto an axle that has no wheel on its other side. */
function waitsForOtherWheel(job: Job, w: WheelEnd, step: Step): Refusal | null {
  if (step.id !== 'down') return null;
  const other = wheelEndAt(job, oppositeOf(w.position));
  if (
    !other ||
    other.release ||
    !layerOf(other.side.stack, 'wheel') ||
    layerAt(other.side, 'wheel').is !== 'off'
  )
    return null;
  return refusal('waits-for-wheel', { position: other.position });
}

/**
 * The owner's answer gates the work: nothing is taken off while an estimate waits for it, or after a no. What was
 * taken off before goes back all the same.
 */
function waitsForOwner({ money }: Job, step: Step): Refusal | null {
  if (!money.estimate) return null;
  const { phase } = step as Act;
  if (phase !== 'ground' && phase !== 'off') return null;
  if (!money.answer) return refusal('waits-for-owner');
  const { answer } = money.answer;
  return answer === 'do-now' ? null : refusal('owner-said-no', { answer });
}

/** Layers on which everything waits for a part that no act names. */
const holdsParts: ReadonlySet<LayerId> = new Set(['hub', 'unit-hub', 'seal-hub', 'shaft', 'spindle']);

/** Whether an act needs a part that is on order: it fits it, or comes after what fits it on the same layer. */
function isHeldUpBy({ side, sheet }: WheelEnd, act: Act, part: string | null): boolean {
  if (!part || !act.layer) return false;
  const fits = [...closedWith(part), ...fittedBy(part)];
  if (fits.length === 0) return holdsParts.has(act.layer);
  const order = putBackOrder(everyAct(side.stack, sheet)).get(act.layer)!;
  const first = order.findIndex((a) => fits.includes(a.id));
  return first >= 0 && order.findIndex((a) => a.id === act.id) >= first;
}

/** A part that is on order when the first step comes that needs it: what is put back on a layer that holds it. */
function awaitedPart(w: WheelEnd, step: Step): string | undefined {
  if (!putsBack(step)) return undefined;
  const came = new Set(w.plan.received.map((r) => r.what));
  return [...readyLines(w).values()].find(
    (l) => l.state === 'ordered' && !came.has(l.what) && isHeldUpBy(w, step as Act, partOfLine(l.what)),
  )?.what;
}
