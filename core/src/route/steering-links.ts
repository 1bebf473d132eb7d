import { lockStep, torqueStep } from '../procedure/index.ts';
import type { LayerId } from '../stack/index.ts';
import { redo, type Act } from './act.ts';

/** Track rod and drag link back on a knuckle or a stub: to figure, then pinned. @param ids of the torque and of the pins */
export const linksBack = (layer: LayerId, ids: { links: string; pins: string }): Act[] =>
  redo(
    layer,
    torqueStep('assemble', ids.links, 'jointTorque', ['Track rod and drag link', 'To figure.'], {
      makers: true,
    }),
    {
      ...lockStep(
        ['Steering joints pinned', 'Castle nut on to the next slot, new pin.'],
        [
          { id: 'new-pins', label: 'New pins, legs bent' },
          { id: 'self-locking', label: 'New self-locking nuts' },
        ],
      ),
      id: ids.pins,
    },
  );
