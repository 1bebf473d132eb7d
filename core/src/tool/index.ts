export { toolKinds, toolSchema, type Tool, type ToolKind } from './tool.ts';
export { sayTool, usableRangeNm, whyNotTool, type ToolUse } from './why-not-tool.ts';
