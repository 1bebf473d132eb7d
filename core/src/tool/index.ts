export {
  drives,
  isCalibrated,
  socketPoints,
  toolKinds,
  toolSchema,
  type Tool,
  type ToolKind,
} from './tool.ts';
export { describeTool, usableRangeNm, whyNotTool, type ToolUse } from './why-not-tool.ts';
export { describeToolRefusal, type ToolRefusal } from './why-not-tool-words.ts';
