export { allAtHand, readinessOf, readyStates, type ReadyLine, type ReadyState } from './readiness.ts';
export { familySheet, familySheets } from './family-sheets.ts';
export { type BandFigure, type Mark, type TorqueFigure } from './figure.ts';
export { findProcedure, procedures, stepsOf, whyNotAdjustable } from './procedures.ts';
export { sayMark, sayTorque, sheetLines, torques, type SheetLine } from './say-sheet.ts';
export { confirmFigure, recalledFigures, sheetDifferences, type SheetDifference } from './sheet-revision.ts';
export {
  bandInMm,
  constructions,
  familySchema,
  sheetSchema,
  type Family,
  type Sheet,
  type TorqueKey,
} from './sheet.ts';
export {
  stageOrder,
  stages,
  stageSchema,
  stepDataSchema,
  type Option,
  type Procedure,
  type Stage,
  type Step,
  type StepData,
  type StepKind,
} from './step.ts';
