import type { LayerId } from '../stack/index.ts';
import { waits, type Act } from './act.ts';
import { alsoBack, alsoOff } from './also-acts.ts';
import { atTheEnd, before, measuredAsFound, onTheBench } from './opening-and-closing-acts.ts';
import { oilLevelOnly } from './cap-acts.ts';
import { redone, undone } from './layer-acts.ts';
import type { RouteState } from './state.ts';
import { retorqueOnly } from './wheel-acts.ts';

/** Layers in the order they are undone. The nut is opened after every layer outside it is off; a brake backed off, before. */
function inOrder(state: RouteState): LayerId[] {
  const { off, layers } = state.reach;
  const opened = [...layers].flatMap(([id, how]) => (how === 'open' ? [id] : []));
  return [...opened.filter((id) => id !== 'nut'), ...off, ...opened.filter((id) => id === 'nut')];
}

/**
 * The steps of one wheel end in one job, in the order they are done: ready; lifted and rocked with every nut
 * tight; cracked, spring brakes last; off, outermost first; judged; back in the opposite order, an inner layer finished with its
 * measurement before the next outer one goes on; then what waited for the wheel, the level, the ground, the road.
 *
 * Derived from the stack, the works and what was found so far, and from nothing else: whatever is undone on the
 * way in is redone on the way out.
 * @source the order follows from the layers; each act carries its own mark and source
 */
export function routeOf(state: RouteState): readonly Act[] {
  const order = inOrder(state);
  const layer = (id: LayerId) => state.stack.find((l) => l.layer === id)!;
  const out = order.map((id) => [...alsoOff(layer(id), state), ...undone(layer(id), state)]);
  const back = [...order].reverse().map((id) => [...redone(layer(id), state), ...alsoBack(layer(id))]);
  const of = (lists: readonly Act[][], phase: Act['phase']) =>
    lists.map((acts) => acts.filter((a) => a.phase === phase));

  const opening = before(state);
  const ground = of(out, 'ground').flat();
  const caged = ground.filter((a) => a.layer === 'brake-outer');
  const off = of(out, 'off');
  const nutAt = order.indexOf('nut');
  const { down, last } = atTheEnd(state);
  const later = [...of(back, 'later').flat(), ...retorqueOnly(state), ...oilLevelOnly(state), ...down];
  return [
    ...opening.ready,
    ...opening.ground,
    // Lifted and rocked while every nut is tight: what was cracked moves by itself.
    ...opening.lift,
    // A damaged rim comes before any nut; a spring brake is caged when nothing else is left to crack.
    ...ground.filter((a) => a.id === 'rims'),
    ...ground.filter((a) => a.id !== 'rims' && !caged.includes(a)),
    ...caged,
    ...off.slice(0, nutAt < 0 ? off.length : nutAt).flat(),
    ...measuredAsFound(state),
    ...(nutAt < 0 ? [] : off.slice(nutAt).flat()),
    ...onTheBench(state),
    ...of(back, 'back').flat(),
    ...waits.flatMap((wait) => inWait(later.filter((a) => a.wait === wait))),
    ...last,
  ];
}

/** Down on its wheels before anything that needs the ground. */
function inWait(acts: readonly Act[]): Act[] {
  return [...acts.filter((a) => a.layer === null), ...acts.filter((a) => a.layer !== null)];
}
