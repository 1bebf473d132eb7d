import { askStep, doStep, lockStep, torqueStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family J: a shaft seal behind a snap ring and shim, the hub held by grub screws, on small crawlers.
 * @source common practice, no single source
 */
export const shaftSeal: Procedure = {
  id: 'j-shaft-seal',
  family: 'J',
  version: 1,
  title: 'Shaft seal on a small machine',
  tools: ['Hex keys', 'Snap-ring pliers', 'Seal pick', 'Mounting sleeve'],
  singleUse: ['Shaft seal', 'Medium threadlocker'],
  omits: ['as-found', 'cup-home', 'hub-on', 'brakes-back', 'fill'],
  steps: [
    doStep(
      'tear-down',
      'seal-out',
      'Screws, hub, ring, shim, seal',
      'Three grub screws, hub, snap ring, shim; old seal out with a pick, shaft not scratched.',
    ),
    askStep('clean-and-seat', 'shaft-clean', 'Shaft clean', [
      'Old grease off, edge of the shaft free of burrs.',
      'Is the shaft smooth where the seal runs?',
    ]),
    doStep('assemble', 'pack-seal', 'Pack the new seal', 'Full of the named grease, no voids.', {
      caution: 'Wrong grease destroys. Never mix thickeners.',
    }),
    askStep('assemble', 'seal-home', 'Seal home', [
      'Sleeve over the shaft’s edge, push home square; shim, snap ring.',
      'Is the seal square, and the ring in its groove all round?',
    ]),
    torqueStep(
      'adjust',
      'grub-screws',
      'boltTorque',
      ['Hub and grub screws', 'Three screws, medium threadlocker.'],
      {
        makers: true,
      },
    ),
    askStep('verify', 'turns', 'Turns and is tight', [
      'Turn the hub both ways, pull and push.',
      'Does it turn without rubbing, and is the hub firm on the shaft?',
    ]),
    lockStep(
      ['Screws locked', 'Threadlocker on clean threads.'],
      [{ id: 'threadlocker', label: 'Three screws with medium threadlocker' }],
    ),
  ],
  readjust: [],
};
