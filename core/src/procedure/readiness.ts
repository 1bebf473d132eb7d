import type { Sheet } from './sheet.ts';
import type { Procedure } from './step.ts';

/** Something to have at hand before a wheel end is taken apart. */
export interface ReadyLine {
  group: 'tool' | 'part' | 'lubricant' | 'lifting';
  what: string;
}

/** How a line stands. */
export const readyStates = {
  have: 'Have it',
  missing: 'Missing',
  ordered: 'Ordered',
  owner: 'Owner supplies it',
} as const;
export type ReadyState = keyof typeof readyStates;

/** Every line of a readiness list at hand. */
export function allAtHand(procedure: Procedure, sheet: Sheet) {
  return readinessOf(procedure, sheet).map(({ what }) => ({ what, state: 'have' as const }));
}

/**
 * What the work on a wheel end needs: tools, parts that are not used twice, lubricant, lifting gear.
 * @source common practice, no single source
 */
export function readinessOf(procedure: Procedure, sheet: Sheet): ReadyLine[] {
  const lines = (group: ReadyLine['group'], list: readonly string[]) => list.map((what) => ({ group, what }));
  return [
    ...lines('tool', procedure.tools),
    ...lines('tool', sheet.wheelTorque ? ['Torque wrench for the wheel nuts, in calibration'] : []),
    ...lines('part', procedure.singleUse),
    ...lines('lubricant', [sheet.lubricant.name]),
    ...lines('lifting', ['Stands rated for the axle', 'Wheel and hub dolly']),
  ];
}
