import type { Layer, LayerId } from '../stack/index.ts';
import { waits, type Act } from './act.ts';
import { alsoBack, alsoOff } from './also-acts.ts';
import { atTheEnd, before, measuredAsFound, onTheBench } from './opening-and-closing-acts.ts';
import { innerBrakeBack, innerBrakeOff, outerBrakeBack, outerBrakeOff } from './brake-acts.ts';
import { capBack, capOff, oilLevelOnly } from './cap-acts.ts';
import { hubBack, hubOff } from './hub-acts.ts';
import { knuckleBack, knuckleOff, spindleBack, spindleOff } from './knuckle-acts.ts';
import { nutBack, nutOff } from './nut-acts.ts';
import { axleBack, axleOff, shaftBack, shaftOff } from './shaft-acts.ts';
import type { RouteState } from './state.ts';
import { sealHubBack, sealHubOff, unitHubBack, unitHubOff } from './unit-hub-acts.ts';
import { retorqueOnly, wheelAfterRoad, wheelBack, wheelOff } from './wheel-acts.ts';

function undone(layer: Layer, state: RouteState): Act[] {
  switch (layer.layer) {
    case 'wheel':
      return wheelOff(layer, state);
    case 'cap':
      return capOff(layer, state);
    case 'brake-outer':
      return outerBrakeOff(layer, state);
    case 'brake-inner':
      return innerBrakeOff(layer, state);
    case 'nut':
      return nutOff(layer, state);
    case 'hub':
      return hubOff(layer, state);
    case 'unit-hub':
      return unitHubOff(layer, state);
    case 'seal-hub':
      return sealHubOff(state);
    case 'shaft':
      return shaftOff(layer, state);
    case 'axle':
      return axleOff(state);
    case 'spindle':
      return spindleOff(layer, state);
    case 'knuckle':
      return knuckleOff(state);
  }
}

function redone(layer: Layer, state: RouteState): Act[] {
  switch (layer.layer) {
    case 'wheel':
      return [...wheelBack(layer, state), ...wheelAfterRoad()];
    case 'cap':
      return capBack(layer, state);
    case 'brake-outer':
      return outerBrakeBack(layer);
    case 'brake-inner':
      return innerBrakeBack(layer);
    case 'nut':
      return nutBack(layer, state);
    case 'hub':
      return hubBack(layer, state);
    case 'unit-hub':
      return unitHubBack(layer);
    case 'seal-hub':
      return sealHubBack();
    case 'shaft':
      return shaftBack(layer, state);
    case 'axle':
      return axleBack(state);
    case 'spindle':
      return spindleBack(layer, state);
    case 'knuckle':
      return knuckleBack();
  }
}

/** The nut is opened after every layer outside it is off and, unlike those, may stay on its thread. */
function inOrder(state: RouteState): LayerId[] {
  const { off, layers } = state.reach;
  return layers.get('nut') === 'open' ? [...off, 'nut'] : [...off];
}

/**
 * The steps of one wheel end in one job, in the order they are done: ready; cracked on the ground, spring brakes
 * last; lifted; off, outermost first; judged; back in the opposite order, an inner layer finished with its
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
    // A damaged rim comes before any nut; a spring brake is caged when nothing else is left to do on the ground.
    ...ground.filter((a) => a.id === 'rims'),
    ...ground.filter((a) => a.id !== 'rims' && !caged.includes(a)),
    ...caged,
    ...opening.lift,
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
