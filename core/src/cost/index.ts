export { jobCost, jobCostCalculation } from './job-cost.ts';
export {
  billDifferences,
  billSchema,
  billTotals,
  describeTax,
  lineMinor,
  taxed,
  type Bill,
  type BillDifference,
  type Tax,
  type Taxed,
} from './bill.ts';
export { runningCosts, type BilledJob, type RunningCost } from './running-cost.ts';
export { formatMoney, toMinor, typedMoney } from './money.ts';
