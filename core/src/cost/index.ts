export { jobCost, jobCostCalculation } from './job-cost.ts';
export {
  billDifferences,
  billSchema,
  billTotals,
  lineMinor,
  type Bill,
  type BillDifference,
} from './bill.ts';
export { formatMoney, toMinor, typedMoney } from './money.ts';
