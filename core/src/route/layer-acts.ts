import type { Layer } from '../stack/index.ts';
import type { Act } from './act.ts';
import { innerBrakeBack, innerBrakeOff, outerBrakeBack, outerBrakeOff } from './brake-acts.ts';
import { capBack, capOff } from './cap-acts.ts';
import { hubBack, hubOff } from './hub-acts.ts';
import { knuckleBack, knuckleOff, spindleBack, spindleOff } from './knuckle-acts.ts';
import { nutBack, nutOff } from './nut-acts.ts';
import { axleBack, axleOff, shaftBack, shaftOff } from './shaft-acts.ts';
import type { RouteState } from './state.ts';
import { sealHubBack, sealHubOff, unitHubBack, unitHubOff } from './unit-hub-acts.ts';
import { wheelAfterRoad, wheelBack, wheelOff } from './wheel-acts.ts';

/** What takes a layer off, or opens it, in its order. */
export function undone(layer: Layer, state: RouteState): Act[] {
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

/** What puts a layer back, in its order. */
export function redone(layer: Layer, state: RouteState): Act[] {
  switch (layer.layer) {
    case 'wheel':
      return [...wheelBack(layer, state), ...wheelAfterRoad(layer, state.stack)];
    case 'cap':
      return capBack(layer, state);
    case 'brake-outer':
      return outerBrakeBack(layer, state);
    case 'brake-inner':
      return innerBrakeBack(layer, state);
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
      return knuckleBack(layer, state);
  }
}
