import type { Step } from '../procedure/index.ts';
import type { LayerId } from '../stack/index.ts';

/** When an act comes in the work on a wheel end, in this order. */
export type Phase = 'before' | 'ground' | 'lift' | 'off' | 'bare' | 'back' | 'later';

/** What a put-back act may have to wait for, in the order these come about. */
export const waits = ['wheel-on', 'ground', 'level', 'road'] as const;
export type Wait = (typeof waits)[number];

/**
 * Who may release without it. `never`: nobody, for any reason. `supervisor`: a supervisor with a written reason.
 * `optional`: it may be skipped with a reason.
 */
export type Guard = 'never' | 'supervisor' | 'optional';

/** A step of a route: what is done, on which layer, when, and who may release without it. */
export type Act = Step & {
  layer: LayerId | null;
  phase: Phase;
  guard: Guard;
  wait?: Wait;
  /** Number of the rules that asked for it first; 2 where it is not said. */
  since?: number;
  /** It moves the bearing nut, jam nut, washer, shims or hub: readings from before it are void. */
  disturbs?: true;
};

type More = Partial<Pick<Act, 'wait' | 'disturbs'>>;

/** Whether a step of a route puts something back, now or when what it waits for has come. */
export function putsBack(step: Step): boolean {
  const { phase } = step as Partial<Act>;
  return phase === 'back' || phase === 'later';
}

/** Puts a step into its place in the work. */
export function act(layer: LayerId | null, phase: Phase, guard: Guard, step: Step, more: More = {}): Act {
  const placed: Act = { ...step, layer, phase, guard, ...more };
  if (guard === 'optional') placed.optional = true;
  else delete placed.optional;
  return placed;
}

/** Acts of one layer in one phase that nobody releases without. */
export const undo = (layer: LayerId, phase: 'ground' | 'off', ...steps: Step[]): Act[] =>
  steps.map((step) => act(layer, phase, 'supervisor', step));
export const redo = (layer: LayerId, ...steps: Step[]): Act[] =>
  steps.map((step) => act(layer, 'back', 'never', step));
/** A put-back act that waits for the wheel, the level, the ground or the road. */
export const redoLater = (layer: LayerId, wait: Wait, ...steps: Step[]): Act[] =>
  steps.map((step) => act(layer, 'later', 'never', step, { wait }));

/** Acts that the rules of a number were the first to ask for: no release of earlier rules is held against them. */
export const firstAskedBy = (rules: number, acts: readonly Act[]): Act[] =>
  acts.map((a) => ({ ...a, since: rules }));
