export {
  describeCalculation,
  listCalculations,
  reckon,
  type CalculationDescription,
  type CalculationTitle,
  type Reckoned,
} from './reckon.ts';
