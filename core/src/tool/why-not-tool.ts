import { convert, formatTyped, formatValue, unitDefinition } from '../quantity/index.ts';
import { torqueSetting } from '../torque/index.ts';
import { coded } from '../refusal/index.ts';
import type { drives, Tool, ToolKind } from './tool.ts';
import type { ToolRefusal, ToolWords } from './why-not-tool-words.ts';

const why = coded<ToolWords>();

/** What a tool is wanted for. */
export interface ToolUse {
  kind: ToolKind;
  /** Date of the work. */
  today: string;
  /** What is set on a torque wrench, N·m, adapter and multiplier counted in. */
  settingNm?: number;
  /** Of a socket: those that do not round the nut off. */
  points?: readonly number[];
  /** Of an adapter: the drive of the wrench that it goes on. */
  drive?: (typeof drives)[number];
}

/** A dial for end play is graduated in 0.001 in or finer, mm (common practice, no source). */
const COARSEST_DIAL_MM = 0.0254;
const SLACK_MM = 1e-9;

/**
 * The part of a torque wrench's range that is used, N·m: the upper 80 %.
 * @source ISO 6789
 */
export function usableRangeNm({ min, max }: { min: { si: number }; max: { si: number } }): [number, number] {
  return [Math.max(min.si, 0.2 * max.si), max.si];
}

/**
 * Why a tool is not to be used for this, or null: another kind of tool, out of calibration,
 * a torque outside the upper 80 % of its range, a dial too coarse, a socket of other points, an adapter for another drive.
 * @source ISO 6789 for the range of torque tools; a dial's graduation: common practice, no source
 */
export function whyNotTool(
  tool: Tool,
  { kind, today, settingNm, points, drive }: ToolUse,
): ToolRefusal | null {
  const named = { tool: tool.code };
  if (tool.kind !== kind) return why('other-kind', named);
  if (tool.kind === 'socket')
    return points && !points.includes(tool.points)
      ? why('other-points', { ...named, points: tool.points })
      : null;
  if (tool.kind === 'adapter')
    return drive && tool.drive !== drive ? why('other-drive', { ...named, drive: tool.drive }) : null;
  if (tool.calibratedUntil === null) return why('never-calibrated', named);
  if (tool.calibratedUntil < today)
    return why('out-of-calibration', { ...named, since: tool.calibratedUntil });
  if (tool.kind === 'dial-indicator')
    return Math.abs(tool.graduation.si) * 1000 > COARSEST_DIAL_MM + SLACK_MM
      ? why('too-coarse', named)
      : null;
  if (tool.kind !== 'torque-wrench' || settingNm === undefined) return null;
  const range = { minNm: tool.min.si, maxNm: tool.max.si };
  if (torqueSetting({ targetNm: settingNm, tool: range }).tool!.withinRecommended) return null;
  const [fromNm, toNm] = usableRangeNm(tool);
  return why('out-of-range', { ...named, fromNm, toNm, unit: tool.max.unit });
}

/** What a tool can do, in words: "140 to 700 N·m", "0.001 in"; empty where there is nothing to say. */
export function describeTool(tool: Tool): string {
  if (tool.kind === 'torque-wrench') {
    const { unit, value } = tool.max;
    const min = formatValue(convert(tool.min.value, tool.min.unit, unit), unit);
    const range = `${min} to ${formatValue(value, unit)} ${unitDefinition(unit).label}`;
    return [range, ...(tool.drive ? [`${tool.drive} in drive`] : [])].join(', ');
  }
  if (tool.kind === 'socket')
    return `${formatTyped(tool.size)}, ${tool.points} points, ${tool.drive} in drive`;
  if (tool.kind === 'adapter') return `${formatTyped(tool.length)} long, ${tool.drive} in drive`;
  if (tool.kind === 'dial-indicator') return formatTyped(tool.graduation);
  return '';
}
