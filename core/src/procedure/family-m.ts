import { askStep, doStep, lockStep } from './building.ts';
import type { Procedure } from './step.ts';

/**
 * Family M: drum and hub joined by swaged studs.
 * @source common practice, no single source
 */
export const swagedStuds: Procedure = {
  id: 'm-swaged-studs',
  family: 'M',
  version: 1,
  title: 'Drum and hub joined by swaged studs',
  tools: ['Swage cutter', 'Press', 'Dial indicator'],
  singleUse: ['Studs'],
  omits: ['as-found', 'cup-home', 'fill'],
  steps: [
    doStep('tear-down', 'cut-swage', 'Cut the swage away', 'All of it, before the stud is pressed out.', {
      caution: 'Pressed out with its swage on, a stud stretches the hole and the drum warps.',
    }),
    doStep('tear-down', 'press-out', 'Press the stud out', 'Hub supported close to the stud, no hammer.'),
    askStep('inspect', 'holes', 'Holes of hub and drum', [
      'Measure each hole; look for a bell mouth.',
      'Is every hole round and its size?',
    ]),
    askStep('inspect', 'new-studs', 'New studs compared', [
      'Length, thread, shoulder and knurl beside the old one.',
      'Do length and shoulder match?',
    ]),
    doStep('assemble', 'stud-in', 'New stud home', 'Pressed home square, shoulder against the flange.'),
    askStep('verify', 'runout', 'Drum runs true', [
      'Turn the drum against a dial or a fixed point.',
      'Does it run true?',
    ]),
    lockStep(
      ['Studs held', 'How drum and hub are joined now.'],
      [
        { id: 'shoulder', label: 'Shoulder home, drum held by the wheel nuts' },
        { id: 'swaged', label: 'Swaged again in the press' },
      ],
    ),
  ],
  readjust: [],
};
