export { choiceWords, labelOf, formatNumber, unitOf, type FieldUnit } from './field-words.ts';
export {
  describeCalculation,
  listCalculations,
  reckon,
  describeBadJson,
  type CalculationDescription,
  type CalculationTitle,
  type Reckoned,
} from './reckon.ts';
export { describeResult } from './describe-result.ts';
