import type { ToolUse } from '../tool/index.ts';
import { formatHubFill } from './hub-fill.ts';
import { stepsOf } from './procedures.ts';
import { formatTorque, torques } from './sheet-lines.ts';
import type { Sheet } from './sheet.ts';
import type { Procedure } from './step.ts';

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

/** Parts that are taken as they are needed; of every other one a wheel end takes one. */
const uncounted: ReadonlySet<string> = new Set([
  'Studs',
  'Knuckle gaskets',
  'Medium threadlocker',
  'Axle oil',
  'Cover gasket or sealant',
]);

/** Tools that are listed by what they must be able to do instead of by name. */
const byNeed = /^(torque wrench|dial indicator|pull scale)/i;

function neededTools(procedure: Procedure, sheet: Sheet): ReadyLine[] {
  const steps = stepsOf(procedure, 'start', {});
  const keys = new Set(steps.flatMap((s) => (s.kind === 'torque' ? [s.figure] : [])));
  const wrenches = torques.flatMap(([key, label]): ReadyLine[] => {
    const figure = sheet[key];
    if (!keys.has(key)) return [];
    return [
      {
        group: 'tool',
        what: `Torque wrench: ${label.toLowerCase()}`,
        detail: figure ? formatTorque(figure, null) : 'as the maker’s sheet asks',
        need: { kind: 'torque-wrench', ...(figure ? { settingNm: figure.max.si } : {}) },
      },
    ];
  });
  const dial = sheet.verifyBy === 'dial' || sheet.verifyBy === 'dial-or-feel';
  return [
    ...wrenches,
    ...(dial
      ? [
          {
            group: 'tool' as const,
            what: 'Dial indicator, magnetic base',
            detail: '0.001 in or finer',
            need: { kind: 'dial-indicator' as const },
          },
        ]
      : []),
    ...(sheet.verifyBy === 'drag'
      ? [{ group: 'tool' as const, what: 'Pull scale', need: { kind: 'pull-scale' as const } }]
      : []),
  ];
}

/**
 * What the work on a wheel end needs: tools with what they must be able to do, parts that are not used
 * twice, lubricant with its amount where the hub is known, lifting gear.
 * @source common practice, no single source
 */
export function readinessOf(procedure: Procedure, sheet: Sheet): ReadyLine[] {
  const lines = (group: ReadyLine['group'], list: readonly string[]) => list.map((what) => ({ group, what }));
  const first = (procedure.shared ?? 1) === 1;
  const amount = formatHubFill(sheet, null);
  return [
    ...lines(
      'tool',
      procedure.tools.filter((t) => first || !byNeed.test(t)),
    ),
    ...(first
      ? lines('tool', sheet.wheelTorque ? ['Torque wrench for the wheel nuts, in calibration'] : [])
      : neededTools(procedure, sheet)),
    ...lines('part', procedure.singleUse).map((l) =>
      first || uncounted.has(l.what) ? l : { ...l, detail: '1 for this wheel end' },
    ),
    { group: 'lubricant', what: sheet.lubricant.name, ...(amount ? { detail: amount } : {}) },
    ...lines('lifting', ['Stands rated for the axle', 'Wheel and hub dolly']),
  ];
}
