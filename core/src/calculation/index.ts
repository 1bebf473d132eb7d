export {
  BadInput,
  defineCalculation,
  type Calculation,
  type Issue,
  type Progress,
  type Source,
} from './calculation.ts';
export {
  bandSchema,
  lengthMm,
  LONGEST,
  threadSchema,
  TOLERANCE_MM,
  type Band,
  type Thread,
} from './fields.ts';
