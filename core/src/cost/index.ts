export { jobCost, jobCostCalculation } from './job-cost.ts';
export {
  billDifferences,
  billFor,
  billSchema,
  billTotals,
  describeTax,
  isSplit,
  lineMinor,
  taxed,
  taxSchema,
  type Bill,
  type BillDifference,
  type BillLine,
  type Tax,
  type Taxed,
  type WorkAt,
} from './bill.ts';
export { runningCosts, type BilledJob, type RunningCost } from './running-cost.ts';
export { formatMoney, toMinor, typedMoney } from './money.ts';
export { estimateOf, writtenAnew, type EstimatedEnd, type EstimatedPart, type Rates } from './estimate.ts';
