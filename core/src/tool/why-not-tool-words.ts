import type { Coded } from '../refusal/index.ts';
import { convert, formatValue, unitDefinition, type Unit } from '../quantity/index.ts';

interface Named {
  /** The tool's own code in the shop. */
  tool: string;
}

/** Why a tool is not to be used, in words. */
const toolWords = {
  'other-kind': ({ tool }: Named) => `${tool} is another kind of tool`,
  'other-points': ({ tool, points }: Named & { points: number }) => `${tool} has ${points} points`,
  'other-drive': ({ tool, drive }: Named & { drive: string }) => `${tool} is for a drive of ${drive} in`,
  'never-calibrated': ({ tool }: Named) => `${tool} has no calibration on record`,
  'out-of-calibration': ({ tool, since }: Named & { since: string }) =>
    `${tool} is out of calibration since ${since}`,
  'too-coarse': ({ tool }: Named) => `${tool} is too coarse: 0.001 in or finer`,
  'out-of-range': ({ tool, fromNm, toNm, unit }: Named & { fromNm: number; toNm: number; unit: Unit }) => {
    const [from, to] = [fromNm, toNm].map((nm) => formatValue(convert(nm, 'Nm', unit), unit));
    return `${tool} is good from ${from} to ${to} ${unitDefinition(unit).label}`;
  },
} as const;

export type ToolWords = typeof toolWords;
export type ToolRefusal = Coded<ToolWords>;

/** Why a tool is not to be used, in words. */
export function describeToolRefusal({ code, params }: ToolRefusal): string {
  return (toolWords[code] as (params: unknown) => string)(params);
}
