export { jobCost, jobCostCalculation } from './job-cost.ts';
export {
  billDifferences,
  billSchema,
  billTotals,
  lineMinor,
  sayMoney,
  type Bill,
  type BillDifference,
} from './bill.ts';
