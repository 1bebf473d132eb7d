export { backOffLeavesMm } from './back-off.ts';
export { readyStates, type ReadyLine, type ReadyState } from './readiness.ts';
export { familySheet, familySheets } from './family-sheets.ts';
export {
  intervalFigureSchema,
  torqueFigureSchema,
  type BandFigure,
  type HeatFigure,
  type Hub,
  type IntervalFigure,
  type Mark,
  type Marked,
  type RetorqueFigure,
  type ForceFigure,
  type TorqueFigure,
} from './figure.ts';
export { findProcedure, procedures, stepsOf } from './procedures.ts';
export {
  describeLine,
  describeMark,
  formatLimits,
  formatTorque,
  sheetLines,
  sheetSources,
  torques,
  nextPlaces,
} from './sheet-lines.ts';
export {
  confirmFigure,
  hasFigures,
  recalledFigures,
  sheetDifferences,
  type SheetDifference,
} from './sheet-revision.ts';
export {
  bandInMm,
  constructions,
  familySchema,
  sheetSchema,
  torqueKeys,
  type Family,
  type Sheet,
  type TorqueKey,
} from './sheet.ts';
export {
  askStep,
  chooseStep,
  doStep,
  lockStep,
  measureDrag,
  practice,
  softDrift,
  torqueStep,
} from './building.ts';
export { hubFill, formatHubFill } from './hub-fill.ts';
export { openSchools, describeSchool, schoolNames, schools, type School, type Schools } from './schools.ts';
export { stackOfSheet } from './stack-of-sheet.ts';
export {
  sealDepths,
  seatFaults,
  seatFromTouched,
  whyNoSeat,
  whyNotTouched,
  type SeatFault,
} from './seal-depth.ts';
export {
  compared,
  stepDataSchema,
  type Compared,
  type MeasuredSeat,
  type StepData,
  type TouchedPlaces,
} from './step-data.ts';
export {
  dimensions,
  offered,
  stageSchema,
  type Dimension,
  type Option,
  type Procedure,
  type Step,
  type StepKind,
} from './step.ts';
export { stageOrder, stages, type Stage } from './stages.ts';
