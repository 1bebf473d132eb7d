import { practice } from '../procedure/index.ts';
import type { LayerId } from '../stack/index.ts';
import { act, firstAskedBy, type Act } from './act.ts';

/** A wheel-speed sensor, measured with the wheel on: nobody has to, and a lamp that comes and goes asks for it. */
export const sensorMeasured = (layer: LayerId): Act[] =>
  firstAskedBy(4, [
    act(
      layer,
      'later',
      'optional',
      {
        kind: 'sensor',
        stage: 'wheel-on',
        id: 'sensor-output',
        title: 'Sensor measured',
        text: 'Gap or stop, runout of the ring. Passive: turned by hand, one turn in two seconds, output here and on the other side.',
        ...practice,
      },
      { wait: 'wheel-on' },
    ),
  ]);
