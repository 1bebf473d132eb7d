import { asItStands, movedLayers, whatCannotStand } from '../assembly/index.ts';
import { everyAct, putBackOrder, putsBack, type Act } from '../route/index.ts';
import {
  layerOf,
  layerTitles,
  reachOf,
  works,
  worksOf,
  type LayerId,
  type Stack,
  type Work,
} from '../stack/index.ts';
import { refuse, accept, type DecideContext, type Decision } from './decision.ts';
import type { Actor, BodyOf, Command } from './event.ts';
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
      if (plan.works.includes(command.work)) return refuse(`“${works[command.work]}” is wanted already`);
      return worksOf(plan.stack).includes(command.work)
        ? accept(command)
        : refuse(`${w.position} cannot have “${works[command.work]}”`);
    }
    case 'work-withdrawn':
      return withdraw(w, plan, command);
    case 'layer-opened': {
      const back = progressOf(w).some(({ step, record }) => {
        return record && (step as Act).layer === command.layer && putsBack(step);
      });
      return back ? accept(command) : refuse(`${layerTitles[command.layer]} is not back yet`);
    }
    case 'sheet-changed': {
      if (by.role !== 'supervisor') return refuse('A supervisor says that it is built differently');
      const { stack } = command;
      const wanted = plan.works.find((work) => !worksOf(stack).includes(work));
      if (wanted) return refuse(`Built so, it cannot have “${works[wanted]}”`);
      const named = new Map((command.lost ?? []).map((l) => [l.layer, l.is]));
      const lost = layersLost(w, stack).find((id) => !named.has(id));
      if (lost)
        return refuse(
          `${layerTitles[lost]} is off or open: say which layer of the new stack it is, or that it was never there`,
        );
      const odd = [...named.values()].find((is) => is && !layerOf(stack, is));
      if (odd) return refuse(`The new stack has no ${layerTitles[odd].toLowerCase()}`);
      const why = whyNoRoute(command.sheet, { ...plan, stack });
      return why ? refuse(why) : accept(command);
    }
    case 'part-received':
      return accept(command);
    case 'as-it-stands': {
      const why = whyItCannotStand(w, command, by);
      return why ? refuse(why) : accept(command);
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
): string | null {
  if (new Set(layers.map((l) => l.layer)).size < layers.length) return 'Each layer is named once';
  const strange = layers.find((l) => !layerOf(plan.stack, l.layer));
  if (strange) return `${position} has no ${layerTitles[strange.layer].toLowerCase()}`;
  const open = layers.find((l) => l.is === 'open' && !canBeOpen.has(l.layer));
  if (open) return `${layerTitles[open.layer]} is on or off`;
  if (layers.some((l) => l.is === 'on') && by.role !== 'supervisor')
    return 'A supervisor says what others put on: the release will name it';
  const mark = { seq: 0, eventId: by.id, jobId: by.id, at: '', by: by.name };
  const stands = asItStands(side, { sheet, together: plan.together }, { layers, who, mark });
  const odd = whatCannotStand(stands);
  return odd
    ? `${layerTitles[odd.on]} cannot be on while ${layerTitles[odd.off].toLowerCase()} is off: say how both stand`
    : null;
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
  return why ? refuse(why) : accept(command);
}

/** Why a work cannot be taken off the route, or null: it is the only one, or a layer of it alone is opened. */
export function whyNotWithdrawn(w: WheelEnd, plan: Plan, work: Work): string | null {
  if (!plan.works.includes(work)) return `“${works[work]}” is not wanted on ${w.position}`;
  const left = plan.works.filter((x) => x !== work);
  if (left.length === 0)
    return `It is the only work on ${w.position}: void the job, or end it out of service`;
  const stay = reachOf(plan.stack, left, plan.alreadyOff, plan.together).layers;
  const touched = [...reachOf(plan.stack, plan.works, plan.alreadyOff, plan.together).layers.keys()].find(
    (id) => !stay.has(id) && isTouched(w, id),
  );
  return touched ? `${layerTitles[touched]} is opened already: what was opened goes back` : null;
}
