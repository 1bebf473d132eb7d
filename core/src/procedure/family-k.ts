import { askStep, doStep, lockStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family K: the needle bearing in the spindle behind a driven steer hub, with thrust washer and V-seal.
 * @source common practice, no single source
 */
export const spindleNeedle: Procedure = {
  id: 'k-spindle-needle',
  family: 'K',
  version: 1,
  title: 'Spindle needle bearing',
  tools: ['Soft drift', 'Needle bearing driver', 'Snap-ring pliers', 'Depth gauge'],
  singleUse: ['V-seal', 'Spindle seal', 'Thrust washer'],
  omits: ['as-found', 'cup-home', 'hub-on', 'fill'],
  steps: [
    doStep(
      'tear-down',
      'needle-out',
      'Needle bearing out',
      'Driven out from the far side with a soft drift.',
      {
        caution: 'Eye protection, soft drift. No hammer on hardened steel.',
      },
    ),
    askStep('inspect', 'bore', 'Bore of the spindle', [
      'A bearing that turned in its bore leaves it bright and oversize.',
      'Is the bore sound?',
    ]),
    doStep(
      'clean-and-seat',
      'needle-in',
      'New bearing in',
      'Pressed below flush by the thickness of its seal.',
    ),
    doStep(
      'assemble',
      'seal-in',
      'Spindle seal',
      'Flat side of the seal to the bearing. Grease the needles wholly.',
    ),
    askStep('adjust', 'shaft-order', 'Order on the shaft', [
      'V-seal, its square side to the shield; thrust washer, its bevel to the joint; V-groove seal, its V to the thrust washer.',
      'Does each stand the right way round?',
    ]),
    askStep('verify', 'turns', 'Shaft turns', [
      'Spindle on, shaft turned by hand through full lock.',
      'Does it turn freely, without a knock?',
    ]),
    lockStep(
      ['Spindle and shaft held', 'As the axle asks.'],
      [
        { id: 'snap-ring', label: 'Snap ring in its groove' },
        { id: 'spindle-nuts', label: 'New spindle nuts, to the maker’s torque' },
      ],
    ),
  ],
  readjust: [],
};
