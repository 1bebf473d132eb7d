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
        text: 'Gap, or pushed to its stop; the ring’s runout over a turn. A passive sensor: lead unplugged, wheel turned by hand one turn in two seconds, volts alternating read here and on the other side. Grommet and clips back where they were.',
        ...practice,
      },
      { wait: 'wheel-on' },
    ),
  ]);
