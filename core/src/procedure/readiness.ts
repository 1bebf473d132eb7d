import type { ToolUse } from '../tool/index.ts';

/** Something to have at hand before a wheel end is taken apart. */
export interface ReadyLine {
  group: 'tool' | 'part' | 'lubricant' | 'lifting';
  /** By what it is recorded. */
  what: string;
  /** Its words, where they are not what it is recorded by. */
  title?: string;
  /** Size, range or amount. */
  detail?: string;
  /** What a calibrated tool must be able to do. */
  need?: Omit<ToolUse, 'today'>;
}

/** How a line stands. */
export const readyStates = {
  have: 'Have it',
  missing: 'Missing',
  ordered: 'Ordered',
  owner: 'Owner supplies it',
} as const;
export type ReadyState = keyof typeof readyStates;
