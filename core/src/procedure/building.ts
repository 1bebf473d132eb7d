import type { Stage } from './stages.ts';
import type { Option, Step } from './step.ts';
import type { TorqueKey } from './sheet.ts';

/** Mark and source of what every shop does and no single page says. */
export const practice = { mark: 'common-practice', source: 'Common practice' } as const;

/** Where a part is driven out or in. */
export const softDrift = { caution: 'Eye protection, soft drift. No hammer on hardened steel.' } as const;

/** What may be said of any step besides its own words. */
type More = Partial<Pick<Step, 'mark' | 'source' | 'caution' | 'optional' | 'when'>>;

/** A step that is done, and nothing more is asked. */
export function doStep(stage: Stage, id: string, title: string, text: string, more: More = {}): Step {
  return { kind: 'instruct', stage, id, title, text, ...practice, ...more };
}

/** A step that ends in a question answered yes or no. */
export function askStep(
  stage: Stage,
  id: string,
  title: string,
  [text, question]: [text: string, question: string],
  more: More = {},
): Step {
  return { kind: 'inspect', stage, id, title, text, question, ...practice, ...more };
}

/** A torque whose figure stands in the sheet, or, where `makers` is set, may have to be read off the maker's. */
export function torqueStep(
  stage: Stage,
  id: string,
  figure: TorqueKey,
  [title, text]: [title: string, text: string],
  more: More & { makers?: true } = {},
): Step {
  return { kind: 'torque', stage, id, figure, title, text, ...practice, ...more };
}

export function chooseStep(
  stage: Stage,
  id: string,
  [title, text]: [title: string, text: string],
  options: readonly Option[],
  more: More = {},
): Step {
  return { kind: 'choose', stage, id, title, text, options, ...practice, ...more };
}

/** A turn of the nut: so many turns, the sheet's back-off, or what the last reading asked for. */
export function turnStep(
  id: string,
  turns: number | 'back-off' | 'planned',
  [title, text]: [title: string, text: string],
): Step {
  return { kind: 'turn', stage: 'adjust', id, turns, title, text, ...practice };
}

/** End play by the dial, or by feel where the sheet allows it. */
export function measureEndPlay(more: More & { title?: string; text?: string } = {}): Step {
  return {
    kind: 'measure',
    stage: 'verify',
    id: 'end-play',
    title: 'Measure end play',
    text: 'Base on the spindle end, tip square on a flat of the hub, brake free. Push and rock, read; pull and rock, read. Three cycles.',
    caution:
      'Never run a hub that measures tight or loose. If it stays loose after this, the bearings are worn: stop and inspect.',
    ...practice,
    ...more,
  };
}

/** Preload as the drag of the turning hub, by pull scale where the sheet gives a figure, else by feel. */
export function measureDrag(): Step {
  return {
    kind: 'measure',
    stage: 'verify',
    id: 'drag',
    title: 'Check the drag',
    text: 'Turn the hub steadily with the pull scale at a wheel stud, or by hand: light, even drag all the way round.',
    caution: 'Rough running or a tight spot is a bearing to be looked at again.',
    ...practice,
  };
}

/** How the nut, clip or screws are kept from coming loose. */
export function lockStep(
  [title, text]: [title: string, text: string],
  methods: readonly Option[],
  more: More = {},
): Step {
  return { kind: 'lock', stage: 'lock-and-fill', id: 'lock', title, text, methods, ...practice, ...more };
}

const ordinal = ['', 'second', 'third', 'fourth'];

/**
 * The same torque several times over, each round its own recorded step.
 * @param later whether the rounds after the first must be done
 */
export function inRounds(step: Step, count: number, later: 'required' | 'good-practice'): Step[] {
  return Array.from({ length: count }, (_, i) => {
    if (i === 0) return step;
    const again = { ...step, id: `${step.id}-${i + 1}`, title: `${step.title}, ${ordinal[i]} round` };
    return later === 'required' ? again : { ...again, optional: true };
  });
}
