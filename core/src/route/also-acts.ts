import { askStep, doStep, torqueStep, type Step } from '../procedure/index.ts';
import { alsoUndone, type AlsoUndone, type Layer } from '../stack/index.ts';
import { act, undo, type Act, type Guard } from './act.ts';
import type { RouteState } from './state.ts';

/** How each is undone, what is asked when it is back, and who may release without that. */
const how: Record<AlsoUndone, { off: string; back: [text: string, question: string]; guard: Guard }> = {
  'hose-bracket': {
    off: 'Bracket off, so that the hose is neither bent nor stretched.',
    back: [
      'Bracket on, hose free of wheel and rim from lock to lock.',
      'Is the hose held, and free all the way?',
    ],
    guard: 'never',
  },
  'speed-cable-clip': {
    off: 'Clip out, cable drawn from the cap or spindle.',
    back: ['Cable in to its end, clip in its groove.', 'Is the clip in, and does the cable sit?'],
    guard: 'supervisor',
  },
  'ball-joint-nut': {
    off: 'Pin out, nut off, taper freed with the joint splitter and not with a hammer on the thread.',
    back: ['A new pin through nut and stud, both legs bent.', 'Is the new pin in and bent?'],
    guard: 'never',
  },
  circlips: {
    off: 'Out with the proper pliers; eyes protected.',
    back: ['New or sound circlips, home in their grooves all the way round.', 'Does each sit in its groove?'],
    guard: 'never',
  },
  'baffle-screws': {
    off: 'Screws out, baffle kept with them.',
    back: ['Baffle on, every screw in and tight.', 'Is every screw tight?'],
    guard: 'supervisor',
  },
};

const idOf = (layer: Layer, id: AlsoUndone) => `${layer.layer}-${id}`;

/** What is undone with a layer before it comes off. */
export function alsoOff(layer: Layer, { alreadyOff }: RouteState): Act[] {
  if (alreadyOff.includes(layer.layer)) return [];
  return layer.alsoUndone.flatMap((id) =>
    undo(
      layer.layer,
      // Circlips stand before the bolts that are cracked.
      id === 'circlips' ? 'ground' : 'off',
      doStep('tear-down', `${idOf(layer, id)}-off`, `${alsoUndone[id]} off`, how[id].off),
    ),
  );
}

/** The same done again once the layer is back; a steering joint with its torque. */
export function alsoBack(layer: Layer): Act[] {
  return layer.alsoUndone.flatMap((id) => {
    const back = (step: Step) => act(layer.layer, 'back', how[id].guard, step);
    const asked = back(
      askStep('lock-and-fill', `${idOf(layer, id)}-back`, `${alsoUndone[id]} back`, how[id].back),
    );
    if (id !== 'ball-joint-nut') return [asked];
    const words: [string, string] = [
      alsoUndone[id],
      'Taper clean and dry, nut to its figure, then on to the pin hole.',
    ];
    return [
      back(torqueStep('lock-and-fill', idOf(layer, id), 'jointTorque', words, { makers: true })),
      asked,
    ];
  });
}
