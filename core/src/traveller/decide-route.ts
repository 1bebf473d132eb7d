import { asItStands, movedLayers, whatCannotStand } from '../assembly/index.ts';
import { everyAct, isUsedUp, partOfLine, putBackOrder, putsBack, type Act } from '../route/index.ts';
import { layerOf, reachOf, worksOf, type LayerId, type Stack, type Work } from '../stack/index.ts';
import { accept, refuse, refuseFor, type DecideContext, type Decision } from './decision.ts';
import type { Actor } from '../access/index.ts';
import type { BodyOf, Command } from './event.ts';
import { refusal, type Refusal } from './refusal.ts';
import type { Plan, WheelEnd } from './job.ts';
import { progressOf } from './progress.ts';
import { whyNoRoute } from './why-no-route.ts';

type RouteChange = Extract<
  Command,
  {
    kind:
      'work-added' | 'work-withdrawn' | 'layer-opened' | 'sheet-changed' | 'part-received' | 'as-it-stands';
  }
>;

/** What changes the route itself: more work, less, a layer opened again, another sheet, a part that came. */
export function changeRoute(w: WheelEnd, command: RouteChange, { by }: DecideContext): Decision {
  const { plan } = w;
  switch (command.kind) {
    case 'work-added': {
      if (plan.works.includes(command.work)) return refuse('wanted-already', { work: command.work });
      return worksOf(plan.stack).includes(command.work)
        ? accept(command)
        : refuse('cannot-have-work', { position: w.position, work: command.work });
    }
    case 'work-withdrawn':
      return withdraw(w, plan, command);
    case 'layer-opened': {
      const back = progressOf(w).some(({ step, record }) => {
        return record && (step as Act).layer === command.layer && putsBack(step);
      });
      return back ? accept(command) : refuse('not-back', { layer: command.layer });
    }
    case 'sheet-changed': {
      if (by.role !== 'supervisor') return refuse('for-supervisor', { act: 'built-differently' });
      const { stack } = command;
      const wanted = plan.works.find((work) => !worksOf(stack).includes(work));
      if (wanted) return refuse('built-so-no-work', { work: wanted });
      const named = new Map((command.lost ?? []).map((l) => [l.layer, l.is]));
      const lost = layersLost(w, stack).find((id) => !named.has(id));
      if (lost) return refuse('layer-lost', { layer: lost });
      const odd = [...named.values()].find((is) => is && !layerOf(stack, is));
      if (odd) return refuse('new-stack-lacks', { layer: odd });
      const why = whyNoRoute(command.sheet, { ...plan, stack });
      return why ? refuse('sheet-unfit', { why }) : accept(command);
    }
    case 'part-received': {
      const part = partOfLine(command.what);
      return command.as === 'reused' && part && isUsedUp(part)
        ? refuse('never-again', { part })
        : accept(command);
    }
    case 'as-it-stands': {
      const why = whyItCannotStand(w, command, by);
      return why ? refuseFor(why) : accept(command);
    }
  }
}

/** Layers that can be open without being off. */
export const canBeOpen: ReadonlySet<LayerId> = new Set(['nut', 'brake-outer', 'knuckle']);

/** Why a wheel end cannot stand as somebody says, or null. */
function whyItCannotStand(
  { side, sheet, plan, position }: WheelEnd,
  { layers, who }: BodyOf<'as-it-stands'>,
  by: Actor,
): Refusal | null {
  if (new Set(layers.map((l) => l.layer)).size < layers.length) return refusal('layer-named-twice');
  const strange = layers.find((l) => !layerOf(plan.stack, l.layer));
  if (strange) return refusal('has-no-layer', { position, layer: strange.layer });
  const open = layers.find((l) => l.is === 'open' && !canBeOpen.has(l.layer));
  if (open) return refusal('never-open', { layer: open.layer });
  if (layers.some((l) => l.is === 'on') && by.role !== 'supervisor')
    return refusal('for-supervisor', { act: 'put-on-by-others' });
  const mark = { seq: 0, eventId: by.id, jobId: by.id, at: '', by: by.name };
  const stands = asItStands(side, { sheet, together: plan.together }, { layers, who, mark });
  const odd = whatCannotStand(stands);
  return odd ? refusal('cannot-stand', odd) : null;
}

/** Layers that are off, open or not finished, and that another stack does not have. */
export function layersLost(w: WheelEnd, stack: Stack): LayerId[] {
  return movedLayers(w.side).filter((id) => !layerOf(stack, id));
}

/** Whether a layer was moved, or something of it broken, since the side's last release. */
function isTouched(w: WheelEnd, id: LayerId): boolean {
  const order = putBackOrder(everyAct(w.plan.stack, w.sheet)).get(id);
  return movedLayers(w.side).includes(id) || !!order?.some((a) => w.side.broken[a.id]);
}

function withdraw(w: WheelEnd, plan: Plan, command: BodyOf<'work-withdrawn'>): Decision {
  const why = whyNotWithdrawn(w, plan, command.work);
  return why ? refuseFor(why) : accept(command);
}

/** Why a work cannot be taken off the route, or null: it is the only one, or a layer of it alone is opened. */
export function whyNotWithdrawn(w: WheelEnd, plan: Plan, work: Work): Refusal | null {
  if (!plan.works.includes(work)) return refusal('not-wanted', { position: w.position, work });
  const left = plan.works.filter((x) => x !== work);
  if (left.length === 0) return refusal('only-work', { position: w.position });
  const stay = reachOf(plan.stack, left, plan.alreadyOff, plan.together).layers;
  const touched = [...reachOf(plan.stack, plan.works, plan.alreadyOff, plan.together).layers.keys()].find(
    (id) => !stay.has(id) && isTouched(w, id),
  );
  return touched ? refusal('opened-already', { layer: touched }) : null;
}
