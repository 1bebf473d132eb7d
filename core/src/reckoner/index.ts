export { choiceWords, labelOf, sayNumber, unitOf, type FieldUnit } from './field-words.ts';
export {
  describeCalculation,
  listCalculations,
  reckon,
  sayNoJson,
  type CalculationDescription,
  type CalculationTitle,
  type Reckoned,
} from './reckon.ts';
export { sayResult } from './say-result.ts';
